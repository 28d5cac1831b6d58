import type { LoomPlan, PlannedWire } from '../../plan';
import { compareIds, pushTo } from '../../units';

/** On which side of its trunk a branch is drawn. */
export type Side = 'above' | 'below';

/** A stretch of loom drawn along one line: from a breakout (or the datum) by its onward segments to an end. */
export interface Strip {
  /** its first segment */
  id: string;
  startNodeId: string;
  startMm: number;
  endMm: number;
  segmentIds: string[];
  /** strips that leave this one, in the order they are drawn away from it: later breakouts first */
  children: Strip[];
  /** wires in it, those that follow each other over splices together */
  spans: Span[];
}

/** Wires of a strip that are drawn along one line. */
export interface Span {
  wireIds: string[];
  fromMm: number;
  toMm: number;
  /** the child strip that it leaves to, and its place among the spans there */
  leaves: { stripId: string; order: number } | null;
}

/** A span at its place: level 0 lies innermost, each side counts from there outwards. */
export interface Lane extends Span {
  side: Side;
  level: number;
}

type Lying = ReadonlyMap<string, { wireId: string; fromMm: number; toMm: number }[]>;

const known = new WeakMap<LoomPlan, readonly Strip[]>();

/** The strips of a loom with what lies in them; made once for a plan, however often it is fitted and laid out. */
export function createStrips(plan: LoomPlan): readonly Strip[] {
  let strips = known.get(plan);
  if (!strips) known.set(plan, (strips = buildStrips(plan)));
  return strips;
}

function buildStrips(plan: LoomPlan): Strip[] {
  const { tree } = plan;
  const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
  const lying = listLying(plan);
  const build = (segmentId: string): Strip => {
    const segmentIds = [segmentId];
    const branches: string[][] = [];
    let node = tree.nodes[tree.segments[segmentId]!.farNodeId]!;
    while (node.childSegmentIds.length) {
      const [onward, ...others] = node.childSegmentIds;
      if (others.length) branches.push(others);
      segmentIds.push(onward!);
      node = tree.nodes[tree.segments[onward!]!.farNodeId]!;
    }
    const children = branches.reverse().flatMap((ids) => [...ids].sort(compareIds).map(build));
    const { startMm, nearNodeId } = tree.segments[segmentId]!;
    return {
      id: segmentId,
      startNodeId: nearNodeId,
      startMm,
      endMm: node.distanceMm,
      segmentIds,
      children,
      spans: createSpans(segmentIds, children, lying, wires),
    };
  };
  return tree.nodes[tree.datumId]!.childSegmentIds.map(build);
}

function listLying(plan: LoomPlan): Lying {
  const lying = new Map<string, { wireId: string; fromMm: number; toMm: number }[]>();
  for (const wire of plan.wires) {
    for (const { segmentId, fromMm, toMm } of wire.pieces) {
      const { startMm } = plan.tree.segments[segmentId]!;
      pushTo(lying, segmentId, { wireId: wire.id, fromMm: startMm + fromMm, toMm: startMm + toMm });
    }
  }
  return lying;
}

interface WireSpan extends Omit<Span, 'wireIds'> {
  wireId: string;
}

function createSpans(
  segmentIds: readonly string[],
  children: readonly Strip[],
  lying: Lying,
  wires: ReadonlyMap<string, PlannedWire>,
): Span[] {
  const spans = new Map<string, WireSpan>();
  for (const segmentId of segmentIds) {
    for (const { wireId, fromMm, toMm } of lying.get(segmentId) ?? []) {
      const span = spans.get(wireId);
      if (!span) spans.set(wireId, { wireId, fromMm, toMm, leaves: null });
      else {
        span.fromMm = Math.min(span.fromMm, fromMm);
        span.toMm = Math.max(span.toMm, toMm);
      }
    }
  }
  for (const child of children)
    child.spans.forEach(({ wireIds }, order) => {
      for (const wireId of wireIds) {
        const span = spans.get(wireId);
        if (span && Math.abs(span.toMm - child.startMm) < 1e-6) span.leaves = { stripId: child.id, order };
      }
    });
  return sortSpans(joinSpans([...spans.values()], wires), children);
}

/** What goes furthest first; of what leaves at one breakout in the order of its strips, so that no two cross as they leave. */
function sortSpans(spans: Span[], children: readonly Strip[]): Span[] {
  const places = new Map(children.map(({ id }, place) => [id, place]));
  const weigh = ({ leaves }: Span) => (leaves === null ? -1 : places.get(leaves.stripId)! * 10_000 + leaves.order);
  return spans.sort((a, b) => b.toMm - a.toMm || weigh(a) - weigh(b) || compareIds(a.wireIds.at(-1)!, b.wireIds.at(-1)!));
}

/** Over a splice the wire that goes furthest goes on in the line of the one that arrives. */
function joinSpans(spans: readonly WireSpan[], wires: ReadonlyMap<string, PlannedWire>): Span[] {
  const outOf = new Map<string, WireSpan[]>();
  for (const span of spans) {
    const { from } = wires.get(span.wireId)!;
    if (from.kind === 'splice') pushTo(outOf, from.spliceId, span);
  }
  const follows = new Map<string, WireSpan>();
  const followed = new Set<string>();
  for (const span of spans) {
    const { to } = wires.get(span.wireId)!;
    if (to.kind !== 'splice') continue;
    const next = (outOf.get(to.spliceId) ?? [])
      .filter((one) => one.fromMm >= span.toMm - 1e-6 && !followed.has(one.wireId))
      .sort((a, b) => b.toMm - a.toMm)[0];
    if (!next) continue;
    follows.set(span.wireId, next);
    followed.add(next.wireId);
  }
  return spans
    .filter(({ wireId }) => !followed.has(wireId))
    .map((first) => {
      const chain = [first];
      for (let next = follows.get(first.wireId); next; next = follows.get(next.wireId)) chain.push(next);
      return {
        wireIds: chain.map(({ wireId }) => wireId),
        fromMm: Math.min(...chain.map(({ fromMm }) => fromMm)),
        toMm: Math.max(...chain.map(({ toMm }) => toMm)),
        leaves: chain.at(-1)!.leaves,
      };
    });
}

const outward = new WeakMap<Strip, readonly Lane[]>();

/** The lanes of a branch, which lie outwards whatever the side it is drawn on; made once. */
export function toOutwardLanes(branch: Strip): readonly Lane[] {
  let lanes = outward.get(branch);
  if (!lanes) outward.set(branch, (lanes = toLanes(branch, () => 'below')));
  return lanes;
}

/**
 * The spans of a strip in lanes, as few as can be: a span lies just outside of all that pass the place where it leaves, so that it crosses
 * none of them there. sideOf: by child strip.
 */
export function toLanes({ spans }: Strip, sideOf: (stripId: string) => Side): Lane[] {
  const starts: Record<Side, number[]> = { above: [], below: [] };
  return spans.map((span) => {
    const side = span.leaves ? sideOf(span.leaves.stripId) : 'below';
    const begins = starts[side];
    let level = begins.length;
    while (level > 0 && begins[level - 1]! >= span.toMm - 1e-6) level -= 1;
    begins[level] = Math.min(begins[level] ?? Infinity, span.fromMm);
    return { ...span, side, level };
  });
}
