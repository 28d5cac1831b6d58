import { CATALOGUE } from '../../catalogue';
import { checkPlan } from '../../check';
import { createSkerry } from '../../demo';
import { drawStripTemplate } from '../../draw';
import { createBuild, findScreen } from '../../make';
import { createEnd, type Job } from '../../model';
import { createBench } from '../../testing/createBench';
import { playShop } from '../../testing/playShop';
import { plan } from '../index';

const CABLE = { groupId: 'pair', itemId: 'etfe-2x22s' };
/** A screened pair from the anchor to the left end; its screen is drained at the anchor alone. */
const screened = (change: (job: Job) => void = () => undefined) =>
  createBench((loom, job) => {
    for (const id of ['c1', 'c2']) loom.circuits[id] = { ...loom.circuits[id]!, kind: 'signal', sizePin: null, twist: null, cable: CABLE };
    change(job);
  });
const loomOf = (job: Job, catalogue = CATALOGUE) => plan(job, catalogue).looms[0]!;
const ofEnd = (job: Job, endId: string) => loomOf(job).screens.filter((one) => one.endId === endId);

describe('a screened cable where it is opened (craft A5)', () => {
  const [left] = ofEnd(screened(), 'L');
  test('insulation stays 12 over the edge of the screen, or as deep as its housing is; the screen 8 over that of the jacket', () => {
    const family = CATALOGUE.families['tarn-3']!;
    expect(left).toMatchObject({ insulationMm: Math.max(12, family.entryDepthMm), screenMm: 8, drainId: null });
    expect(left!.backMm).toBe(left!.stripMm + left!.insulationMm + 8);
    const shallow = screened((job) => {
      job.looms.bench!.ends.L = { ...job.looms.bench!.ends.L!, familyId: 'short', key: null };
      job.families.short = { ...family, name: 'short', entryDepthMm: 5, keys: [] };
    });
    expect(ofEnd(shallow, 'L')[0]!.insulationMm).toBe(12);
  });
  test('its sleeve passes the jacket and grips the cores', () => {
    const sleeve = CATALOGUE.coverings.find(({ id }) => id === left!.sleeveId)!;
    if (!('suppliedBoreMm' in sleeve)) throw new Error('expected a sleeve that shrinks');
    expect(sleeve.suppliedBoreMm).toBeGreaterThanOrEqual(1.1 * left!.jacketMm);
    expect(sleeve.recoveredBoreMm).toBeLessThanOrEqual(0.9 * 2 * left!.coreMm);
  });
  test('where the shop has no such sleeve it is a finding, and none is counted', () => {
    const none = { ...CATALOGUE, coverings: CATALOGUE.coverings.filter(({ kind }) => kind === 'braid') };
    const job = screened();
    const codes = checkPlan(job, plan(job, none), none, null).map(({ code }) => code);
    expect(codes).toContain('EN14');
    expect(checkPlan(job, plan(job, CATALOGUE), CATALOGUE, null).map(({ code }) => code)).not.toContain('EN14');
    expect(loomOf(job, none).screens.every(({ sleeveId }) => sleeveId === null)).toBe(true);
  });
  test('plain wire and cables without a screen are opened by nobody', () => {
    expect(loomOf(createBench()).screens).toEqual([]);
    const plain = screened((job) => {
      for (const id of ['c1', 'c2']) job.looms.bench!.circuits[id]!.cable = { groupId: 'pair', itemId: 'etfe-2x22' };
    });
    expect(loomOf(plain).screens).toEqual([]);
  });
  test('the crank sensor of the demo gathers its screen into a wire of its own', () => {
    const engine = plan(createSkerry(), CATALOGUE).looms.find(({ loomId }) => loomId === 'engine')!;
    expect(engine.screens.map(({ endId }) => endId)).toContain('m-crank-sensor');
    for (const { drainId, wireIds } of engine.screens.filter(({ groupId }) => groupId === 'crank')) {
      expect(engine.wires.find(({ id }) => id === drainId)!.kind).toBe('screen');
      expect(wireIds).toHaveLength(2);
    }
  });
});

describe('its steps', () => {
  const job = screened();
  const loom = loomOf(job);
  const { steps, parts } = createBuild(job, loom, CATALOGUE);
  const place = (id: string) => steps.findIndex((step) => step.id === id);
  test('open it before anything goes on its cores, in the order in which it is done, with 10 MΩ from each core to the screen', () => {
    expect(place('screen.L.pair')).toBeGreaterThan(-1);
    for (const later of ['seal.L', 'thread.L', 'crimp.L', 'seat.L'])
      if (place(later) >= 0) expect(place('screen.L.pair')).toBeLessThan(place(later));
    const step = steps[place('screen.L.pair')]!;
    // one core of two goes on from the breakout
    expect(step.items.map(({ id }) => id)).toEqual(['jacket', 'screen', 'cores', 'unused', 'sleeve', 'apart']);
    const anchor = steps[place('screen.A.pair')]!;
    expect(anchor.items.map(({ id }) => id)).toEqual(['jacket', 'screen', 'cores', 'sleeve', 'apart']);
    expect(step.items[0]!.words).toContain(`jacket back ${ofEnd(job, 'L')[0]!.backMm} mm`);
    expect(anchor.items[4]!.reads.map(({ unit, least }) => [unit, least])).toEqual([
      ['MΩ', 10],
      ['MΩ', 10],
    ]);
    expect(playShop(job, loom, CATALOGUE, steps)).toEqual([]);
    expect(findScreen(loom.screens, step.id)).toBe(loom.screens.find(({ endId }) => endId === 'L'));
    expect(findScreen(loom.screens, 'crimp.L')).toBeNull();
  });
  test('and its sleeves are bought', () => {
    const { sleeveId, sleeveMm } = loom.screens[0]!;
    const before = createBuild(createBench(), loomOf(createBench()), CATALOGUE).parts.find(({ id }) => id === sleeveId)?.lengthMm ?? 0;
    expect(parts.find(({ id }) => id === sleeveId)!.lengthMm).toBeGreaterThanOrEqual(Math.min(before, sleeveMm));
    expect(parts.find(({ id }) => id === sleeveId)!.lengthMm).toBeGreaterThanOrEqual(sleeveMm);
  });
});

test('its template is drawn at its true size: jacket, screen, insulation and bare cores as long as they are', () => {
  const [screen] = ofEnd(screened(), 'L');
  const { marks } = drawStripTemplate(screen!, [
    { base: 'red', stripe: null, bands: [] },
    { base: 'blue', stripe: 'white', bands: [] },
  ]);
  const rects = marks.flatMap((mark) => (mark.kind === 'rect' ? [mark] : []));
  const [jacket, weave, sleeve] = rects;
  expect([jacket!.h, weave!.w, sleeve!.w]).toEqual([screen!.jacketMm, screen!.screenMm, screen!.sleeveMm]);
  // the tips: as far from the edge of the jacket as it goes back
  const ends = marks.flatMap((mark) =>
    mark.kind === 'path' && mark.stroke === '#b87333' ? [Number(mark.d.split('L')[1]!.split(' ')[0])] : [],
  );
  expect(ends).toHaveLength(2);
  for (const x of ends) expect(x - (jacket!.x + jacket!.w)).toBeCloseTo(screen!.backMm, 9);
  const words = marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
  expect(words).toEqual(expect.arrayContaining(['8', String(screen!.stripMm), String(screen!.backMm), 'true size on paper']));
});

describe('rings on a stud', () => {
  const onStud = (threadMm: number | null, studMm = 6) =>
    createBench((loom) => {
      loom.ends.L = createEnd(loom.ends.L!.nodeId, 'stud', null, { kind: 'ring', studMm, threadMm });
      loom.circuits.c1 = { ...loom.circuits.c1!, sizePin: { size: '14', reason: 'x' }, kind: 'supply' };
    });
  test('lie with the thickest copper at the foot, banded by their pole, and are tightened as the shop says', () => {
    const [stud] = loomOf(onStud(null)).studs;
    const areas = stud!.rings.map(({ areaMm2 }) => areaMm2);
    expect(areas.length).toBeGreaterThan(1);
    expect(areas).toEqual([...areas].sort((a, b) => b - a));
    expect(stud).toMatchObject({ band: 'red', torqueNm: 5, threadMm: null });
    expect([8, 5, 4].map((mm) => loomOf(onStud(null, mm)).studs[0]!.torqueNm)).toEqual([12, 3, null]);
  });
  test('stack: rings, and washer and nut as high as the thread is thick', () => {
    const loom = loomOf(onStud(null));
    const thick = loom.terminations
      .filter(({ endId }) => endId === 'L')
      .reduce((sum, { contactId }) => sum + CATALOGUE.rings.find(({ id }) => id === contactId)!.thickMm!, 0);
    expect(loom.studs[0]!.stackMm).toBeCloseTo(thick + 6, 9);
    const codes = (job: Job) => checkPlan(job, plan(job, CATALOGUE), CATALOGUE, null).map(({ code }) => code);
    expect(codes(onStud(thick + 5.9))).toContain('EN15');
    expect(codes(onStud(thick + 6))).not.toContain('EN15');
    const unknown = { ...CATALOGUE, rings: CATALOGUE.rings.map((ring) => ({ ...ring, thickMm: null })) };
    expect(loomOf(onStud(1), unknown).studs[0]!.stackMm).toBeNull();
  });
  test('are bolted last, in that order, their torque read within a tenth', () => {
    const job = onStud(null);
    const loom = loomOf(job);
    const { steps } = createBuild(job, loom, CATALOGUE);
    const bolt = steps.at(-1)!;
    expect(bolt.id).toBe('bolt.L');
    expect(bolt.items.slice(0, loom.studs[0]!.rings.length).map(({ id }) => id)).toEqual(
      loom.studs[0]!.rings.map(({ wireIds }) => `ring ${wireIds.join(' ')}`),
    );
    const [read] = bolt.items.at(-1)!.reads;
    expect([read!.unit, read!.least, read!.most].map((one) => (typeof one === 'number' ? Number(one.toFixed(6)) : one))).toEqual([
      'Nm',
      4.5,
      5.5,
    ]);
  });
});
