import { CATALOGUE, createPlanner, listFindings, type Job } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { fromDelta, packFindings, toDelta, unpackFindings, type Planned } from './planDelta';

const planner = createPlanner(CATALOGUE);
const planned = (job: Job): Planned => {
  const plan = planner(job);
  return { ...plan, findings: listFindings(job, plan, CATALOGUE, null) };
};
const edit = (change: (job: Job) => void): Job => {
  const job = createInlet();
  change(job);
  return job;
};
const before = planned(createInlet());

test.each([
  ['nothing', () => undefined],
  [
    'a length',
    (job: Job) => {
      job.looms.inlet!.segments.t3!.lengthMm = 300;
    },
  ],
  [
    'a circuit less',
    (job: Job) => {
      delete job.looms.inlet!.circuits.c205;
    },
  ],
  [
    'a loom of another name',
    (job: Job) => {
      job.looms = { other: job.looms.inlet! };
    },
  ],
])('the plan comes back whole after a change of %s', (_, change) => {
  const now = planned(edit(change));
  const sent = structuredClone(toDelta(structuredClone(before), now));
  const { looms, power } = now;
  expect(fromDelta(before, sent)).toEqual({ looms, power });
});

test('what a short leg does not touch is neither sent nor made anew', () => {
  const now = planned(
    edit((job) => {
      job.looms.inlet!.segments['s-inj1']!.lengthMm = 150;
    }),
  );
  const delta = toDelta(before, now);
  const [loom] = delta.looms;
  if (typeof loom !== 'object') throw new Error('expected the loom to have changed');
  const sent = loom.wires.filter((one) => typeof one === 'object');
  expect(sent.length).toBeGreaterThan(0);
  expect(sent.length).toBeLessThan(6);
  const back = fromDelta(before, delta).looms[0]!;
  expect(back.terminations).toBe(before.looms[0]!.terminations);
  expect(back.wires.filter((wire, index) => wire === before.looms[0]!.wires[index])).toHaveLength(back.wires.length - sent.length);
});

test('a finding more at the head is all of the findings that is sent', () => {
  const [first, ...others] = before.findings;
  const packed = packFindings(others, before.findings)!;
  expect(packed).toEqual([first, ...others.map((_, index) => index)]);
  const back = unpackFindings(others, packed);
  expect(back).toEqual(before.findings);
  expect(back[1]).toBe(others[0]);
  const turned = [...before.findings].reverse();
  expect(unpackFindings(before.findings, structuredClone(packFindings(before.findings, turned)!))).toEqual(turned);
  expect(packFindings(before.findings, JSON.parse(JSON.stringify(before.findings)) as typeof before.findings)).toBeNull();
});

test('the first plan is sent whole', () => {
  expect(toDelta(null, before).looms).toEqual(before.looms);
});
