import fc from 'fast-check';
import { CATALOGUE, createLookup } from '../catalogue';
import {
  addEnd,
  arrangeBulkheadPins,
  assignPins,
  gatherParts,
  reassignPin,
  joinSegments,
  listAblePlaces,
  moveBranch,
  moveBreakout,
  moveDatum,
  placeDevice,
  removeEnd,
  splitSegment,
} from '../edit';
import { listFindings } from '../make';
import { applyEdit, checkJob, CIRCUIT_KINDS, DECISIONS, type Job, type Loom } from '../model';
import { createPlanner, createTree, findStandard } from '../plan';

const LOOKUP = createLookup(CATALOGUE);
/** Plans each job from the one before it, as the application does. */
const planNext = createPlanner(CATALOGUE);
/** What is written into the document as it stands, and refused by its gate where it does not fit. */
const WIRING = [
  ...(['merge', 'move', 'drop', 'kind', 'draw', 'join by', 'size', 'cable', 'twist', 'run'] as const),
  ...(['decide', 'duty', 'rate', 'unmode', 'source'] as const),
] as const;
/** One edit of a planner: what it is, and two numbers that choose where and how much. */
export const STEP = fc.record({
  kind: fc.constantFrom(
    ...(['split', 'join', 'branch', 'breakout', 'datum', 'end', 'remove', 'place', 'assign', 'gather', 'give', 'arrange', 'fix'] as const),
    ...WIRING,
  ),
  at: fc.nat(10_000),
  much: fc.nat(10_000),
});
export type Step = typeof STEP extends fc.Arbitrary<infer S> ? S : never;

const isWiring = (kind: Step['kind']): kind is (typeof WIRING)[number] => (WIRING as readonly string[]).includes(kind);

function rewire(job: Job, loom: Loom, kind: (typeof WIRING)[number], at: number, much: number): void {
  const deviceIds = Object.keys(job.devices).sort();
  const device = job.devices[deviceIds[much % Math.max(1, deviceIds.length)] ?? ''];
  const modeIds = Object.keys(job.modes).sort();
  const modeId = modeIds[at % Math.max(1, modeIds.length)];
  const run = Object.values(loom.segments)[much % Math.max(1, Object.keys(loom.segments).length)];
  if (kind === 'decide' && device) device.decision = DECISIONS[at % DECISIONS.length]!;
  else if (kind === 'duty' && device && modeId !== undefined) device.duty[modeId] = (at % 11) / 10;
  else if (kind === 'rate' && device)
    device.ratings = Object.fromEntries(['f1', 'ch1', 'r1', 'm1'].map((id) => [id, { ratingA: 1 + (at % 60), reason: 'to see' }]));
  else if (kind === 'unmode' && modeId !== undefined) {
    delete job.modes[modeId];
    for (const one of Object.values(job.devices)) delete one.duty[modeId];
  } else if (kind === 'source')
    Object.assign(job.source, {
      volts: 6 + (at % 40),
      milliohm: at % 30,
      chassisMilliohm: at % 9,
      continuousA: at % 2 ? at % 100 || null : null,
    });
  else if (kind === 'run' && run)
    Object.assign(run, {
      zoneId: [null, ...Object.keys(job.zones)][at % 6] ?? null,
      ticks: at % 2 ? ['hot', 'moving'] : ['wet'],
      slideOn: at % 3 ? 'before-ends' : 'after-ends',
    });
  const ids = Object.keys(loom.circuits).sort();
  const id = ids[much % ids.length];
  const circuit = id === undefined ? undefined : loom.circuits[id];
  const other = ids[at % ids.length]!;
  if (!circuit || id === undefined) return;
  const place = circuit.terminations[at % Math.max(1, circuit.terminations.length)];
  if (kind === 'merge' && other !== id) {
    circuit.terminations.push(...loom.circuits[other]!.terminations);
    delete loom.circuits[other];
  } else if (kind === 'move' && place) {
    const endIds = Object.keys(loom.ends).sort();
    Object.assign(place, { endId: endIds[(at + much) % endIds.length]!, cavity: String(1 + (much % 8)) });
  } else if (kind === 'drop') circuit.terminations.splice(at % Math.max(1, circuit.terminations.length), 1);
  else if (kind === 'kind') circuit.kind = CIRCUIT_KINDS[at % CIRCUIT_KINDS.length]!;
  else if (kind === 'join by') circuit.join = (['splice', 'chain', 'stud'] as const)[at % 3]!;
  else if (kind === 'size') circuit.sizePin = at % 3 ? { size: at % 2 ? '20' : '12', reason: 'to see' } : null;
  else if (kind === 'cable') circuit.cable = at % 3 ? { groupId: `k${at % 2}`, itemId: CATALOGUE.cables[0]!.id } : null;
  else if (kind === 'twist') circuit.twist = at % 3 ? { groupId: `t${at % 4}`, pitchMm: 20 } : null;
  else if (place && kind === 'draw') {
    const need = loom.ends[place.endId]!.pins[place.cavity];
    if (need) Object.assign(need, { currentA: at % 7 === 0 ? null : (at % 900) / 10, volts: at % 11 === 0 ? 24 : need.volts });
  }
}

/** The job after an edit; where the edit is refused by its contract, the job as it was. Anything else thrown is a fault. */
export function takeStep(before: Job, { kind, at, much }: Step): Job {
  const job = structuredClone(before);
  const loomIds = Object.keys(job.looms).sort();
  const loomId = loomIds[at % loomIds.length]!;
  const loom = job.looms[loomId]!;
  const tree = createTree(loom, findStandard(job, CATALOGUE));
  const one = <T>(list: readonly T[], by: number): T => list[by % list.length]!;
  const segmentIds = Object.keys(tree.segments).sort();
  const nodeIds = Object.keys(tree.nodes).sort();
  const endIds = Object.keys(loom.ends).sort();
  try {
    if (kind === 'split') {
      const id = one(segmentIds, much);
      const offsetMm = tree.segments[id]!.lengthMm * (0.1 + (at % 80) / 100);
      splitSegment(loom, tree, { segmentId: id, offsetMm }, { kind: at % 2 ? 'pass' : 'breakout', name: `cut ${at}` });
    } else if (kind === 'join') joinSegments(loom, tree, one(nodeIds, much));
    else if (kind === 'branch') moveBranch(loom, tree, one(segmentIds, much), one(nodeIds, at));
    else if (kind === 'breakout') moveBreakout(loom, tree, one(nodeIds, much), (at % 400) - 200);
    else if (kind === 'datum') moveDatum(loom, tree, (at % 400) - 200);
    else if (kind === 'end')
      addEnd(loom, { nodeId: one(nodeIds, much), legMm: at % 5 ? 20 + (at % 700) : null }, `end ${at}`, at % 3 ? 'pellow-6' : null, {
        kind: at % 3 ? 'connector' : 'tail',
      });
    else if (kind === 'remove') removeEnd(job, loomId, tree, one(endIds, much));
    else if (kind === 'place') placeDevice(job, CATALOGUE, one(Object.keys(job.devices).sort(), much), loomId, one(endIds, at));
    else if (kind === 'assign') return assignPins(job, CATALOGUE, findStandard(job, CATALOGUE)).next;
    else if (kind === 'gather') return gatherParts(job, CATALOGUE, loomId)?.next ?? before;
    else if (kind === 'give') {
      const standard = findStandard(job, CATALOGUE);
      const pins = endIds.flatMap((endId) => Object.keys(loom.ends[endId]!.pins).map((cavity) => ({ loomId, endId, cavity })));
      const pin = pins.length ? one(pins, much) : null;
      const places = (pin && listAblePlaces(job, standard, pin)?.places) ?? [];
      const given = places.length ? reassignPin(job, CATALOGUE, standard, pin!, one(places, at).pins[0]!) : null;
      return given && 'next' in given ? given.next : before;
    } else if (kind === 'arrange') {
      const mates = Object.keys(job.mates).sort();
      return mates.length ? arrangeBulkheadPins(job, CATALOGUE, one(mates, much), null, () => 1).next : before;
    } else if (isWiring(kind)) {
      rewire(job, loom, kind, at, much);
      if (!checkJob(job, LOOKUP).ok) return before;
    } else {
      const fixes = listFindings(job, planNext(job), CATALOGUE, null).flatMap(({ fix }) => fix ?? []);
      const fix = fixes.length ? one(fixes, much) : null;
      if (!fix) return before;
      const applied = applyEdit(job, fix.patch);
      if (!applied.ok) throw new Error(`a fix is no edit: ${fix.label}`);
      return applied.value;
    }
  } catch (error) {
    if (error instanceof RangeError && error.message.includes('expected')) return before;
    throw error;
  }
  return job;
}
