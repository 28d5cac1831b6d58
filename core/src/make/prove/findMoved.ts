import type { Seen } from './createSeen';
import type { LoomFault, Move, MovedAt } from './faultTypes';
import { toProbe, toProbeKey, type ProvedEnd, type ProvedNet, type RingOut } from './types';

/** Contacts of an end that changed places among themselves, and the nets that this would put right. */
interface Chain extends MovedAt {
  netIds: string[];
}

type Moved = Extract<LoomFault, { kind: 'exchanged' | 'turned' | 'mirrored' | 'astray' }>;

/**
 * Contacts in the wrong cavities: what of a net is missing at an end, and what else of that end is joined with the rest of it. A chain of such
 * moves counts only where putting it right puts right every net that it touches; the end that explains most comes first, and ends that explain
 * the same are named beside it, for nothing that a tester reads tells them apart.
 */
export function findMoved(ringOut: RingOut, seen: Seen): Moved[] {
  const broken = ringOut.nets.filter(
    ({ id, probes }) => seen.isRead(id) && new Set(probes.map((probe) => seen.partOf(toProbeKey(probe)))).size > 1,
  );
  const ends = new Set(broken.flatMap(({ probes }) => probes.map(({ endId }) => endId)));
  const ofEnd = ringOut.ends
    .filter(({ id, hasCavities }) => hasCavities && ends.has(id))
    .map((end) => ({ end, chains: listChains(ringOut, broken, end, seen) }));
  const left = new Set(ofEnd.flatMap(({ chains }) => chains.flatMap(({ netIds }) => netIds)));
  const found: Moved[] = [];
  while (left.size > 0) {
    const usable = ofEnd.map(({ end, chains }) => ({ end, chains: chains.filter(({ netIds }) => netIds.every((id) => left.has(id))) }));
    const count = (chains: readonly Chain[]) => chains.reduce((sum, { netIds }) => sum + netIds.length, 0);
    const [best, ...others] = usable.filter(({ chains }) => chains.length > 0).sort((a, b) => count(b.chains) - count(a.chains));
    if (!best) break;
    for (const fault of toPatterns(best.end, best.chains)) {
      fault.or = others.flatMap(({ chains }) => toSame(chains, fault.netIds));
      found.push(fault);
    }
    for (const { netIds } of best.chains) for (const id of netIds) left.delete(id);
  }
  return found;
}

/** Chains of an end that touch exactly these nets. */
function toSame(chains: readonly Chain[], netIds: readonly string[]): MovedAt[] {
  const of = chains.filter((chain) => chain.netIds.every((id) => netIds.includes(id)));
  const nets = new Set(of.flatMap((chain) => chain.netIds));
  return nets.size === netIds.length ? [{ endId: of[0]!.endId, moves: of.flatMap(({ moves }) => moves) }] : [];
}

function listChains(ringOut: RingOut, broken: readonly ProvedNet[], { id: endId, empty }: ProvedEnd, seen: Seen): Chain[] {
  const netOf = new Map(ringOut.nets.flatMap((net) => net.probes.map((probe) => [toProbeKey(probe), net])));
  const sits = new Map<string, string>();
  for (const net of broken) {
    const keys = net.probes.map(toProbeKey);
    for (const key of keys.filter((one) => toProbe(one).endId === endId)) {
      const sizeOf = (part: string) => keys.filter((one) => seen.partOf(one) === part).length;
      const own = seen.partOf(key);
      for (const part of new Set(keys.map(seen.partOf))) {
        if (part === own || sizeOf(part) < sizeOf(own)) continue;
        const found = seen
          .listPart(part)
          .find(
            (one) =>
              toProbe(one).endId === endId && (netOf.get(one) ?? null) !== net && (netOf.has(one) || empty.includes(toProbe(one).cavity)),
          );
        if (found) sits.set(key, found);
      }
    }
  }
  const taken = new Set<string>();
  const chains: Chain[] = [];
  // chains that end in an empty cavity begin where nothing sits; the others are closed
  const landed = new Set(sits.values());
  for (const start of [...[...sits.keys()].filter((key) => !landed.has(key)), ...sits.keys()]) {
    const moves: Move[] = [];
    let key: string | undefined = start;
    while (key !== undefined && sits.has(key) && !taken.has(key)) {
      taken.add(key);
      const next: string = sits.get(key)!;
      moves.push([toProbe(key).cavity, toProbe(next).cavity]);
      key = next;
    }
    const netIds = [...new Set(moves.map(([cavity]) => netOf.get(`${endId} ${cavity}`)!.id))];
    const isWhole = key !== undefined && (key === start || !netOf.has(key));
    if (moves.length > 0 && isWhole && isRight(ringOut, seen, endId, moves, netIds)) chains.push({ endId, moves, netIds });
  }
  return chains;
}

/** Would each of the nets be whole, and by itself, with the contacts where they belong? */
function isRight({ nets }: RingOut, seen: Seen, endId: string, moves: readonly Move[], netIds: readonly string[]): boolean {
  const sits = new Map(moves.map(([belongs, at]) => [`${endId} ${belongs}`, `${endId} ${at}`]));
  const partOf = (key: string) => seen.partOf(sits.get(key) ?? key);
  const parts = new Map<string, string>();
  for (const id of netIds) {
    const keys = nets.find((net) => net.id === id)!.probes.map(toProbeKey);
    const [first, ...others] = new Set(keys.map(partOf));
    if (others.length > 0 || parts.has(first!)) return false;
    parts.set(first!, id);
  }
  return true;
}

function toPatterns(end: ProvedEnd, chains: readonly Chain[]): Moved[] {
  const place = (cavity: string) => end.cavities.indexOf(cavity);
  const all = chains.flatMap(({ moves }) => moves).sort(([a], [b]) => place(a) - place(b));
  const order = all.map(([cavity]) => cavity);
  const steps = all.map(([, sits], at) => order.indexOf(sits) - at);
  const size = order.length;
  const netIds = [...new Set(chains.flatMap((chain) => chain.netIds))];
  const isClosed = all.every(([, sits]) => order.includes(sits));
  if (isClosed && size > 2 && new Set(steps.map((step) => (step + size) % size)).size === 1) {
    const by = (steps[0]! + size) % size;
    return [{ kind: 'turned', endId: end.id, moves: all, netIds, or: [], by: by > size / 2 ? by - size : by }];
  }
  if (isClosed && size > 3 && steps.every((step, at) => step + at === size - 1 - at))
    return [{ kind: 'mirrored', endId: end.id, moves: all, netIds, or: [] }];
  return chains.map(({ moves, netIds: of, endId }) => {
    const isExchange = moves.length === 2 && moves[0]![1] === moves[1]![0] && moves[1]![1] === moves[0]![0];
    // an exchange is said in the order of the face, wherever its chain began
    const told = isExchange ? [...moves].sort(([a], [b]) => place(a) - place(b)) : moves;
    return { kind: isExchange ? 'exchanged' : 'astray', endId, moves: told, netIds: of, or: [] };
  });
}
