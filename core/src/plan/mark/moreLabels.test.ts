import { CATALOGUE } from '../../catalogue';
import { createBuild } from '../../make';
import { createZones, type Job } from '../../model';
import { createBench } from '../../testing/createBench';
import { listMarks, listZoneLabels, findStandard, plan } from '../index';

/** The left leg leads into the hot zone, trunk and right leg lie in the cabin. */
const zoned = (change: (job: Job) => void = () => undefined) =>
  createBench((loom, job) => {
    Object.assign(job.zones, { cabin: createZones().cabin!, hot: { ...createZones().hot!, name: 'hot side', ambientC: 90 } });
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
