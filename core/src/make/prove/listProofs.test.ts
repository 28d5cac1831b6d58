import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo/createSkerry';
import { plan } from '../../plan';
import { createBuild } from '../createBuild';
import { createRingOut } from './createRingOut';
import { listProofs, listRework, toProofItem, type ProofEvent } from './listProofs';
import { toProbeKey } from './types';

const job = createCleanSkerry();
const loom = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'inlet')!;
const { steps, continuity } = createBuild(job, loom, CATALOGUE);
const ringOut = createRingOut(job, CATALOGUE, loom, continuity);
let serial = 0;
const event = (stepId: string, itemId: string, kind: ProofEvent['kind'], rest: Partial<ProofEvent> = {}): ProofEvent => {
  serial += 1;
  const happenedAt = new Date(Date.UTC(2026, 10, 28, 8, 0, serial)).toISOString();
  return {
    id: `e${serial}`,
    stepId,
    itemId,
    kind,
    author: 'Jun Okafor',
    happenedAt,
    serial,
    device: 'a',
    after: serial - 1,
    ...rest,
  } as ProofEvent;
};
const read = (readId: string, value: number, rest: Partial<ProofEvent> = {}) =>
  event('test', 'pairs', 'reading', { readId, value, instrument: 'meter', ...rest });
const [one, other] = ringOut.nets.filter(({ probes }) => probes.length === 2);
const joinOf = (netId: string) => ringOut.tests.find((test) => test.kind === 'join' && test.netId === netId)!.id;
const seatOf = (probe: { endId: string; cavity: string }) => {
  const step = steps.find(({ operation, endId }) => operation === 'seat' && endId === probe.endId)!;
  return { stepId: step.id, itemId: step.items.find(({ cavity }) => cavity === probe.cavity)!.id };
};

test('a reading stands until work on its net follows it; work on another net leaves it', () => {
  const place = seatOf(one!.probes[1]!);
  const readings = [read(joinOf(one!.id), 0.02), read(joinOf(other!.id), 0.03)];
  expect([...listProofs(ringOut, steps, readings).values()].map(({ voidBecause }) => voidBecause)).toEqual([null, null]);
  const after = listProofs(ringOut, steps, [...readings, event(place.stepId, place.itemId, 'untick')]);
  expect(after.get(joinOf(one!.id))).toMatchObject({
    value: 0.02,
    voidBecause: expect.stringMatching(/taken back after it, by Jun Okafor/),
  });
  expect(after.get(joinOf(other!.id))!.voidBecause).toBeNull();
  const again = listProofs(ringOut, steps, [...readings, event(place.stepId, place.itemId, 'tick'), read(joinOf(one!.id), 0.021)]);
  expect(again.get(joinOf(one!.id))).toMatchObject({ value: 0.021, voidBecause: null });
});

test('work before the reading does not void it; work that a tablet sends late does, by its clock', () => {
  const place = seatOf(one!.probes[0]!);
  const before = event(place.stepId, place.itemId, 'tick');
  const reading = read(joinOf(one!.id), 0.02);
  expect(listProofs(ringOut, steps, [before, reading]).get(joinOf(one!.id))!.voidBecause).toBeNull();
  const late = { ...event(place.stepId, place.itemId, 'tick', { device: 'b' }), serial: before.serial! - 1, after: 0 };
  expect(listProofs(ringOut, steps, [late, reading]).get(joinOf(one!.id))!.voidBecause).toMatch(/after it/);
});

test('marks, labels and signatures void nothing', () => {
  const reading = read(joinOf(one!.id), 0.02);
  const quiet = steps.filter(({ operation }) => ['label', 'mark', 'test', 'sign', 'cover', 'slide'].includes(operation));
  const ticks = quiet.flatMap(({ id, items }) => items.map((item) => event(id, item.id, 'tick')));
  expect(ticks.length).toBeGreaterThan(5);
  expect(listProofs(ringOut, steps, [reading, ...ticks]).get(joinOf(one!.id))!.voidBecause).toBeNull();
});

test('what a pattern asked for counts no more once its net is measured anew', () => {
  const seek = `${toProbeKey(one!.probes[0]!)} ${toProbeKey(other!.probes[1]!)}`;
  const events = [read(joinOf(one!.id), 1e6), read(seek, 0.02)];
  expect(listProofs(ringOut, steps, events).get(seek)!.voidBecause).toBeNull();
  expect(listProofs(ringOut, steps, [...events, read(joinOf(one!.id), 0.02)]).get(seek)!.voidBecause).toBe('its net was measured anew');
});

test('mending an exchange does over the seats of both cavities; an open wire the work at both of its ends', () => {
  const [a, b] = [one!.probes[0]!, other!.probes[0]!];
  expect(a.endId).toBe(b.endId);
  const redone = listRework(ringOut, steps, {
    ...{ kind: 'exchanged', endId: a.endId, netIds: [one!.id, other!.id], or: [] },
    moves: [
      [a.cavity, b.cavity],
      [b.cavity, a.cavity],
    ],
  });
  expect(redone).toEqual(expect.arrayContaining([seatOf(a), seatOf(b)]));
  const piece = ringOut.copper.find(({ circuitId }) => circuitId === one!.id)!;
  const ends = new Set(
    listRework(ringOut, steps, { kind: 'open', netIds: [one!.id], wireIds: [piece.wireId] }).map(
      ({ stepId }) => steps.find(({ id }) => id === stepId)!.endId,
    ),
  );
  expect([...ends].sort()).toEqual(one!.probes.map(({ endId }) => endId).sort());
});

test('readings go under the pairs or the isolation of the test; every net of the table has a place to be read under', () => {
  expect([toProofItem(steps, 'join'), toProofItem(steps, 'seek'), toProofItem(steps, 'isolate')]).toEqual([
    { stepId: 'test', itemId: 'pairs' },
    { stepId: 'test', itemId: 'pairs' },
    { stepId: 'test', itemId: 'isolation' },
  ]);
  const { items } = steps.find(({ id }) => id === 'test')!;
  const asked = new Map(items.flatMap(({ reads }) => reads.map((one) => [one.id, one])));
  for (const { id, unit, most, least } of ringOut.tests) expect(asked.get(id)).toMatchObject({ unit, most, least });
  expect(asked.size).toBe(ringOut.tests.length);
});
