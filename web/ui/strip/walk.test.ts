import { CATALOGUE, plan } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import type { PlannedLoom } from '../../client/jobContext';
import type { Cursor } from '../cursor';
import { walk } from './walk';

const job = createInlet();
const planned: PlannedLoom = { job, loomId: 'inlet', loom: job.looms.inlet!, plan: plan(job, CATALOGUE).looms[0]! };
const { tree } = planned.plan;
const START: Cursor = { segmentId: tree.nodes[tree.datumId]!.childSegmentIds[0]!, offsetMm: 0 };
const fromDatum = ({ segmentId, offsetMm }: Cursor) => tree.segments[segmentId]!.startMm + offsetMm;
const go = (from: Cursor, key: string, count = 1, stepMm = 10): Cursor => {
  let at = from;
  for (let step = 0; step < count; step += 1) at = walk(planned, at, key, stepMm) ?? at;
  return at;
};

test('right goes on along the trunk, step by step over its breakouts, and stops at its end', () => {
  for (const count of [1, 7, 40]) expect(fromDatum(go(START, 'ArrowRight', count))).toBeCloseTo(count * 10, 6);
  const end = go(START, 'ArrowRight', 1000);
  expect(tree.nodes[tree.segments[end.segmentId]!.farNodeId]!.childSegmentIds).toEqual([]);
  expect(end.offsetMm).toBe(tree.segments[end.segmentId]!.lengthMm);
  expect(go(end, 'ArrowRight')).toEqual(end);
});

test('left is the way back, to the datum and no further', () => {
  const there = go(START, 'ArrowRight', 33);
  expect(fromDatum(go(there, 'ArrowLeft', 13))).toBeCloseTo(200, 6);
  expect(go(there, 'ArrowLeft', 100)).toEqual(START);
});

test('down goes into each branch of a breakout in turn, and up back to where it leaves', () => {
  const bk1 = Object.keys(planned.loom.nodes).find((id) => planned.loom.nodes[id]!.name === 'primary rail')!;
  const [, ...branches] = tree.nodes[bk1]!.childSegmentIds;
  let at: Cursor = { segmentId: tree.nodes[bk1]!.parentSegmentId!, offsetMm: 5 };
  const seen: string[] = [];
  for (let count = 0; count < branches.length; count += 1) {
    at = go(at, 'ArrowDown');
    seen.push(at.segmentId);
  }
  expect(seen).toEqual(branches);
  const back = go(at, 'ArrowUp');
  expect(tree.segments[back.segmentId]!.farNodeId).toBe(bk1);
  expect(back.offsetMm).toBe(tree.segments[back.segmentId]!.lengthMm);
});

test('where there is nothing to go to it says so; so does a run that is gone, and another key', () => {
  const end = go(START, 'ArrowRight', 1000);
  expect(walk(planned, end, 'ArrowDown', 10)).toBeNull();
  expect(walk(planned, START, 'ArrowUp', 10)).toBeNull();
  expect(walk(planned, { segmentId: 'gone', offsetMm: 0 }, 'ArrowRight', 10)).toBeNull();
  expect(walk(planned, START, 'Enter', 10)).toBeNull();
});
