import { createDemoStart, CATALOGUE } from '../../catalogue';
import { checkPlan } from '../../check';
import { type Job, type LabelStock } from '../../model';
import { createBench } from '../../testing/createBench';
import { findStandard, listMarks, plan } from '../index';
import { chooseLabel } from './chooseLabel';

type Shop = typeof CATALOGUE;
const usual = CATALOGUE.labels.filter(({ limitC }) => limitC === 135);
/** All runs lie where it is so hot, and as wet as said; ends are closed by boots. */
const bench = (ambientC: number, wet = false) =>
  createBench((loom, job) => {
    job.zones.hot = { ...createDemoStart().zones.hot!, name: 'hot side', ambientC, wet };
    loom.dressing = 'boots';
    loom.ends.L = { ...loom.ends.L!, familyId: 'hollin-13', key: 'B' };
    for (const run of Object.values(loom.segments)) run.zoneId = 'hot';
  });
const told = (job: Job, shop: Shop) => checkPlan(job, plan(job, shop), shop, null).filter(({ code }) => code === 'MA5');
const labels = (list: readonly LabelStock[], change: Partial<LabelStock> = {}): Shop => ({
  ...CATALOGUE,
  labels: list.map((one) => ({ ...one, ...change })),
});

describe('how hot a label gets (craft A3)', () => {
  const standard = findStandard(createBench(), CATALOGUE);
  test('where it is hot one is taken that stands it; where nobody knows the first is', () => {
    const choose = (ambientC: number | null) => chooseLabel(CATALOGUE, 2, 'T-1', standard, ambientC)!.stock;
    expect([choose(null).limitC, choose(135).limitC, choose(136).limitC]).toEqual([135, 135, 225]);
    // hotter than any stands: one that fits all the same, and MA5 tells
    expect(choose(300).limitC).toBe(135);
    const unknown = labels(usual, { limitC: null });
    expect(chooseLabel(unknown, 2, 'T-1', standard, 300)!.stock.limitC).toBeNull();
  });
  test('marks of wires, ends and zones go by the runs that they lie at', () => {
    const limits = (ambientC: number) => {
      const job = bench(ambientC);
      const { labels: all } = CATALOGUE;
      return new Set(
        listMarks(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE).flatMap(
          ({ stockId }) => all.find(({ id }) => id === stockId)?.limitC ?? [],
        ),
      );
    };
    expect([...limits(90)]).toEqual([135]);
    expect([...limits(150)]).toEqual([225]);
  });
  test('in a shop that has none that stands it, MA5 says where and how hot', () => {
    const found = told(bench(150), labels(usual));
    expect(found.length).toBeGreaterThan(3);
    expect(found[0]).toMatchObject({ grade: 'check', measured: 150, limit: 135 });
    expect(found.every(({ sentence }) => sentence.endsWith('lies where it gets 150 °C and stands 135.'))).toBe(true);
    expect(told(bench(150), CATALOGUE)).toEqual([]);
    expect(told(bench(150), labels(usual, { limitC: null }))).toEqual([]);
    // a key that a reason can be kept under
    for (const { key } of found) expect(key).toMatch(/^[A-Za-z0-9][A-Za-z0-9_.@:+-]{0,120}$/);
  });
  test('under a hotter piece than it stands for a minute: the boot over the marks of its wires, the clear sleeve over a label', () => {
    const cold = labels(usual, { shortC: 150 });
    const over = told(bench(60), cold).find(({ places }) => places[0]!.id === 'L');
    expect(over).toMatchObject({ measured: 175, limit: 150, places: [{ kind: 'end', id: 'L' }, { kind: 'item' }] });
    expect(over!.sentence).toMatch(/lies under (boot|elastomer shrink) .*, which shrinks at 175 °C and stands 150\.$/);
    const wet = told(bench(60, true), { ...labels(usual, { shortC: 110 }), boots: [], transitions: [] });
    expect(
      wet.some(({ sentence }) => /"left" .* lies under clear shrink .*, which shrinks at 120 °C and stands 110\.$/.test(sentence)),
    ).toBe(true);
    const nobody = (one: Shop): Shop => ({
      ...one,
      boots: one.boots.map((boot) => ({ ...boot, shrinkC: null })),
      coverings: one.coverings.map((item) => ('shrinkC' in item ? { ...item, shrinkC: null } : item)),
    });
    expect(told(bench(60), nobody(cold))).toEqual([]);
  });
  test('of clear sleeves one that the label stands comes first', () => {
    const job = bench(60, true);
    const [cool] = CATALOGUE.coverings.filter(({ kind }) => kind === 'clear-shrink');
    const shop: Shop = {
      ...labels(usual, { shortC: 130 }),
      coverings: [
        ...CATALOGUE.coverings.flatMap((item) => (item.kind === 'clear-shrink' ? [{ ...item, id: `${item.id}-hot`, shrinkC: 175 }] : [])),
        ...CATALOGUE.coverings,
      ],
    };
    const clears = listMarks(job, plan(job, shop).looms[0]!, shop).flatMap(({ clear }) => clear ?? []);
    expect(clears.length).toBeGreaterThan(0);
    expect(clears.some(({ itemId }) => itemId.endsWith('-hot'))).toBe(false);
    expect(cool!.id).toMatch(/^clear-shrink/);
  });
});
