import type { Colour } from '../../model';
import type { LoomPlan, PlannedWire } from '../../plan';
import { pushTo } from '../../units';
import type { Strip } from './createStrips';
import { columnKey, laneWidth, toX, type Row, type StripDrawing } from './stripDrawing';

export interface StripTrace {
  id: string;
  wireIds: string[];
  colour: Colour | null;
  width: number;
  d: string;
  /** wires in it where it is a folded branch, else 1 */
  count: number;
}

interface Visit {
  row: Row;
  laneIndex: number;
  fromMm: number;
  toMm: number;
}

/** The wires of a strip as lines; those of a folded branch are one. */
export function listTraces(drawing: StripDrawing): StripTrace[] {
  const { plan, options, rows } = drawing;
  const visits = new Map<string, Visit[]>();
  const widths = new Map<string, number>();
  for (const row of rows.values()) {
    row.strip.lanes.forEach((lane, laneIndex) => {
      for (const wireId of lane.wireIds) {
        const pieces = plan.wires.length ? wireSpan(drawing, wireId, row.strip) : null;
        if (!pieces) continue;
        pushTo(visits, wireId, { row, laneIndex, ...pieces });
        if (lane.foldedTo !== null) widths.set(wireId, laneWidth(lane, options.pitch));
      }
    });
  }
  const traces: StripTrace[] = [];
  const drawnFolds = new Map<string, StripTrace>();
  for (const wire of plan.wires) {
    const way = visits.get(wire.id);
    if (!way) continue;
    const foldKey = listFoldKey(way);
    const known = foldKey === null ? undefined : drawnFolds.get(foldKey);
    if (known) {
      known.wireIds.push(wire.id);
      known.count += 1;
      continue;
    }
    const trace: StripTrace = {
      id: wire.id,
      wireIds: [wire.id],
      colour: foldKey === null ? wire.colour : null,
      width: foldKey === null ? options.pitch * 0.66 : widths.get(wire.id)!,
      d: toPath(drawing, wire, way),
      count: 1,
    };
    if (foldKey !== null) drawnFolds.set(foldKey, trace);
    traces.push(trace);
  }
  return traces;
}

/** Wires that are one thick line share a key: the lanes they pass. */
function listFoldKey(way: readonly Visit[]): string | null {
  const folded = way.find(({ row, laneIndex }) => row.strip.lanes[laneIndex]!.foldedTo !== null);
  return folded ? way.map(({ row, laneIndex }) => `${row.strip.id} ${laneIndex}`).join(' · ') : null;
}

function wireSpan(drawing: StripDrawing, wireId: string, strip: Strip): { fromMm: number; toMm: number } | null {
  const wire = wiresOf(drawing).get(wireId)!;
  const inside = wire.pieces.filter(({ segmentId }) => strip.segmentIds.includes(segmentId));
  if (inside.length === 0) return null;
  if (strip.folded) return { fromMm: strip.startMm, toMm: strip.endMm };
  const at = inside.map(({ segmentId, fromMm, toMm }) => {
    const { startMm } = drawing.plan.tree.segments[segmentId]!;
    return { fromMm: startMm + fromMm, toMm: startMm + toMm };
  });
  return { fromMm: Math.min(...at.map((one) => one.fromMm)), toMm: Math.max(...at.map((one) => one.toMm)) };
}

const wireMaps = new WeakMap<LoomPlan, Map<string, PlannedWire>>();
function wiresOf({ plan }: StripDrawing): Map<string, PlannedWire> {
  let map = wireMaps.get(plan);
  if (!map) {
    map = new Map(plan.wires.map((wire) => [wire.id, wire]));
    wireMaps.set(plan, map);
  }
  return map;
}

/** Lines along the strips a wire lies in, joined by a drop with round corners at every branch. */
function toPath({ options, columns, parents }: StripDrawing, wire: PlannedWire, way: readonly Visit[]): string {
  const inOrder = [...way].sort((a, b) => a.row.top - b.row.top);
  const points: [number, number][] = [];
  const byStrip = new Map(inOrder.map((visit) => [visit.row.strip.id, visit]));
  const parentOf = (visit: Visit) => parents.get(visit.row.strip.id);
  const chain = toChain(inOrder, byStrip, parentOf);
  chain.forEach((visit, index) => {
    const y = visit.row.ys[visit.laneIndex]!;
    const next = chain[index + 1];
    const before = chain[index - 1];
    const enter = before ? drop(before, visit) : toX(options, towards(visit, next) === 'right' ? visit.fromMm : visit.toMm);
    const leave = next ? drop(visit, next) : toX(options, before && isParent(visit, before) ? visit.fromMm : visit.toMm);
    points.push([enter, y], [leave, y]);
  });
  return roundCorners(points, options.pitch * 2);

  function isParent(visit: Visit, of: Visit): boolean {
    return parents.get(of.row.strip.id) === visit.row.strip.id && Math.abs(visit.toMm - of.row.strip.startMm) < 1e-6;
  }
  function towards(visit: Visit, next: Visit | undefined): 'left' | 'right' {
    return next && Math.abs(visit.fromMm - next.row.strip.startMm) < 1e-6 && parents.get(next.row.strip.id) === visit.row.strip.id
      ? 'left'
      : 'right';
  }
  function drop(a: Visit, b: Visit): number {
    const child = parents.get(a.row.strip.id) === b.row.strip.id ? a : b;
    return columns.get(columnKey(child.row.strip, child.laneIndex)) ?? toX(options, child.fromMm);
  }
}

/** Visits in the order of the way: up from one branch, along, down into another. */
function toChain(inOrder: readonly Visit[], byStrip: ReadonlyMap<string, Visit>, parentOf: (visit: Visit) => string | undefined): Visit[] {
  const isLeaf = (visit: Visit) => !inOrder.some((other) => parentOf(other) === visit.row.strip.id);
  const climb = (visit: Visit): Visit[] => {
    const parent = parentOf(visit);
    const up = parent === undefined ? undefined : byStrip.get(parent);
    return up ? [visit, ...climb(up)] : [visit];
  };
  const leaves = inOrder.filter(isLeaf);
  const [one, other] = leaves;
  if (!one) return [];
  if (!other) return climb(one).reverse();
  const down = climb(other);
  const up = climb(one).filter((visit) => !down.includes(visit));
  const meeting = climb(one).find((visit) => down.includes(visit));
  return [...up, ...(meeting ? down.slice(0, down.indexOf(meeting) + 1).reverse() : down.reverse())];
}

function roundCorners(points: readonly [number, number][], radius: number): string {
  const kept = points.filter(
    ([x, y], index) => index === 0 || Math.abs(x - points[index - 1]![0]) + Math.abs(y - points[index - 1]![1]) > 0.01,
  );
  let d = '';
  kept.forEach(([x, y], index) => {
    const before = kept[index - 1];
    const after = kept[index + 1];
    if (!before) d += `M${fmt(x)} ${fmt(y)}`;
    else if (!after) d += `L${fmt(x)} ${fmt(y)}`;
    else {
      const inLength = Math.hypot(x - before[0], y - before[1]);
      const outLength = Math.hypot(after[0] - x, after[1] - y);
      const r = Math.min(radius, inLength / 2, outLength / 2);
      const from = [x - ((x - before[0]) / inLength) * r, y - ((y - before[1]) / inLength) * r] as const;
      const to = [x + ((after[0] - x) / outLength) * r, y + ((after[1] - y) / outLength) * r] as const;
      d += `L${fmt(from[0])} ${fmt(from[1])}Q${fmt(x)} ${fmt(y)} ${fmt(to[0])} ${fmt(to[1])}`;
    }
  });
  return d;
}

const fmt = (value: number) => String(Math.round(value * 100) / 100);
