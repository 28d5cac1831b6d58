import { dropOvertaken, type SeenTick } from '../dropOvertaken';
import { TOUCHING, type ProofEvent } from '../prove/listProofs';
import type { Step } from '../step';
import { POWER_STEP, type FirstPower } from './types';

/** What happened on a floor, of any loom of the vehicle. */
export interface PowerEvent extends ProofEvent, SeenTick {
  loomId: string;
  /** of a revision before; left out: of this one */
  release?: number;
}

/** The last reading of a test of first power. */
export interface PowerProof {
  value: number;
  author: string;
  instrument: string;
  at: string;
  /** work after it on what it was read through, so that it counts no more; null: it stands */
  voidBecause: string | null;
  /** revision before this one in which it was read; null: in this one */
  release: number | null;
}

/** What is open again on the way of readings of revisions before. */
export interface ReopenedPower {
  /** wires and ends, as loom/id, at which work is open again, with what it is */
  open: [string, string][];
  /** looms in which something has to be undone, with what it is */
  undone: [string, string][];
}

/** Steps of one loom. */
export interface LoomSteps {
  loomId: string;
  steps: readonly Pick<Step, 'id' | 'title' | 'operation' | 'endId' | 'items'>[];
}

/**
 * Every test of first power with its last reading, and whether that still holds: work on a wire of its way, or at its plug, after it in the
 * server's order or by the clock voids it (craft E1). toEnds: ends of a wire, by loom/wire.
 */
export function listPowerProofs(
  { tests, elements }: FirstPower,
  looms: readonly LoomSteps[],
  wireEnds: ReadonlyMap<string, readonly string[]>,
  events: readonly PowerEvent[],
  { open, undone }: ReopenedPower = { open: [], undone: [] },
): Map<string, PowerProof> {
  const items = new Map(
    looms.flatMap(({ loomId, steps }) =>
      steps.flatMap((step) =>
        TOUCHING.has(step.operation) ? step.items.map((item) => [`${loomId} ${step.id} ${item.id}`, { step, item }] as const) : [],
      ),
    ),
  );
  const wireOf = new Map(elements.flatMap(({ id, wire }) => (wire ? [[id, `${wire.loomId}/${wire.wireId}`] as const] : [])));
  const touches = new Map(tests.map(({ id, path, endIds }) => [id, new Set([...endIds, ...path.flatMap((one) => wireOf.get(one) ?? [])])]));
  const proofs = new Map<string, PowerProof & { order: number }>();
  const worked = new Map<string, { order: number; at: string; words: string }>();
  const timed = new Map<string, { order: number; at: string; words: string }>();
  const counting = new Set(dropOvertaken(events));
  events.forEach((event, order) => {
    const { readId, value, author, happenedAt: at } = event;
    if (event.stepId === POWER_STEP) {
      if (event.kind === 'reading' && typeof readId === 'string' && typeof value === 'number')
        proofs.set(readId, {
          value,
          author,
          instrument: event.instrument ?? '',
          at,
          voidBecause: null,
          release: event.release ?? null,
          order,
        });
      return;
    }
    const found = items.get(`${event.loomId} ${event.stepId} ${event.itemId}`);
    if (!found || (event.kind !== 'tick' && event.kind !== 'untick')) return;
    const work = { order, at, words: `${found.step.title}: ${event.kind === 'tick' ? 'done' : 'taken back'} after it, by ${author}` };
    const wires = found.item.wireIds.map((id) => `${event.loomId}/${id}`);
    const ends = wires.flatMap((id) => wireEnds.get(id) ?? []);
    for (const place of new Set([...wires, ...ends, ...(found.step.endId === null ? [] : [`${event.loomId}/${found.step.endId}`])])) {
      if (counting.has(event)) worked.set(place, work);
      if (work.at > (timed.get(place)?.at ?? '')) timed.set(place, work);
    }
  });
  const openAt = new Map(open);
  const undoneIn = new Map(undone);
  for (const [id, proof] of proofs)
    for (const place of touches.get(id.startsWith('woke ') ? toTestId(id) : id) ?? []) {
      const [last, late] = [worked.get(place), timed.get(place)];
      if (last && last.order > proof.order) proof.voidBecause = last.words;
      else if (late && late.at > proof.at) proof.voidBecause ??= late.words;
      // read again in this revision it says what is so now
      if (proof.release !== null) proof.voidBecause ??= openAt.get(place) ?? undoneIn.get(toLoomId(place)) ?? null;
    }
  return proofs;
}

/** The test that something woke with; its name ends in the device. */
export const toTestId = (wokenId: string): string => wokenId.slice('woke '.length, wokenId.lastIndexOf(' '));

const toLoomId = (place: string): string => place.slice(0, place.indexOf('/'));
