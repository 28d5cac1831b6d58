import { CATALOGUE, createLookup } from '../../catalogue';
import { checkPlan } from '../../check';
import { createBuild } from '../../make';
import { checkJob, type CoveringItem, type Job, type Ring, type Shrink } from '../../model';
import { createBench } from '../../testing/createBench';
import { plan } from '../index';
import { chooseBladeSleeve } from './chooseBladeSleeve';

/** The left end of the bench as blades on the tongues of a relay. */
const bladed = (tongueMm: number, change: (job: Job) => void = () => undefined) =>
  createBench((loom, job) => {
    loom.ends.L = { ...loom.ends.L!, kind: 'blade', familyId: null, key: null, tongueMm };
    change(job);
  });
const planned = (job: Job, catalogue = CATALOGUE) => plan(job, catalogue).looms[0]!;
const atLeft = (job: Job, catalogue = CATALOGUE) => planned(job, catalogue).terminations.filter(({ endId }) => endId === 'L');
const items = (job: Job, catalogue = CATALOGUE) => {
  const loom = planned(job, catalogue);
  return createBuild(job, loom, catalogue);
};

test('a blade is chosen by its tongue and its copper; insulated ones come first and need no sleeve', () => {
  const job = bladed(6.3);
  expect(checkJob(job, createLookup(CATALOGUE))).toMatchObject({ ok: true });
  const here = atLeft(job);
  expect(here.length).toBeGreaterThan(0);
  for (const { contactId, stripMm, pullOffsN, problem } of here) {
    const blade = CATALOGUE.rings.find(({ id }) => id === contactId)!;
    expect([blade.tongueMm, blade.insulated, problem]).toEqual([6.3, true, null]);
    expect(stripMm).toBe(blade.stripMm);
    // the crimp has to hold as any other
    expect(pullOffsN.every((force) => force !== null && force > 0)).toBe(true);
  }
  const { steps, parts } = items(job);
  const crimp = steps.find(({ id }) => id === 'crimp.L')!;
  expect(
    crimp.items.every(({ words }) => /^tongue \w+, blade 6\.3 insulated/.test(words) && !words.includes('shrunk over all of it')),
  ).toBe(true);
  expect(steps.some(({ id }) => id === 'seat.L')).toBe(false);
  expect(parts.filter(({ name }) => name.startsWith('blade 6.3'))).toHaveLength(1);
});

test('a bare one gets a sleeve over all of it, slid on first: it passes the blade, grips it, and is bought', () => {
  const bare = {
    ...CATALOGUE,
    rings: CATALOGUE.rings.map((one): Ring => (one.tongueMm === 6.3 ? { ...one, insulated: false } : one)),
  };
  const job = bladed(6.3);
  const here = atLeft(job, bare);
  expect(here.length).toBeGreaterThan(0);
  for (const { contactId } of here) {
    const blade = bare.rings.find(({ id }) => id === contactId)!;
    const chosen = chooseBladeSleeve(bare, blade)!;
    const sleeve = bare.coverings.find(({ id }) => id === chosen.itemId) as Shrink;
    expect(sleeve.suppliedBoreMm).toBeGreaterThanOrEqual(1.1 * blade.widthMm!);
    expect(sleeve.recoveredBoreMm).toBeLessThanOrEqual(0.9 * blade.widthMm!);
    // by hand: blade and 8 mm of wire, once it is shrunk
    expect(chosen.cutMm * (1 - sleeve.longitudinalChange)).toBeGreaterThanOrEqual(blade.lengthMm! + 8 - 1e-9);
    // narrower ones do not pass, or do not grip
    const narrower = bare.coverings.filter(
      (one): one is Shrink => 'recoveredBoreMm' in one && one.kind !== 'clear-shrink' && one.suppliedBoreMm < sleeve.suppliedBoreMm,
    );
    expect(narrower.every((one) => one.suppliedBoreMm < 1.1 * blade.widthMm! || one.recoveredBoreMm > 0.9 * blade.widthMm!)).toBe(true);
  }
  const { steps, parts } = items(job, bare);
  const [first] = steps.find(({ id }) => id === 'crimp.L')!.items;
  expect(first!.words).toMatch(/mm, on first and shrunk over all of it/);
  expect(first!.asks.map(({ what }) => what)).toContain('sleeve over it');
  const without = items(bladed(6.3)).parts;
  const metres = (list: typeof parts) =>
    list.filter(({ group }) => group === 'covering').reduce((sum, { lengthMm }) => sum + (lengthMm ?? 0), 0);
  expect(metres(parts)).toBeGreaterThan(metres(without));
});

test('no blade for a tongue, or a bare one that nothing closes, is a stop and not left bare', () => {
  const codes = (job: Job, catalogue = CATALOGUE) =>
    checkPlan(job, plan(job, catalogue), catalogue, null).flatMap(({ code, sentence }) => (code === 'EN1' ? [sentence] : []));
  expect(codes(bladed(6.3))).toEqual([]);
  expect(codes(bladed(12)).length).toBeGreaterThan(0);
  const nothing = {
    ...CATALOGUE,
    coverings: CATALOGUE.coverings.filter((one: CoveringItem) => !('recoveredBoreMm' in one)),
    rings: CATALOGUE.rings.map((one): Ring => (one.tongueMm === 6.3 ? { ...one, insulated: false } : one)),
  };
  expect(atLeft(bladed(6.3), nothing).map(({ problem }) => problem)).toEqual(atLeft(bladed(6.3)).map(() => 'contact'));
});

test('sizes follow what the blades take: a wire too thin for all of them is made thicker', () => {
  const thick = {
    ...CATALOGUE,
    rings: CATALOGUE.rings.map((one): Ring => (one.tongueMm === 6.3 ? { ...one, minAreaMm2: Math.max(0.5, one.minAreaMm2) } : one)),
  };
  const areas = (catalogue: typeof CATALOGUE) => {
    const loom = planned(bladed(6.3), catalogue);
    return loom.wires
      .filter(({ from, to }) => [from, to].some((end) => end.kind === 'cavity' && end.endId === 'L'))
      .map(({ conductor }) => conductor.areaMm2);
  };
  expect(Math.min(...areas(CATALOGUE))).toBeLessThan(0.5);
  expect(Math.min(...areas(thick))).toBeGreaterThanOrEqual(0.5);
});

test('an end of blades says how wide its tongues are', () => {
  const job = bladed(6.3, ({ looms }) => (looms.bench!.ends.L!.tongueMm = null));
  const checked = checkJob(job, createLookup(CATALOGUE));
  expect(checked.ok ? [] : checked.problems.map(({ path, message }) => `${path}: ${message}`)).toContain(
    '/looms/bench/ends/L/tongueMm: expected the width of its tongues in mm, got null',
  );
});
