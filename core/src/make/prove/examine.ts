import { isPassing } from '../judgeReadings';
import { createSeen, isOpen, toOhm, type Seen } from './createSeen';
import type { LoomFault } from './faultTypes';
import { findBroken } from './findBroken';
import { findMoved } from './findMoved';
import { listSeeks, listShared, seekNearest, seekStray } from './listSeeks';
import { toProbeKey, type ProofTest, type ProvedNet, type RingOut } from './types';

/** more nets than these do not touch by mistakes of pinning, and every two of them would be asked for */
const MOST_TOUCHING = 80;

/** What readings of a loom come to. */
export interface Examined {
  passed: number;
  failed: ProofTest[];
  unread: ProofTest[];
  faults: LoomFault[];
  /** measurements that would tell more, the likeliest first; empty: nothing is left to tell */
  seeks: ProofTest[];
}

/**
 * Says what is wrong with a loom, not which measurements failed (craft E1). Values are the last readings by name of the test, in its unit.
 * Nothing is named before the measurements that tell faults apart are made; what would only tell where to look is asked for beside it.
 */
export function examine(ringOut: RingOut, values: ReadonlyMap<string, number>): Examined {
  const unread = ringOut.tests.filter(({ id }) => !values.has(id));
  const failed = ringOut.tests.filter((test) => values.has(test.id) && !isPassing(test, values.get(test.id)!));
  const counts = { passed: ringOut.tests.length - unread.length - failed.length, failed, unread };
  if (failed.length === 0) return { ...counts, faults: [], seeks: [] };
  const seen = createSeen(ringOut, values);
  const many = failed.filter(({ kind }) => kind === 'isolate').map(({ netId }) => netId);
  if (many.length > MOST_TOUCHING) return { ...counts, faults: [{ kind: 'many', netIds: many }], seeks: [] };
  const seeks = listSeeks(ringOut, seen);
  if (seeks.length > 0) return { ...counts, faults: [], seeks };
  const moved = findMoved(ringOut, seen);
  const isMoved = new Set(moved.flatMap(({ netIds }) => netIds));
  const others = ringOut.nets.filter(({ id }) => !isMoved.has(id));
  const touching = listTouching(others, seen);
  const joined = touching.map(([one, other]) => toJoined(ringOut, one, other, seen));
  // the ways through a net are many: those of sound ones are not gone through
  const ofFailed = new Set(failed.flatMap(({ kind, netId }) => (kind === 'join' ? [netId] : [])));
  const broken = others.filter(({ id }) => ofFailed.has(id) && seen.isRead(id)).flatMap((net) => findBroken(ringOut, net, seen, values));
  const told = [...moved, ...joined, ...broken];
  const known = new Set(told.flatMap(({ netIds }) => netIds));
  const parts = findParts(ringOut, values, known);
  const ofParts = new Set(parts.flatMap(({ netIds }) => netIds));
  const left = failed.filter(({ kind, netId }) => !known.has(netId) && !(kind === 'part' && ofParts.has(netId)));
  const unclear: LoomFault[] =
    left.length > 0 ? [{ kind: 'unclear', netIds: [...new Set(left.map(({ netId }) => netId))], testIds: left.map(({ id }) => id) }] : [];
  const more = [...touching.flatMap(([one, other]) => seekNearest(one, other, seen)), ...seekStray(ringOut, seen)];
  return { ...counts, faults: [...told, ...parts, ...unclear], seeks: more };
}

/** Nets that were found joined, each with the first one that it touches. */
function listTouching(nets: readonly ProvedNet[], seen: Seen): [ProvedNet, ProvedNet][] {
  const first = new Map<string, ProvedNet>();
  const pairs: [ProvedNet, ProvedNet][] = [];
  for (const net of nets)
    for (const part of new Set(net.probes.map((probe) => seen.partOf(toProbeKey(probe))))) {
      const other = first.get(part);
      if (other) pairs.push([other, net]);
      else first.set(part, net);
    }
  return pairs;
}

function toJoined({ copper }: RingOut, one: ProvedNet, other: ProvedNet, seen: Seen): LoomFault {
  const read = listShared(one, other)
    .flatMap(([a, b]) => ({ endId: a.split(' ')[0]!, ohm: seen.between(a, b) ?? Infinity }))
    .sort((a, b) => a.ohm - b.ohm);
  const of = { netIds: [one.id, other.id], nearestEndId: read[0]?.endId ?? null };
  const cables = (net: ProvedNet) => copper.flatMap(({ wireId, groupId }) => (net.wireIds.includes(wireId) && groupId ? [groupId] : []));
  const screen = [one, other].find(({ kind }) => kind === 'screen');
  const isOfOneCable = cables(one).some((id) => cables(other).includes(id));
  return screen && isOfOneCable ? { ...of, kind: 'screen', screenId: screen.id } : { ...of, kind: 'joined' };
}

/** Parts of another value, where nothing else is wrong with what they lie between. */
function findParts({ tests, parts }: RingOut, values: ReadonlyMap<string, number>, known: ReadonlySet<string>): LoomFault[] {
  return tests.flatMap((test): LoomFault[] => {
    const value = values.get(test.id);
    if (test.kind !== 'part' || value === undefined || isPassing(test, value) || known.has(test.netId)) return [];
    const part = parts.find(({ a, b }) => toProbeKey(a) === toProbeKey(test.from) && toProbeKey(b) === toProbeKey(test.to!))!;
    return [{ kind: 'part', netIds: [test.netId], partId: part.id, ohm: isOpen(toOhm(test, value)) ? Infinity : value }];
  });
}
