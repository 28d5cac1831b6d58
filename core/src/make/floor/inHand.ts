import type { Operation, Step } from '../step';
import type { FloorDeed } from './listClaims';

/** Work at a cavity that is taken in hand one at a time: an interruption leaves it doubtful (craft D2). */
const PINNING: ReadonlySet<Operation> = new Set<Operation>(['crimp', 'seat']);

/** Is a step gone through cavity by cavity? */
export const isPinning = ({ operation, items }: Pick<Step, 'operation' | 'items'>): boolean =>
  PINNING.has(operation) && items.some(({ cavity }) => cavity !== null);

/** What happened on a floor, as far as it says what is in somebody's hand. */
export interface HandDeed extends FloorDeed {
  device?: string | null;
}

/** A cavity that somebody took in hand, and neither finished nor put down. */
export interface InHand {
  stepId: string;
  itemId: string;
  author: string;
  device: string | null;
  atMs: number;
}

/** What is in whose hand, by step and item; ticking it, opening it again and putting it down all end that. deeds: in their order. */
export function listInHand(deeds: readonly HandDeed[]): Map<string, InHand> {
  const inHand = new Map<string, InHand>();
  for (const { kind, stepId, itemId, author, device, atMs } of deeds) {
    const key = `${stepId} ${itemId}`;
    if (kind === 'hand') inHand.set(key, { stepId, itemId, author, device: device ?? null, atMs });
    else if (kind === 'tick' || kind === 'untick' || kind === 'down') inHand.delete(key);
  }
  return inHand;
}

/** Who asks what is doubtful, and when. */
export interface Asking {
  author: string;
  device: string;
  nowMs: number;
  leaseMin: number;
  /** taken since this page was opened by whoever has it now: keys of step and item */
  takenHere: ReadonlySet<string>;
}

/**
 * Is what is in hand doubtful? Whoever took it on this page goes on with it. Taken by somebody else on this device, or by oneself before the page
 * was opened anew, it was interrupted; on another device it is at work there, until nothing was heard for as long as a lease.
 */
export function isDoubtful(one: InHand, { author, device, nowMs, leaseMin, takenHere }: Asking): boolean {
  if (one.author === author && takenHere.has(`${one.stepId} ${one.itemId}`)) return false;
  return one.author === author || one.device === device || nowMs - one.atMs >= leaseMin * 60_000;
}

/** Where a cavity is on its way. */
export type HandState = 'to do' | 'in hand' | 'doubtful' | 'crimped' | 'seated' | 'held';

/** How every cavity of a step stands. */
export const toHandState = (
  step: Pick<Step, 'id' | 'operation'>,
  item: Pick<Step['items'][number], 'id' | 'heldBecause'>,
  isTicked: boolean,
  inHand: ReadonlyMap<string, InHand>,
  asking: Asking,
): HandState => {
  if (item.heldBecause !== null) return 'held';
  if (isTicked) return step.operation === 'seat' ? 'seated' : 'crimped';
  const taken = inHand.get(`${step.id} ${item.id}`);
  if (!taken) return 'to do';
  return isDoubtful(taken, asking) ? 'doubtful' : 'in hand';
};
