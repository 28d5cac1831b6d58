import { isOpen, toOhm, type Seen } from './createSeen';
import type { LoomFault } from './faultTypes';
import { toProbeKey, type CopperPiece, type ProofTest, type ProvedNet, type RingOut } from './types';

type Broken = Extract<LoomFault, { kind: 'open' | 'poor' }>;

/** A way through a net, with the wires that it takes. */
interface Way {
  wireIds: ReadonlySet<string>;
}

/**
 * Wires of a net that carry nothing, or badly: the fewest that all failed ways take and no good way does. What lies in one line with nothing
 * between cannot be told apart and is named together.
 */
export function findBroken(ringOut: RingOut, net: ProvedNet, seen: Seen, values: ReadonlyMap<string, number>): Broken[] {
  const copper = ringOut.copper.filter(({ wireId }) => net.wireIds.includes(wireId));
  const keys = net.probes.map(toProbeKey);
  const open: Way[] = [];
  const whole: Way[] = [];
  keys.forEach((a, at) => {
    for (const b of keys.slice(at + 1)) {
      const ohm = seen.between(a, b);
      const isJoined = seen.partOf(a) === seen.partOf(b);
      if (ohm === undefined && !isJoined && !seen.isApart(seen.partOf(a), seen.partOf(b))) continue;
      (isJoined ? whole : open).push({ wireIds: findWay(copper, a, b) });
    }
  });
  const opens = cover(open, whole).map((wireIds): Broken => ({ kind: 'open', netIds: [net.id], wireIds }));
  return [...opens, ...findPoor(ringOut, net, copper, values)];
}

function findPoor({ tests }: RingOut, net: ProvedNet, copper: readonly CopperPiece[], values: ReadonlyMap<string, number>): Broken[] {
  const read = tests.flatMap((test) => {
    const value = values.get(test.id);
    if (test.kind !== 'join' || test.netId !== net.id || value === undefined || isOpen(toOhm(test, value))) return [];
    const wireIds = findWay(copper, toProbeKey(test.from), toProbeKey(test.to!));
    return [{ test, wireIds, ohm: toOhm(test, value), mostOhm: toMostOhm(test) }];
  });
  const [poor, good] = [read.filter(({ ohm, mostOhm }) => ohm > mostOhm), read.filter(({ ohm, mostOhm }) => ohm <= mostOhm)];
  return cover(poor, good).map((wireIds): Broken => {
    const worst = poor.find((one) => wireIds.some((id) => one.wireIds.has(id)))!;
    return { kind: 'poor', netIds: [net.id], wireIds, ohm: worst.ohm, mostOhm: worst.mostOhm };
  });
}

const toMostOhm = (test: ProofTest): number => toOhm(test, test.most!);

/** The fewest groups of wires, each of which lies in failed ways and in no good one, that take in every failed way. */
function cover(failed: readonly Way[], good: readonly Way[]): string[][] {
  const groups: string[][] = [];
  let left = [...failed];
  const sound = new Set(good.flatMap(({ wireIds }) => [...wireIds]));
  while (left.length > 0) {
    const count = new Map<string, number>();
    for (const { wireIds } of left) for (const id of wireIds) if (!sound.has(id)) count.set(id, (count.get(id) ?? 0) + 1);
    const most = Math.max(0, ...count.values());
    if (most === 0) return groups;
    const tied = [...count].filter(([, times]) => times === most).map(([id]) => id);
    // of what takes in as many ways only what takes in the same ones belongs together
    const of = left.filter(({ wireIds }) => wireIds.has(tied[0]!));
    const group = tied.filter((id) => of.every(({ wireIds }) => wireIds.has(id)));
    groups.push(group);
    left = left.filter(({ wireIds }) => !group.some((id) => wireIds.has(id)));
  }
  return groups;
}

/** Wires between two probes of a net, by the fewest. */
function findWay(copper: readonly CopperPiece[], from: string, to: string): ReadonlySet<string> {
  const before = new Map<string, { key: string; wireId: string } | null>([[from, null]]);
  const queue = [from];
  for (let key = queue.shift(); key !== undefined && key !== to; key = queue.shift())
    for (const piece of copper) {
      const next = piece.from === key ? piece.to : piece.to === key ? piece.from : null;
      if (next === null || before.has(next)) continue;
      before.set(next, { key, wireId: piece.wireId });
      queue.push(next);
    }
  const wireIds = new Set<string>();
  for (let at = before.get(to); at; at = before.get(at.key)) wireIds.add(at.wireId);
  return wireIds;
}
