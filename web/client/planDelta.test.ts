import { CATALOGUE, createPlanner, listFindings, type Job } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { fromDelta, isChanges, packFindings, toDelta, unpackFindings, type Planned } from './planDelta';

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

test('of a load whose way is longer only the steps that resist more are sent, and those that loads share stay one', () => {
  const now = planned(
    edit((job) => {
      job.looms.inlet!.segments.t3!.lengthMm += 1;
    }),
  );
  const delta = toDelta(before, now);
  const { loads } = structuredClone(delta).power;
  const changes = loads.flatMap((one) => (isChanges(one) ? [one] : []));
  expect(changes.length).toBeGreaterThan(3);
  for (const [values, lists] of changes) {
    expect(values).not.toHaveProperty('name');
    expect(lists.steps!.filter((one) => typeof one === 'number').length).toBeGreaterThan(0);
  }
  const sizeOf = (value: object) => JSON.stringify(value).length;
  expect(sizeOf(delta)).toBeLessThan(sizeOf({ looms: now.looms, power: now.power }) / 4);
  const back = fromDelta(before, structuredClone(delta)).power.loads;
  const known = new Set<object>(before.power.loads.flatMap(({ steps }) => steps));
  const backOf = new Map<object, object>();
  back.forEach(({ steps }, load) =>
    steps.forEach((step, place) => {
      if (known.has(step)) return;
      const made = now.power.loads[load]!.steps[place]!;
      expect(backOf.get(made) ?? step).toBe(step);
      backOf.set(made, step);
    }),
  );
  expect(backOf.size).toBeGreaterThan(0);
});

test.each([
  ['a field more', (wire: object) => ({ ...wire, more: 1 })],
  ['a field less', ({ number: _, ...wire }: { number: string }) => wire],
  ['a list of its own that is shorter', (wire: { addends: object[] }) => ({ ...wire, addends: wire.addends.slice(1) })],
  ['a list of its own that is empty', (wire: object) => ({ ...wire, addends: [] })],
  ['nothing where something was', (wire: object) => ({ ...wire, colour: null })],
])('a wire with %s comes back as it is', (_, change) => {
  const [loom, ...looms] = before.looms;
  const wires = loom!.wires.map((wire, index) => (index === 3 ? (change(wire as never) as never) : wire));
  const now = { looms: [{ ...loom!, wires }, ...looms], power: before.power };
  const there = fromDelta(before, structuredClone(toDelta(before, now)));
  expect(there).toEqual(now);
  expect(there.looms[0]!.wires[4]).toBe(wires[4]);
  expect(fromDelta(now, structuredClone(toDelta(now, before))).looms[0]!.wires).toEqual(loom!.wires);
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
