import type { Loom } from '../../model';
import type { LoomPlan, PlannedWire } from '../../plan';
import { compareIds, pushTo } from '../../units';

/** A stretch of loom drawn along one line: from a breakout (or the datum) by its onward segments to an end. */
export interface Strip {
  /** its first segment */
  id: string;
  startNodeId: string;
  startMm: number;
  endMm: number;
  segmentIds: string[];
  /** strips that leave this one, in the order they are drawn below it: later breakouts first */
  children: Strip[];
  /** lanes from the top: what goes furthest lies highest, what leaves first lies lowest */
  lanes: Lane[];
  folded: boolean;
}

/** One line of a strip: a wire, wires of one circuit that follow each other over splices, or all of a folded branch. */
export interface Lane {
  wireIds: string[];
  /** folded branch that all of it goes to, or null */
  foldedTo: string | null;
  fromMm: number;
  toMm: number;
}

interface Span {
  wireId: string;
  fromMm: number;
  toMm: number;
  /** the child strip it leaves to, and its lane there */
  leaves: { childIndex: number; laneIndex: number; folded: string | null } | null;
}

type Lying = ReadonlyMap<string, { wire: PlannedWire; fromMm: number; toMm: number }[]>;

/** The strips of a loom with their lanes in an order that lets every branch peel off without crossing. */
export function createStrips(loom: Loom, plan: LoomPlan, folded: ReadonlySet<string>): Strip[] {
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
    const isFolded = folded.has(segmentId);
    const children = isFolded ? [] : branches.reverse().flatMap((ids) => [...ids].sort(compareIds).map(build));
    const { startMm, nearNodeId } = tree.segments[segmentId]!;
    const strip: Strip = {
      id: segmentId,
      startNodeId: nearNodeId,
      startMm,
      endMm: node.distanceMm,
      segmentIds,
      children,
      lanes: [],
      folded: isFolded,
    };
    strip.lanes = isFolded ? createFoldedLanes(strip, lying) : createLanes(strip, lying, wires);
    return strip;
  };
  return tree.nodes[tree.datumId]!.childSegmentIds.map(build);
}

function listLying(plan: LoomPlan): Lying {
  const lying = new Map<string, { wire: PlannedWire; fromMm: number; toMm: number }[]>();
  for (const wire of plan.wires) {
    for (const { segmentId, fromMm, toMm } of wire.pieces) {
      const { startMm } = plan.tree.segments[segmentId]!;
      const one = { wire, fromMm: startMm + fromMm, toMm: startMm + toMm };
      const list = lying.get(segmentId);
      if (list) list.push(one);
      else lying.set(segmentId, [one]);
    }
  }
  return lying;
}

function createFoldedLanes(strip: Strip, lying: Lying): Lane[] {
  const wireIds = (lying.get(strip.id) ?? []).map(({ wire }) => wire.id);
  return wireIds.length ? [{ wireIds, foldedTo: strip.id, fromMm: strip.startMm, toMm: strip.endMm }] : [];
}

function createLanes(strip: Strip, lying: Lying, wires: ReadonlyMap<string, PlannedWire>): Lane[] {
  const spans = new Map<string, Span>();
  for (const segmentId of strip.segmentIds) {
    for (const { wire, fromMm, toMm } of lying.get(segmentId) ?? []) {
      const span = spans.get(wire.id);
      spans.set(wire.id, {
        wireId: wire.id,
        fromMm: Math.min(span?.fromMm ?? fromMm, fromMm),
        toMm: Math.max(span?.toMm ?? toMm, toMm),
        leaves: null,
      });
    }
  }
  strip.children.forEach((child, childIndex) =>
    child.lanes.forEach((lane, laneIndex) => {
      for (const wireId of lane.wireIds) {
        const span = spans.get(wireId);
        if (span && Math.abs(span.toMm - child.startMm) < 1e-6)
          spans.set(wireId, { ...span, leaves: { childIndex, laneIndex, folded: lane.foldedTo } });
      }
    }),
  );
  const lanes = joinSpans([...spans.values()], wires);
  const weigh = ({ leaves }: Span) => (leaves === null ? -1 : leaves.childIndex * 10_000 + leaves.laneIndex);
  lanes.sort((a, b) => b.last.toMm - a.last.toMm || weigh(a.last) - weigh(b.last) || compareIds(a.last.wireId, b.last.wireId));
  return lanes.map(({ lane }) => lane);
}

/** Spans to lanes: over a splice the wire that goes furthest goes on in the lane of the one that arrives; a folded branch is one lane. */
function joinSpans(spans: readonly Span[], wires: ReadonlyMap<string, PlannedWire>): { lane: Lane; last: Span }[] {
  const outOf = new Map<string, Span[]>();
  const groups = new Map<string, Span[]>();
  const single: Span[] = [];
  for (const span of spans) {
    const folded = span.leaves?.folded ?? null;
    if (folded !== null) {
      pushTo(groups, folded, span);
      continue;
    }
    single.push(span);
    const { from } = wires.get(span.wireId)!;
    if (from.kind === 'splice') pushTo(outOf, from.spliceId, span);
  }
  const follows = new Map<string, Span>();
  const followed = new Set<string>();
  for (const span of single) {
    const { to } = wires.get(span.wireId)!;
    if (to.kind !== 'splice') continue;
    const next = (outOf.get(to.spliceId) ?? [])
      .filter((one) => one.fromMm >= span.toMm - 1e-6 && !followed.has(one.wireId))
      .sort((a, b) => b.toMm - a.toMm)[0];
    if (!next) continue;
    follows.set(span.wireId, next);
    followed.add(next.wireId);
  }
  const chains = single
    .filter(({ wireId }) => !followed.has(wireId))
    .map((first) => {
      const chain = [first];
      for (let next = follows.get(first.wireId); next; next = follows.get(next.wireId)) chain.push(next);
      return { lane: toLane(chain, null), last: chain.at(-1)! };
    });
  return [...chains, ...[...groups].map(([id, group]) => ({ lane: toLane(group, id), last: group[0]! }))];
}

function toLane(spans: readonly Span[], foldedTo: string | null): Lane {
  return {
    wireIds: spans.map(({ wireId }) => wireId),
    foldedTo,
    fromMm: Math.min(...spans.map(({ fromMm }) => fromMm)),
    toMm: Math.max(...spans.map(({ toMm }) => toMm)),
  };
}
