import { CATALOGUE, plan } from '../../index';
import { createCleanSkerry } from '../../demo';
import { listSteps } from '../listSteps';
import { readLane } from './lanes';
import { listWork, type Work } from './listWork';
import { orderWork, WORK_ORDERS, type WorkOrder } from './orders';

const job = createCleanSkerry();
const { looms } = plan(job, CATALOGUE);
const engine = looms.find(({ loomId }) => loomId === 'engine')!;
const work = listWork(listSteps(job, engine, CATALOGUE), () => false);
const order = (by: WorkOrder) => orderWork(work, by, job, engine);
const endsOf = (some: readonly Work[]) => [
  ...new Set(some.flatMap(({ lane }) => (lane !== null && readLane(lane).kind === 'end' ? [readLane(lane).id] : []))),
];
const { ends } = job.looms.engine!;
const distanceOf = (endId: string) => engine.tree.nodes[ends[endId]!.nodeId]!.distanceMm;

test.each(WORK_ORDERS)('%s: the same steps, each lane in its own order, what all is made of first', (by) => {
  for (const loom of looms) {
    const all = listWork(listSteps(job, loom, CATALOGUE), () => false);
    const ordered = orderWork(all, by, job, loom);
    expect(ordered.map(({ step }) => step.id).sort()).toEqual(all.map(({ step }) => step.id).sort());
    for (const lane of new Set(all.map((one) => one.lane))) {
      const of = (some: readonly Work[]) => some.filter((one) => one.lane === lane).map(({ step }) => step.id);
      expect(of(ordered)).toEqual(of(all));
    }
    const cut = ordered.findLastIndex(({ step }) => step.operation === 'cut');
    expect(ordered.slice(0, cut).every(({ lane }) => lane === null || lane.startsWith('post ')) || by === 'operation').toBe(true);
  }
});

test('by operation it stays as it is; outwards the ends come by their distance from the datum, inwards the other way', () => {
  expect(order('operation')).toEqual(work);
  const out = endsOf(order('outwards')).map(distanceOf);
  expect(out).toEqual([...out].sort((a, b) => a - b));
  expect(new Set(out).size).toBeGreaterThan(5);
  const inwards = endsOf(order('inwards')).map(distanceOf);
  expect(inwards).toEqual([...inwards].sort((a, b) => b - a));
});

test('by subsystem all of one comes before the next, in the order in which the job lists them', () => {
  const systemOf = (endId: string) => Object.values(job.devices).find(({ at }) => at?.loomId === 'engine' && at.endId === endId)?.system;
  const systems = endsOf(order('system')).map(systemOf);
  const named = systems.filter((one) => one !== undefined);
  expect([...new Set(named)].length).toBeGreaterThan(2);
  // none comes back after another one began
  expect(named.filter((one, at) => one !== named[at - 1])).toEqual([...new Set(named)]);
  const listed = [...new Set(Object.values(job.devices).map(({ system }) => system))].filter((one) => named.includes(one));
  expect([...new Set(named)]).toEqual(listed);
});

test('branch by branch: what lies beyond one fork is done before the next fork; the largest plug comes first', () => {
  const toBranch = (endId: string): string => {
    const way: string[] = [];
    for (let at = engine.tree.nodes[ends[endId]!.nodeId]!; at.parentSegmentId; at = engine.tree.nodes[at.parentNodeId!]!)
      way.push(at.parentSegmentId);
    return way.reverse().find((id) => !engine.tree.segments[id]!.onward) ?? '';
  };
  const branches = endsOf(order('branch')).map(toBranch);
  expect(branches.filter((one, at) => one !== branches[at - 1])).toEqual([...new Set(branches)]);
  expect(new Set(branches).size).toBeGreaterThan(3);
  const count = (endId: string) => engine.terminations.filter((one) => one.endId === endId).length;
  const sizes = endsOf(order('largest')).map(count);
  expect(sizes).toEqual([...sizes].sort((a, b) => b - a));
  expect(sizes[0]).toBeGreaterThan(sizes.at(-1)!);
});
