import { pushTo } from '../../units';
import type { Step } from '../step';
import { toLane } from './lanes';

/** What happened on a floor, as far as it says who is where. */
export interface FloorDeed {
  /** take and leave are of a lane, its id as their item; all else is of a step */
  kind: string;
  stepId: string;
  itemId: string;
  author: string;
  /** by the clock of the tablet, ms */
  atMs: number;
}

/** Somebody who is at work in a lane. */
export interface Claim {
  author: string;
  /** ms: begun, and last seen at work there */
  sinceMs: number;
  lastMs: number;
}

const WORKING = new Set(['tick', 'untick', 'reading', 'hand', 'down']);

/**
 * Who is at work in which lane (craft D1). Whoever takes a lane, ticks or reads something in it is there, until leaving it or until nothing
 * was heard for as long as a lease. Two may be: tablets that were away did not know of each other. Nothing is refused by it.
 *
 * @param nowMs of the device that asks; a clock that goes ahead of it counts as now
 * @param leaseMin minutes without a tick after which a lane is free again
 */
export function listClaims(
  steps: readonly Step[],
  deeds: readonly FloorDeed[],
  { nowMs, leaseMin }: { nowMs: number; leaseMin: number },
): Map<string, Claim[]> {
  const laneOf = new Map(steps.map((step) => [step.id, toLane(step)]));
  const leaseMs = leaseMin * 60_000;
  const known = new Map<string, Map<string, Claim>>();
  // in the order in which they happened: a tablet that was away sends late
  for (const { kind, stepId, itemId, author, atMs: happenedMs } of [...deeds].sort((a, b) => a.atMs - b.atMs)) {
    const lane = kind === 'take' || kind === 'leave' ? itemId : WORKING.has(kind) ? laneOf.get(stepId) : null;
    if (lane === null || lane === undefined) continue;
    const here = known.get(lane) ?? new Map<string, Claim>();
    known.set(lane, here);
    if (kind === 'leave') here.delete(author);
    else {
      const atMs = Math.min(happenedMs, nowMs);
      const before = here.get(author);
      const isOn = before !== undefined && atMs - before.lastMs < leaseMs;
      here.set(author, { author, sinceMs: isOn ? before.sinceMs : atMs, lastMs: atMs });
    }
  }
  const claims = new Map<string, Claim[]>();
  for (const [lane, here] of known) for (const claim of here.values()) if (nowMs - claim.lastMs < leaseMs) pushTo(claims, lane, claim);
  for (const here of claims.values()) here.sort((a, b) => a.sinceMs - b.sinceMs);
  return claims;
}
