import { pushTo } from '../../units';
import { isOfOneEnd, toPair, type Seen } from './createSeen';
import { toPairId } from './listIsolation';
import { toProbe, toProbeKey, type ProofTest, type ProvedNet, type RingOut } from './types';

/** A part of a net: probes that were found joined, the first of them speaks for all. */
interface Part {
  netId: string;
  name: string;
  probes: readonly string[];
}

/** A measurement that no table lists, by the name of its reading; null: the name is not of two probes. */
export function toUnlisted(id: string): ProofTest | null {
  const pair = toPair(id);
  return pair && toSeek('', ...pair);
}

/** A measurement between two probes that no table asks for. */
export function toSeek(netId: string, a: string, b: string): ProofTest {
  const [from, to] = [toProbe(a), toProbe(b)];
  return {
    ...{ id: toPairId(from, to), kind: 'seek', netId, from, to, wires: [] },
    ...{ unit: 'Ω', atA: null, expected: null, least: null, most: null },
  };
}

/**
 * The measurements without which nothing can be said, the likeliest first: what is left of an open net, and which of the nets that are not
 * isolated touch. What is found makes others needless: list anew.
 */
export function listSeeks(ringOut: RingOut, seen: Seen): ProofTest[] {
  const read = ringOut.nets.filter(({ id }) => seen.isRead(id));
  const within = read.flatMap((net) => seekWithin(net, seen));
  if (within.length > 0) return within;
  return seekAcross(
    ringOut,
    read.filter(({ id }) => seen.isIsolated(id) === false),
    seen,
  );
}

/** Does a wire that goes nowhere sit in a cavity that is to stay empty? */
export const seekStray = (ringOut: RingOut, seen: Seen): ProofTest[] =>
  ringOut.nets.flatMap((net) => (seen.isRead(net.id) && seen.isIsolated(net.id) ? seekEmpty(ringOut, net, seen) : []));

const listParts = ({ id, probes }: ProvedNet, seen: Seen): Part[] => {
  const parts = new Map<string, string[]>();
  for (const key of probes.map(toProbeKey)) parts.set(seen.partOf(key), [...(parts.get(seen.partOf(key)) ?? []), key]);
  return [...parts].map(([name, of]) => ({ netId: id, name, probes: of }));
};

/** Which of the pins of a net are joined with each other, where not all are. */
function seekWithin(net: ProvedNet, seen: Seen): ProofTest[] {
  const parts = listParts(net, seen);
  return parts.flatMap((one, at) =>
    parts.slice(at + 1).flatMap((other) => (seen.isApart(one.name, other.name) ? [] : [toSeek(net.id, one.probes[0]!, other.probes[0]!)])),
  );
}

function seekAcross(ringOut: RingOut, nets: readonly ProvedNet[], seen: Seen): ProofTest[] {
  const parts = nets.flatMap((net) => listParts(net, seen));
  const netOf = new Map(nets.flatMap(({ id, probes }) => probes.map((probe) => [toProbeKey(probe), id])));
  const isExplained = ({ netId, name }: Part) =>
    seen.listPart(name).some((key) => netOf.get(key) !== undefined && netOf.get(key) !== netId);
  const lost = new Set(parts.filter((part) => !isExplained(part)));
  const shifts = createShifts(ringOut, parts);
  const found = new Set(
    parts.flatMap((one) => parts.flatMap((other) => (one.netId !== other.netId && one.name === other.name ? shifts(one, other) : []))),
  );
  const seeks = parts.flatMap((one, at) =>
    parts.slice(at + 1).flatMap((other) => {
      if (one.netId === other.netId || one.name === other.name || seen.isApart(one.name, other.name)) return [];
      if (!lost.has(one) && !lost.has(other)) return [];
      const [a, b] = nearest(one.probes, other.probes);
      const ways = shifts(one, other);
      const rank = ways.some((way) => found.has(way)) ? 0 : Math.min(...ways.map(toDistance), isOfOneEnd(a, b) ? NEAR : FAR);
      return [{ seek: toSeek(one.netId, a, b), rank }];
    }),
  );
  return seeks.sort((a, b) => a.rank - b.rank).map(({ seek }) => seek);
}

/** what touches at one end is likelier than what was exchanged over so many cavities; what shares no end comes last */
const NEAR = 2;
const FAR = 1000;

const toDistance = (way: string): number => Math.abs(Number(way.slice(way.indexOf(' ') + 1)));

/**
 * How many cavities further on, at which end, a contact would have to sit for two parts of different nets to be joined by it: a row that was
 * turned moves all of its contacts alike, and a slip is between neighbours.
 */
function createShifts({ ends }: RingOut, parts: readonly Part[]): (one: Part, other: Part) => string[] {
  const place = new Map(ends.flatMap(({ id, cavities }) => cavities.map((cavity, at) => [`${id} ${cavity}`, at])));
  const ofNet = new Map<string, Part[]>();
  for (const part of parts) pushTo(ofNet, part.netId, part);
  // a contact that is missed in the first part, and sits where the second has one
  const shift = (part: Part, sits: Part): string[] =>
    ofNet
      .get(part.netId)!
      .flatMap((missed) =>
        missed === part
          ? []
          : missed.probes.flatMap((key) =>
              sits.probes.flatMap((at) => (isOfOneEnd(key, at) ? [`${toProbe(key).endId} ${place.get(at)! - place.get(key)!}`] : [])),
            ),
      );
  return (one, other) => [...shift(one, other), ...shift(other, one)];
}

/** Two probes at one end, where there are. */
function nearest(some: readonly string[], others: readonly string[]): [string, string] {
  for (const a of some) for (const b of others) if (isOfOneEnd(a, b)) return [a, b];
  return [some[0]!, others[0]!];
}

/** Does a wire that reaches nothing sit where nothing belongs, at the end where it is missed? */
function seekEmpty({ ends }: RingOut, net: ProvedNet, seen: Seen): ProofTest[] {
  const parts = listParts(net, seen);
  const isFound = parts.some(({ name }) => seen.listPart(name).length > parts.find((part) => part.name === name)!.probes.length);
  if (parts.length < 2 || isFound) return [];
  return parts.flatMap((missed) => {
    if (missed.probes.length > 1) return [];
    const { endId, cavity } = toProbe(missed.probes[0]!);
    const end = ends.find(({ id }) => id === endId)!;
    const place = (name: string) => Math.abs(end.cavities.indexOf(name) - end.cavities.indexOf(cavity));
    const empty = [...end.empty].sort((a, b) => place(a) - place(b)).map((name) => `${endId} ${name}`);
    return parts.flatMap((part) =>
      part === missed
        ? []
        : empty.flatMap((key) => {
            const [at] = part.probes;
            return seen.between(at!, key) === undefined && !seen.isApart(part.name, seen.partOf(key)) ? [toSeek(net.id, at!, key)] : [];
          }),
    );
  });
}

/** Two nets that touch: where least lies between them. */
export function seekNearest(one: ProvedNet, other: ProvedNet, seen: Seen): ProofTest[] {
  return listShared(one, other).flatMap(([a, b]) => (seen.between(a, b) === undefined ? [toSeek(one.id, a, b)] : []));
}

/** A probe of each of two nets for every end that both come to. */
export function listShared(one: ProvedNet, other: ProvedNet): [string, string][] {
  const seenEnds = new Set<string>();
  return one.probes.flatMap((a) => {
    const b = other.probes.find(({ endId }) => endId === a.endId);
    if (!b || seenEnds.has(a.endId)) return [];
    seenEnds.add(a.endId);
    return [[toProbeKey(a), toProbeKey(b)] as [string, string]];
  });
}
