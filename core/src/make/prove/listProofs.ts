import { dropOvertaken, type SeenTick } from '../dropOvertaken';
import { ISOLATION, PAIRS, type Operation, type Step } from '../step';
import { toPair } from './createSeen';
import type { LoomFault } from './faultTypes';
import { toProbeKey, type RingOut } from './types';

/** What happened on the floor, as far as it bears on a proof. */
export interface ProofEvent extends SeenTick {
  author: string;
  happenedAt: string;
  readId?: string | null;
  value?: number | null;
  instrument?: string | null;
}

/** The last reading of a measurement. */
export interface Proof {
  value: number;
  author: string;
  instrument: string;
  at: string;
  /** what was done to it after it was read, so that it counts no more; null: it stands */
  voidBecause: string | null;
}

/** Work that changes copper or what touches it: what was read before it says nothing of the loom after it. */
export const TOUCHING: ReadonlySet<Operation> = new Set<Operation>([
  ...(['undo', 'cut', 'screen', 'seal', 'thread', 'crimp', 'seat', 'ring', 'splice', 'pot', 'depin'] as const),
]);

/**
 * Every measurement with its last reading, and whether that still holds (craft E1). A reading of a net is void once work on one of its wires
 * or cavities was ticked or taken back after it, by the server's order or by the clock; a measurement that a pattern asked for also once its
 * net was measured anew.
 */
export function listProofs(ringOut: RingOut, steps: readonly Step[], events: readonly ProofEvent[]): Map<string, Proof> {
  const netsOf = createNetFinder(ringOut);
  const tests = new Set(steps.filter(({ operation }) => operation === 'test').map(({ id }) => id));
  const items = new Map(steps.flatMap((step) => step.items.map((item) => [`${step.id} ${item.id}`, { step, item }])));
  const table = new Set(ringOut.tests.map(({ id }) => id));
  const proofs = new Map<string, Proof & { order: number }>();
  // of each net: when it was last measured by the table, and last worked on, by the server's order and by the clock
  const measured = new Map<string, number>();
  const worked = new Map<string, Work>();
  const timed = new Map<string, Work>();
  const counting = new Set(dropOvertaken(events));
  events.forEach((event, order) => {
    if (event.kind === 'reading') {
      const { readId, value } = event;
      if (!tests.has(event.stepId) || typeof readId !== 'string' || typeof value !== 'number') return;
      if (table.has(readId)) for (const net of netsOf.ofTest(readId)) measured.set(net, order);
      const { author, happenedAt: at } = event;
      proofs.set(readId, { value, author, instrument: event.instrument ?? '', at, voidBecause: null, order });
      return;
    }
    const found = items.get(`${event.stepId} ${event.itemId}`);
    if (!found || !TOUCHING.has(found.step.operation) || (event.kind !== 'tick' && event.kind !== 'untick')) return;
    const work = {
      order,
      at: event.happenedAt,
      words: `${found.step.title}: ${event.kind === 'tick' ? 'done' : 'taken back'} after it, by ${event.author}`,
    };
    for (const net of netsOf.ofWork(found.step, found.item)) {
      if (counting.has(event)) worked.set(net, work);
      // a tablet that was away sends late what was done early: what its own clock puts after a reading voids that as well
      if (work.at > (timed.get(net)?.at ?? '')) timed.set(net, work);
    }
  });
  for (const [id, proof] of proofs)
    for (const net of netsOf.ofTest(id)) {
      const [last, late] = [worked.get(net), timed.get(net)];
      if (last && last.order > proof.order) proof.voidBecause = last.words;
      else if (late && late.at > proof.at) proof.voidBecause ??= late.words;
      else if (!table.has(id) && (measured.get(net) ?? -1) > proof.order) proof.voidBecause ??= 'its net was measured anew';
    }
  return proofs;
}

interface Work {
  order: number;
  at: string;
  words: string;
}

interface NetFinder {
  ofTest: (testId: string) => readonly string[];
  ofWork: (step: Step, item: Step['items'][number]) => ReadonlySet<string>;
}

function createNetFinder({ nets, tests }: RingOut): NetFinder {
  const ofProbe = new Map(nets.flatMap(({ id, probes }) => probes.map((probe) => [toProbeKey(probe), id])));
  const ofWire = new Map(nets.flatMap(({ id, wireIds }) => wireIds.map((wireId) => [wireId, id])));
  const ofTable = new Map(
    tests.map(({ id, netId, from, to }) => [id, [netId, ...(to ? [ofProbe.get(toProbeKey(from)), ofProbe.get(toProbeKey(to))] : [])]]),
  );
  const compact = (ids: readonly (string | undefined)[]) => [...new Set(ids.filter((id) => id !== undefined))];
  const known = new Map<string, readonly string[]>();
  return {
    ofTest: (testId) => {
      const found = known.get(testId) ?? compact(ofTable.get(testId) ?? (toPair(testId) ?? []).map((key) => ofProbe.get(key)));
      known.set(testId, found);
      return found;
    },
    ofWork: ({ endId }, { wireIds, cavity }) =>
      new Set(
        compact([
          ...wireIds.map((id) => ofWire.get(id)),
          ...(endId !== null && cavity !== null ? [ofProbe.get(`${endId} ${cavity}`)] : []),
        ]),
      ),
  };
}

/** Work of a step that is done over. */
export interface Redone {
  stepId: string;
  itemId: string;
}

const REMADE: ReadonlySet<Operation> = new Set<Operation>(['crimp', 'seat', 'splice', 'screen', 'ring']);

/** The work that is done over where a fault is mended: the cavities that it names, or the ends of the wires that it names. */
export function listRework({ copper, nets, parts }: RingOut, steps: readonly Step[], fault: LoomFault): Redone[] {
  const places = new Set<string>();
  if ('moves' in fault) for (const pair of fault.moves) for (const cavity of pair) places.add(`${fault.endId} ${cavity}`);
  else if ('wireIds' in fault) for (const { wireId, from, to } of copper) if (fault.wireIds.includes(wireId)) places.add(from).add(to);
  if (fault.kind === 'part') for (const { id, a, b } of parts) if (id === fault.partId) places.add(toProbeKey(a)).add(toProbeKey(b));
  if (fault.kind === 'joined' || fault.kind === 'screen' || fault.kind === 'unclear')
    for (const { id, probes } of nets)
      if (fault.netIds.includes(id))
        for (const probe of probes)
          if (!('nearestEndId' in fault) || fault.nearestEndId === null || fault.nearestEndId === probe.endId)
            places.add(toProbeKey(probe));
  return steps.flatMap((step) =>
    REMADE.has(step.operation)
      ? step.items.flatMap(({ id, cavity }) => {
          const at = step.spliceId !== null ? `splice ${step.spliceId}` : `${step.endId} ${cavity}`;
          return places.has(at) ? [{ stepId: step.id, itemId: id }] : [];
        })
      : [],
  );
}

/** Under which item of the test a reading is kept. */
export const toProofItem = (steps: readonly Step[], kind: string): Redone | null => {
  const step = steps.find(({ id, operation }) => operation === 'test' && id === 'test');
  const item = step?.items.find(({ id }) => (kind === 'isolate' ? id === ISOLATION : id === PAIRS));
  return step && item ? { stepId: step.id, itemId: item.id } : null;
};
