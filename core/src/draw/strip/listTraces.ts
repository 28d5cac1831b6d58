import type { Colour } from '../../model';
import type { PlannedWire } from '../../plan';
import { pushTo } from '../../units';
import { columnKey, toWireWidth, toX, type Row, type StripDrawing } from './stripDrawing';

export interface StripTrace {
  wireId: string;
  colour: Colour;
  /** one line, or one for each strip where they are drawn with wires of different widths */
  parts: TracePart[];
}

export interface TracePart {
  width: number;
  d: string;
}

interface Visit {
  row: Row;
  laneIndex: number;
  fromMm: number;
  toMm: number;
}

/** The wires of a strip as lines. */
export function listTraces(drawing: StripDrawing): StripTrace[] {
  const find = createVisitFinder(drawing);
  return drawing.plan.wires.flatMap((wire) => {
    const way = find(wire);
    return way.length ? [{ wireId: wire.id, colour: wire.colour, parts: toParts(drawing, way) }] : [];
  });
}

function createVisitFinder({ plan, rows }: StripDrawing): (wire: PlannedWire) => Visit[] {
  const rowOf = new Map<string, Row>();
  const laneOf = new Map<string, { row: Row; laneIndex: number }[]>();
  for (const row of rows.values()) {
    for (const id of row.strip.segmentIds) rowOf.set(id, row);
    row.lanes.forEach(({ wireIds }, laneIndex) => wireIds.forEach((id) => pushTo(laneOf, id, { row, laneIndex })));
  }
  return ({ id, pieces }) => {
    const spans = new Map<Row, [number, number]>();
    for (const { segmentId, fromMm, toMm } of pieces) {
      const row = rowOf.get(segmentId)!;
      const { startMm } = plan.tree.segments[segmentId]!;
      const [from, to] = spans.get(row) ?? [Infinity, -Infinity];
      spans.set(row, [Math.min(from, startMm + fromMm), Math.max(to, startMm + toMm)]);
    }
    return (laneOf.get(id) ?? []).flatMap(({ row, laneIndex }) => {
      const span = spans.get(row);
      return span ? [{ row, laneIndex, fromMm: span[0], toMm: span[1] }] : [];
    });
  };
}

/** Lines along the strips a wire lies in, joined by a drop with round corners at every branch. */
function toParts(drawing: StripDrawing, way: readonly Visit[]): TracePart[] {
  const { options, columns, parents } = drawing;
  const chain = toChain(way, parents);
  const isParent = (visit: Visit, of: Visit) => parents.get(of.row.strip.id) === visit.row.strip.id;
  const drop = (a: Visit, b: Visit) => {
    const child = isParent(b, a) ? a : b;
    return columns.get(columnKey(child.row.strip, child.laneIndex)) ?? toX(options, child.fromMm);
  };
  const lines = chain.map((visit, index) => {
    const y = visit.row.ys[visit.laneIndex]!;
    const next = chain[index + 1];
    const before = chain[index - 1];
    const goesBack = next && isParent(visit, next) && Math.abs(visit.fromMm - next.row.strip.startMm) < 1e-6;
    const cameBack = before && isParent(visit, before) && Math.abs(visit.toMm - before.row.strip.startMm) < 1e-6;
    const enter = before ? drop(before, visit) : toX(options, goesBack ? visit.toMm : visit.fromMm);
    const leave = next ? drop(visit, next) : toX(options, cameBack ? visit.fromMm : visit.toMm);
    return { visit, points: [[enter, y] as Point, [leave, y] as Point], width: toWireWidth(visit.row.pitch) };
  });
  const radius = Math.min(options.detail.pitch * 2, options.row / 2);
  if (lines.every(({ width }) => width === lines[0]!.width))
    return [
      {
        width: lines[0]!.width,
        d: roundCorners(
          lines.flatMap(({ points }) => points),
          radius,
        ),
      },
    ];
  // the drop is drawn as wide as in the branch that it leads to
  lines.forEach((line, index) => {
    const next = lines[index + 1];
    if (!next) return;
    if (isParent(line.visit, next.visit)) next.points.unshift(line.points.at(-1)!);
    else line.points.push(next.points[0]!);
  });
  return lines.map(({ points, width }) => ({ width, d: roundCorners(points, radius) }));
}

type Point = readonly [number, number];

/** Visits in the order of the way: up from one branch, along, down into another. */
function toChain(way: readonly Visit[], parents: ReadonlyMap<string, string>): Visit[] {
  const byStrip = new Map(way.map((visit) => [visit.row.strip.id, visit]));
  const parentOf = (visit: Visit) => byStrip.get(parents.get(visit.row.strip.id) ?? '');
  const climb = (visit: Visit): Visit[] => {
    const up = parentOf(visit);
    return up ? [visit, ...climb(up)] : [visit];
  };
  const above = new Set(way.map(parentOf));
  const [one, other] = way.filter((visit) => !above.has(visit)).sort((a, b) => a.row.top - b.row.top);
  if (!one) return [];
  if (!other) return climb(one).reverse();
  const down = climb(other);
  const up = climb(one).filter((visit) => !down.includes(visit));
  const meeting = climb(one).find((visit) => down.includes(visit));
  return [...up, ...(meeting ? down.slice(0, down.indexOf(meeting) + 1).reverse() : down.reverse())];
}

function roundCorners(points: readonly Point[], radius: number): string {
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
