import { CATALOGUE } from '../../catalogue';
import { listFindings } from '../../make';
import { changeDocument, checkJob, editDocument, type Job, type LoomNode } from '../../model';
import { createLookup } from '../../catalogue';
import { createBench } from '../../testing/createBench';
import { createPlanner, listSharing, plan } from '../index';
import { measureTaken } from './planFeeds';

/** Two looms alike, each through a hole of that bore. */
const createTwo = (holeMm: number, second: Partial<LoomNode> = {}): Job => {
  const job = createBench((loom) => {
    loom.nodes.b1 = { ...loom.nodes.b1!, kind: 'pass', name: 'firewall', holeMm };
    // a hole has one way on: the left leg begins behind it
    loom.nodes.b2 = { ...loom.nodes.b1, kind: 'breakout', name: 'fork', holeMm: null, onwardSegmentId: 's3' };
    loom.nodes.b1.onwardSegmentId = null;
    loom.segments.s4 = { ...loom.segments.s1!, fromNodeId: 'b1', toNodeId: 'b2', lengthMm: 80 };
    for (const id of ['s2', 's3']) loom.segments[id]!.fromNodeId = 'b2';
  });
  job.looms.other = structuredClone(job.looms.bench!);
  job.looms.other.name = 'other';
  job.looms.other.prefix = 'X';
  Object.assign(job.looms.other.nodes.b1!, second);
  return job;
};
const beside = { loomId: 'bench', nodeId: 'b1' };
const feedOf = (job: Job, loomId: string) => plan(job, CATALOGUE).looms.find((one) => one.loomId === loomId)!.feeds[0]!;
const ro = (job: Job) => listFindings(job, plan(job, CATALOGUE), CATALOGUE, null).filter(({ code }) => code === 'RO4' || code === 'RO1');

describe('one hole for two looms (craft I2)', () => {
  test('the second has what the first takes beside it: less is free, and a larger hole is asked for', () => {
    const alone = feedOf(createTwo(60), 'other');
    const job = createTwo(60, { beside });
    const shared = feedOf(job, 'other');
    const first = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'bench')!;
    const takenMm = measureTaken(first, 'b1');
    expect(takenMm).toBeGreaterThan(1);
    expect([alone.besideMm, shared.besideMm]).toEqual([0, takenMm]);
    expect(shared.leaveMm - alone.leaveMm).toBeCloseTo(takenMm, 9);
    expect(shared.leastBoreMm - takenMm).toBeGreaterThan(alone.leastBoreMm - 1);
    expect(shared.leastBoreMm - takenMm).toBeLessThan(alone.leastBoreMm + 1);
    expect(feedOf(job, 'bench')).toEqual(feedOf(createTwo(60), 'bench'));
  });
  test('where each passes alone and both do not, RO1 says what is taken', () => {
    const need = Math.max(...feedOf(createTwo(60), 'other').pieces.map(({ needMm }) => needMm));
    const boreMm = Math.ceil(need + 0.5);
    expect(ro(createTwo(boreMm, { name: 'floor' }))).toEqual([]);
    expect(ro(createTwo(boreMm, { name: 'floor', beside })).map(({ loomId, code }) => [loomId, code])).toEqual([['other', 'RO1']]);
  });
  test('a third comes after the second', () => {
    const job = createTwo(80, { beside });
    job.looms.third = structuredClone(job.looms.other!);
    job.looms.third.prefix = 'Y';
    expect(listSharing(job).map(({ loomId }) => loomId)).toEqual(['other', 'third']);
    const [other, third] = [feedOf(job, 'other'), feedOf(job, 'third')];
    expect(third.besideMm).toBeCloseTo(2 * other.besideMm, 9);
  });
  test('an edit of the first is seen by the second, as from nothing', () => {
    const planner = createPlanner(CATALOGUE);
    let job = createTwo(60, { beside });
    planner(job);
    job = editDocument(job, (draft) => {
      draft.looms.bench!.segments.s1!.coveringPin = { kind: 'none', itemId: null, reason: 'bare' };
      draft.looms.bench!.segments.s4!.coveringPin = { kind: 'none', itemId: null, reason: 'bare' };
    }).next;
    const edited = planner(job);
    expect(edited).toEqual(plan(job, CATALOGUE));
    expect(edited.looms.find(({ loomId }) => loomId === 'other')!.feeds[0]!.besideMm).toBeLessThan(
      feedOf(createTwo(60, { beside }), 'other').besideMm,
    );
  });
  test('holes of one name are asked about, and the fix says that they are one', () => {
    const job = createTwo(60);
    const [asked] = ro(job);
    expect(asked).toMatchObject({ code: 'RO4', grade: 'check', loomId: 'bench', measured: 2 });
    const mended = changeDocument(job, (draft) => {
      for (const { path, value } of asked!.fix!.patch as { path: string; value: LoomNode['beside'] }[]) {
        expect(path).toBe('/looms/other/nodes/b1/beside');
        draft.looms.other!.nodes.b1!.beside = value;
      }
    });
    expect(ro(mended)).toEqual([]);
    expect(feedOf(mended, 'other').besideMm).toBeGreaterThan(0);
    // another name is another hole
    expect(ro(createTwo(60, { name: 'floor' }))).toEqual([]);
  });
  test.each([
    ['a loom that is gone', { loomId: 'gone', nodeId: 'b1' }],
    ['a node that is none', { loomId: 'bench', nodeId: 'b9' }],
    ['its own loom', { loomId: 'other', nodeId: 'b1' }],
  ])('said to be the hole of %s it is one by itself, and RO4 tells', (_, astray) => {
    const job = createTwo(60, { beside: astray });
    expect(checkJob(job, createLookup(CATALOGUE)).ok).toBe(true);
    expect(feedOf(job, 'other').besideMm).toBe(0);
    const [told] = ro(job);
    expect(told).toMatchObject({ code: 'RO4', loomId: 'other', fix: { patch: [{ path: '/looms/other/nodes/b1/beside', value: null }] } });
  });
});
