import { createDemoStart, CATALOGUE } from '../../catalogue';
import { checkPlan } from '../../check';
import { createBuild } from '../../make';
import { createDevice, type Job } from '../../model';
import { createBench } from '../../testing/createBench';
import { listMarks, listZoneLabels, findStandard, plan } from '../index';

/** The left leg leads into the hot zone, trunk and right leg lie in the cabin. */
const zoned = (change: (job: Job) => void = () => undefined) =>
  createBench((loom, job) => {
    Object.assign(job.zones, {
      cabin: createDemoStart().zones.cabin!,
      hot: { ...createDemoStart().zones.hot!, name: 'hot side', ambientC: 90 },
    });
    for (const id of ['s1', 's3']) loom.segments[id] = { ...loom.segments[id]!, zoneId: 'cabin' };
    loom.segments.s2 = { ...loom.segments.s2!, zoneId: 'hot' };
    change(job);
  });
const loomOf = (job: Job) => plan(job, CATALOGUE).looms[0]!;
const ofKind = (job: Job, kind: string) => listMarks(job, loomOf(job), CATALOGUE).filter((one) => one.kind === kind);

describe('a label with the name of a zone', () => {
  test('lies on each covered run that leads into another one, over its covering; where a loom begins it says nothing', () => {
    const job = zoned();
    const covering = loomOf(job).coverings.find(({ segmentId }) => segmentId === 's2')!;
    expect(ofKind(job, 'zone').map(({ id, text, pieces, odMm }) => [id, text, pieces, odMm])).toEqual([
      ['s2', 'hot side', 1, covering.odOutsideMm],
    ]);
  });
  test('is not on a bare run, nor in a shop that does not label zones', () => {
    const bare = zoned(({ looms }) => {
      looms.bench!.segments.s2 = { ...looms.bench!.segments.s2!, coveringPin: { kind: 'none', itemId: null, reason: 'x' } };
    });
    expect(ofKind(bare, 'zone')).toEqual([]);
    const job = zoned();
    expect(listZoneLabels(job, loomOf(job), { ...findStandard(job, CATALOGUE), zoneLabels: false })).toEqual([]);
  });
  test('goes on as its run is covered, and is bought', () => {
    const job = zoned();
    const { steps, parts } = createBuild(job, loomOf(job), CATALOGUE);
    expect(steps.find(({ id }) => id === 'cover.s2')!.items.map(({ words }) => words)).toContain(
      '"hot side" over it, where it begins, shrunk',
    );
    expect(steps.find(({ id }) => id === 'cover.s3')!.items).toHaveLength(1);
    const sleeves = (one: Job) => createBuild(one, loomOf(one), CATALOGUE).parts.filter(({ group }) => group === 'label');
    const count = (one: Job) => sleeves(one).reduce((sum, { pieces }) => sum + pieces, 0);
    expect(parts.length).toBeGreaterThan(0);
    expect(count(job) - count(createBench())).toBe(1);
  });
});

describe('labels of warning', () => {
  const warned = createBench((loom) => {
    loom.ends.L = { ...loom.ends.L!, cautions: ['live', 'no-hose'] };
  });
  test('stand at the leg of their end, over its covering', () => {
    const [end] = ofKind(warned, 'end').filter(({ id }) => id === 'L');
    expect(ofKind(warned, 'caution').map(({ id, text, odMm }) => [id, text, odMm])).toEqual([
      ['L', 'LIVE WHEN OPEN', end!.odMm],
      ['L', 'DO NOT HOSE', end!.odMm],
    ]);
  });
  test('slide on with the label of the end and are shrunk with it', () => {
    const { steps } = createBuild(warned, loomOf(warned), CATALOGUE);
    expect(steps.find(({ id }) => id === 'label.L')!.items.map(({ id }) => id)).toEqual(['label', 'live', 'no-hose']);
    expect(steps.find(({ id }) => id === 'shrink.L')!.items[0]!.words).toContain('"LIVE WHEN OPEN", "DO NOT HOSE"');
    expect(steps.find(({ id }) => id === 'label.R')!.items).toHaveLength(1);
  });
});

describe('a clear sleeve over labels where it is wet', () => {
  const wet = (change: (job: Job) => void = () => undefined) =>
    zoned((job) => {
      job.zones.hot = { ...job.zones.hot!, wet: true };
      change(job);
    });
  test('goes over what lies on a wet run, and nothing else: it passes, grips, and reaches beyond the label once it is shrunk', () => {
    const job = wet();
    const marks = listMarks(job, loomOf(job), CATALOGUE);
    const under = marks.filter(({ clear }) => clear !== null);
    expect(under.map(({ kind, id }) => `${kind} ${id}`)).toEqual(['end L', 'zone s2']);
    for (const { clear, odMm, stockId } of under) {
      const item = CATALOGUE.coverings.find(({ id }) => id === clear!.itemId)!;
      if (item.kind !== 'clear-shrink') throw new Error(item.kind);
      expect(item.suppliedBoreMm / 1.1).toBeGreaterThanOrEqual(odMm! - 1e-9);
      expect(item.recoveredBoreMm).toBeLessThanOrEqual(odMm!);
      const { lengthMm } = CATALOGUE.labels.find(({ id }) => id === stockId)!;
      const shrunk = clear!.cutMm * (1 - item.longitudinalChange);
      expect([shrunk >= lengthMm + 20 - 1e-9, shrunk < lengthMm + 21]).toEqual([true, true]);
    }
  });
  test('is bought by the metre and shrunk over the label; a house that does without buys none', () => {
    const job = wet();
    const [end] = listMarks(job, loomOf(job), CATALOGUE).filter(({ kind, id }) => kind === 'end' && id === 'L');
    const { steps, parts } = createBuild(job, loomOf(job), CATALOGUE);
    const clears = (list: typeof parts) => list.filter(({ name }) => name.startsWith('clear shrink'));
    expect(clears(parts).reduce((sum, { lengthMm }) => sum + lengthMm!, 0)).toBeGreaterThanOrEqual(end!.clear!.cutMm);
    expect(steps.find(({ id }) => id === 'label.L')!.items[0]!.words).toContain(
      `, then ${end!.clear!.itemName}, ${end!.clear!.cutMm} mm, over it`,
    );
    const without = wet(({ brief }) => (brief.departures = { clear: { side: 1, reason: 'indoors' } }));
    expect(clears(createBuild(without, loomOf(without), CATALOGUE).parts)).toEqual([]);
  });
  test('that the shop does not have is told, not left out; it is never chosen for a run', () => {
    const bare = { ...CATALOGUE, coverings: CATALOGUE.coverings.filter(({ kind }) => kind !== 'clear-shrink') };
    const job = wet();
    const planned = plan(job, bare);
    expect(listMarks(job, planned.looms[0]!, bare).filter(({ problem }) => problem === 'no-clear')).toHaveLength(2);
    expect(
      checkPlan(job, planned, bare, null)
        .filter(({ code }) => code === 'MA2')
        .map(({ sentence }) => sentence),
    ).toEqual(expect.arrayContaining([expect.stringContaining('lies where it is wet, and no clear sleeve of the shop goes over')]));
    const only = { ...CATALOGUE, coverings: CATALOGUE.coverings.filter(({ kind }) => kind === 'clear-shrink') };
    expect(plan(job, only).looms[0]!.coverings.every(({ kind }) => kind !== 'clear-shrink')).toBe(true);
  });
});

describe('a label on a device', () => {
  const placed = (deviceLabels: boolean) => {
    const job = createBench((_, all) => {
      all.devices.probe = createDevice('oil probe', 'sensors', { at: { loomId: 'bench', endId: 'L' } });
      all.devices.radio = createDevice('radio', 'data');
    });
    const catalogue = { ...CATALOGUE, standards: { larkhollow: { ...CATALOGUE.standards.larkhollow!, deviceLabels } } };
    const loom = plan(job, catalogue).looms[0]!;
    return { marks: listMarks(job, loom, catalogue), build: createBuild(job, loom, catalogue), job, loom, catalogue };
  };
  test('has its name and its loom, sticks and is no sleeve; one on no loom has none', () => {
    const { marks, job, loom, catalogue } = placed(true);
    expect(marks.filter(({ kind }) => kind === 'device')).toMatchObject([
      { id: 'probe', text: 'oil probe · bench', pieces: 1, stockId: null, problem: null },
    ]);
    expect(checkPlan(job, plan(job, catalogue), catalogue, null).filter(({ code }) => code === 'MA2')).toEqual([]);
    expect(loom.loomId).toBe('bench');
  });
  test('is bought and lies in the bag of its end; a shop that does not want it has neither', () => {
    const words = ({ steps }: ReturnType<typeof createBuild>) => steps.find(({ id }) => id === 'label.L')!.items.map((item) => item.words);
    const { build } = placed(true);
    expect(words(build)).toContain('"oil probe · bench" into the bag of the end: it sticks on the device');
    expect(build.parts.find(({ id }) => id === 'device')).toMatchObject({ group: 'label', pieces: 1 });
    const without = placed(false).build;
    expect(words(without).some((one) => one.includes('oil probe'))).toBe(false);
    expect(without.parts.some(({ id }) => id === 'device')).toBe(false);
  });
});
