import { chooseWireKind, findFamily, type Catalogue, type ShopStandard } from '../../catalogue';
import { createCircuit, toNextNumber, listCavities, type Circuit, type CircuitKind, type Job } from '../../model';
import { findLeadLook } from '../../plan';
import { compareIds } from '../../units';
import { createId } from '../createId';
import { chooseColour } from './chooseColour';
import type { UnservedPin } from './listUnservedPins';
import type { AssignConflict } from './types';
import type { PinPlace } from '../../netlist';

/** A need and the pins of the box that serve it, one for each half. */
export interface Lead {
  need: UnservedPin;
  pins: readonly PinPlace[];
}

/** What new circuits go by, counted once: a draft is dear to go through again for each of them. */
export interface Stock {
  wireTable: Circuit['wireTable'];
  /** by loom: the number of the next circuit, and the looks that there are */
  looms: Map<string, { next: number; looks: Pick<Circuit, 'colour'>[] }>;
}

export const countStock = (job: Job, catalogue: Catalogue): Stock => ({
  wireTable: chooseWireKind(job, catalogue),
  looms: new Map(
    Object.entries(job.looms).map(([id, loom]) => [id, { next: Number(toNextNumber(loom)), looks: Object.values(loom.circuits) }]),
  ),
});

/** Where a member is met from its box: the circuit of its net that is nearest, or its own bare pins. */
interface Met {
  loomId: string;
  circuitId: string | null;
  pins: readonly PinPlace[];
  way: Hop[];
}

type Hop = { here: { loomId: string; endId: string }; there: { loomId: string; endId: string } };

/**
 * Wire a need to its place: a circuit in every loom on the way, through the same cavity of both faces of each plug. Circuits that are
 * there are led on. Changes the job given, unless a plug has no cavity left: then it says so and leaves the job alone.
 * passed: cavities of plugs that nobody had chosen before.
 */
export function routeThroughConnectors(
  job: Job,
  catalogue: Catalogue,
  standard: ShopStandard,
  { need, pins }: Lead,
  stock: Stock,
): { passed: PinPlace[] } | AssignConflict {
  const host = pins[0]!.loomId;
  const met = need.members.map((half) =>
    half.map(({ loomId, circuits, pins: bare }): Met => {
      if (circuits.length === 0) return { loomId, circuitId: null, pins: bare, way: findWay(job, host, loomId)! };
      return circuits
        .map((one): Met => ({ ...one, pins: [], way: findWay(job, host, one.loomId)! }))
        .reduce((best, one) => (one.way.length < best.way.length ? one : best));
    }),
  );
  const chosen = chooseCavities(job, catalogue, need, met);
  if (!('cavities' in chosen)) return chosen;
  const { cavities, passed } = chosen;
  const groupId = pins.length > 1 ? createId(listGroups(job), 'pair') : null;
  for (let half = 0; half < pins.length; half += 1) {
    const made = new Map<string, string>();
    const twist = groupId === null ? null : { groupId, pitchMm: standard.canPitchMm };
    const served = [pins[half]!, ...need.members[half]!.flatMap((member) => member.pins)];
    const wiring: Wiring = { job, need, half, served, made, twist, standard, stock };
    // what waits in the box's own loom is led on, not doubled
    const waiting = met[half]!.find(({ way, circuitId }) => way.length === 0 && circuitId !== null);
    if (waiting) made.set(host, waiting.circuitId!);
    if (met[half]!.some(({ way, circuitId }) => way.length > 0 || circuitId === null)) join(wiring, pins[half]!, null);
    met[half]!.forEach((member, index) => {
      for (const hop of member.way) {
        const cavity = cavities.get(toHopKey(hop, half, member, index))!;
        join(wiring, { ...hop.here, cavity }, null);
        join(wiring, { ...hop.there, cavity }, hop.there.loomId === member.loomId ? member.circuitId : null);
      }
      if (member.way.length === 0 && member.circuitId !== null) join(wiring, pins[half]!, member.circuitId);
      for (const pin of member.pins) join(wiring, pin, member.circuitId);
    });
  }
  return { passed };
}

/** What is wired already has a cavity of its own; bare pins of a loom share one. */
const toHopKey = ({ here, there }: Hop, half: number, member: Met, index: number) =>
  `${half} ${here.loomId}/${here.endId} ${there.loomId}${member.circuitId === null ? '' : ` ${index}`}`;

/** One cavity for each half and plug, found before anything is changed; or why there is none. */
function chooseCavities(
  job: Job,
  catalogue: Catalogue,
  need: UnservedPin,
  met: readonly (readonly Met[])[],
): { cavities: Map<string, string>; passed: PinPlace[] } | AssignConflict {
  const taken = new Set<string>();
  const chosen = new Map<string, string>();
  const passed: PinPlace[] = [];
  for (const [half, members] of met.entries())
    for (const [index, member] of members.entries())
      for (const hop of member.way) {
        const key = toHopKey(hop, half, member, index);
        if (chosen.has(key)) continue;
        const stub = hop.there.loomId === member.loomId ? findStub(job, member, hop.there.endId) : null;
        const beside = half === 0 ? null : (chosen.get(toHopKey(hop, half - 1, met[half - 1]![index] ?? member, index)) ?? null);
        const cavity = stub ?? findFree(job, catalogue, hop, taken, need.kind, beside);
        if (cavity === null) return toFull(job, catalogue, need, hop);
        taken.add(`${hop.here.loomId}/${hop.here.endId}/${cavity}`);
        chosen.set(key, cavity);
        if (stub === null) passed.push({ ...hop.here, cavity }, { ...hop.there, cavity });
      }
  return { cavities: chosen, passed };
}

/** Plugs from the box's loom to another, the fewest. */
function findWay(job: Job, from: string, to: string): Hop[] | null {
  const ways = new Map<string, Hop[]>([[from, []]]);
  const mates = Object.keys(job.mates).sort(compareIds);
  for (const [loomId, way] of ways) {
    if (loomId === to) return way;
    for (const id of mates) {
      const { a, b } = job.mates[id]!;
      for (const [here, there] of [
        [a, b],
        [b, a],
      ] as const)
        if (here.loomId === loomId && !ways.has(there.loomId)) ways.set(there.loomId, [...way, { here, there }]);
    }
  }
  return ways.get(to) ?? null;
}

/** Cavity of a plug at which a member's circuit waits already; null: it does not. */
function findStub(job: Job, { loomId, circuitId }: Met, endId: string): string | null {
  if (circuitId === null) return null;
  return job.looms[loomId]!.circuits[circuitId]!.terminations.find((one) => one.endId === endId)?.cavity ?? null;
}

/**
 * A cavity free on both faces: beside its pair where it has one, power from the first up, sensors and data from the last down. Where
 * wires lie best is found when all of them are there (arrangeBreak).
 */
function findFree(
  job: Job,
  catalogue: Catalogue,
  { here, there }: Hop,
  taken: ReadonlySet<string>,
  kind: CircuitKind,
  beside: string | null,
): string | null {
  const family = findFamily(job, catalogue, job.looms[here.loomId]!.ends[here.endId]!.familyId);
  const cavities = family ? listCavities(family) : [];
  const used = new Set(
    [here, there].flatMap(({ loomId, endId }) =>
      Object.values(job.looms[loomId]!.circuits).flatMap(({ terminations }) =>
        terminations.flatMap((one) => (one.endId === endId ? [one.cavity] : [])),
      ),
    ),
  );
  const free = cavities.filter((cavity) => !used.has(cavity) && !taken.has(`${here.loomId}/${here.endId}/${cavity}`));
  if (beside !== null) {
    const at = cavities.indexOf(beside);
    const next = [cavities[at + 1], cavities[at - 1]].find((one) => one !== undefined && free.includes(one));
    if (next) return next;
  }
  const isPower = kind === 'supply' || kind === 'output' || kind === 'power-ground';
  return (isPower ? free[0] : free.at(-1)) ?? null;
}

function toFull(job: Job, catalogue: Catalogue, need: UnservedPin, { here, there }: Hop): AssignConflict {
  const end = job.looms[here.loomId]!.ends[here.endId]!;
  const family = findFamily(job, catalogue, end.familyId);
  const held = Object.values(job.looms[here.loomId]!.circuits).filter(({ terminations }) =>
    terminations.some(({ endId }) => endId === here.endId),
  );
  return {
    need: need.name,
    competing: [need.name, ...held.map(({ name }) => name)],
    places: [`${end.name}, ${family ? listCavities(family).length : 0} cavities, to the ${job.looms[there.loomId]!.name} loom`],
    wouldTake: `a plug with more ways between ${job.looms[here.loomId]!.name} and ${job.looms[there.loomId]!.name}, or a second one`,
  };
}

const listGroups = (job: Job): Record<string, true> =>
  Object.fromEntries(
    Object.values(job.looms).flatMap(({ circuits }) =>
      Object.values(circuits).flatMap(({ twist }) => (twist ? [[twist.groupId, true as const]] : [])),
    ),
  );

/** One half of a need while it is wired. made: its circuit in each loom so far. */
interface Wiring {
  job: Job;
  need: UnservedPin;
  half: number;
  /** pins of the box and of the devices that it joins */
  served: readonly PinPlace[];
  made: Map<string, string>;
  twist: Circuit['twist'];
  standard: ShopStandard;
  stock: Stock;
}

/** Put a pin into the need's circuit of its loom: the one it has there, or a new one. */
function join(
  { job, need, half, served, made, twist, standard, stock }: Wiring,
  { loomId, endId, cavity }: PinPlace,
  known: string | null,
): void {
  const loom = job.looms[loomId]!;
  let circuitId = known ?? made.get(loomId);
  if (circuitId === undefined) {
    const here = stock.looms.get(loomId)!;
    const number = String(here.next);
    const colour = findLeadLook(job.looms, served, standard) ?? chooseColour(need.kind, here.looks, standard);
    here.next += 1;
    here.looks.push({ colour });
    circuitId = Object.hasOwn(loom.circuits, `c${number}`) ? createId(loom.circuits, `c${number}-`) : `c${number}`;
    loom.circuits[circuitId] = createCircuit(number, toName(job, need, half), [], {
      kind: need.kind,
      twist,
      wireTable: stock.wireTable,
      colour,
    });
  }
  made.set(loomId, circuitId);
  const circuit = loom.circuits[circuitId]!;
  if (circuit.terminations.some((one) => one.endId === endId && one.cavity === cavity)) return;
  circuit.terminations.push({ endId, cavity });
}

function toName(job: Job, need: UnservedPin, half: number): string {
  if (need.members.length === 1) return need.name.slice(0, 80);
  const first = need.members[half]![0]!.pins[0]!;
  const words = job.looms[first.loomId]!.ends[first.endId]!.pins[first.cavity]!.function;
  return (words.startsWith('CAN') ? words : `${need.name} ${words.slice(-1)}`).slice(0, 80);
}
