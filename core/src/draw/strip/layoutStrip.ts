import type { CoveringKind, Colour, Loom, LoomNode } from '../../model';
import type { LoomPlan, PlannedWire } from '../../plan';
import { createStrips, type Lane, type Strip } from './createStrips';
import { pushTo } from '../../units';

/** How a strip is drawn: all sizes in the unit of the drawing (px on screen, mm on paper) but the scale. */
export interface StripOptions {
  /** drawing units per mm of loom */
  scale: number;
  pitch: number;
  /** least height of a strip, so that its label has room */
  row: number;
  left: number;
  top: number;
  folded: ReadonlySet<string>;
}

export interface StripTrace {
  id: string;
  wireIds: string[];
  colour: Colour | null;
  width: number;
  d: string;
  /** wires in it where it is a folded branch, else 1 */
  count: number;
}

/** Everything to draw a loom as a strip, in drawing units; x by distance from the datum. */
export interface StripLayout {
  width: number;
  height: number;
  traces: StripTrace[];
  ends: {
    endId: string;
    nodeId: string;
    segmentId: string | null;
    x: number;
    top: number;
    bottom: number;
    name: string;
    legMm: number | null;
  }[];
  nodes: {
    nodeId: string;
    kind: LoomNode['kind'];
    name: string;
    holeMm: number | null;
    x: number;
    top: number;
    bottom: number;
    segmentId: string | null;
  }[];
  runs: {
    segmentId: string;
    x: number;
    width: number;
    top: number;
    bottom: number;
    zoneId: string | null;
    covering: CoveringKind;
    count: number;
  }[];
  splices: { spliceId: string; label: string; x: number; top: number; bottom: number; y: number; labelY: number; clear: boolean }[];
  folds: { segmentId: string; folded: boolean; count: number; x: number; y: number; name: string }[];
}

const LABEL_WIDTH = 44;
const LABEL_HEIGHT = 18;

interface Row {
  strip: Strip;
  top: number;
  /** middle of each lane */
  ys: number[];
  bottom: number;
}

interface Drawing {
  loom: Loom;
  plan: LoomPlan;
  options: StripOptions;
  rows: Map<string, Row>;
  /** strip → the strip it leaves */
  parents: Map<string, string>;
  /** child strip and lane index → where it goes down */
  columns: Map<string, number>;
}

const laneWidth = (lane: Lane, pitch: number) =>
  lane.foldedTo === null ? pitch * 0.66 : Math.min(pitch * 5, pitch * (1 + Math.sqrt(lane.wireIds.length) * 0.5));
const columnKey = (strip: Strip, index: number) => `${strip.id} ${index}`;

/**
 * Lay a loom out along its strip. Later breakouts hang higher than earlier ones and wires that leave first lie lowest, so
 * that a branch goes down past nothing and a label to the right of an end meets nothing.
 */
export function layoutStrip(loom: Loom, plan: LoomPlan, options: StripOptions): StripLayout {
  const strips = createStrips(loom, plan, options.folded);
  const drawing: Drawing = { loom, plan, options, rows: new Map(), parents: new Map(), columns: new Map() };
  let bottom = options.top;
  for (const strip of strips) bottom = placeRows(drawing, strip, bottom);
  for (const strip of strips) placeColumns(drawing, strip);
  const all = [...drawing.rows.values()];
  const right = Math.max(options.left, ...all.map(({ strip }) => toX(options, strip.endMm)));
  return {
    width: right,
    height: bottom,
    traces: listTraces(drawing),
    ends: listEnds(drawing, all),
    nodes: listNodes(drawing, all),
    runs: listRuns(drawing, all),
    splices: listSplices(drawing),
    folds: listFolds(drawing, all),
  };
}

const toX = ({ left, scale }: StripOptions, mm: number) => left + mm * scale;

function placeRows(drawing: Drawing, strip: Strip, top: number): number {
  const { pitch, row } = drawing.options;
  const widths = strip.lanes.map((lane) => Math.max(pitch, laneWidth(lane, pitch) + pitch * 0.4));
  const used = widths.reduce((sum, width) => sum + width, 0);
  const height = Math.max(row, used + pitch * 1.6);
  let y = top + (height - used) / 2;
  const ys = widths.map((width) => {
    y += width;
    return y - width / 2;
  });
  drawing.rows.set(strip.id, { strip, top, ys, bottom: top + height });
  let bottom = top + height;
  for (const child of strip.children) {
    drawing.parents.set(child.id, strip.id);
    bottom = placeRows(drawing, child, bottom);
  }
  return bottom;
}

function placeColumns(drawing: Drawing, strip: Strip): void {
  const { options, columns } = drawing;
  const atNode = new Map<string, Strip[]>();
  for (const child of strip.children) pushTo(atNode, child.startNodeId, child);
  for (const siblings of atNode.values()) {
    const lanes = siblings.flatMap((child) =>
      child.lanes.map((lane, index) => ({ key: columnKey(child, index), width: Math.max(options.pitch, laneWidth(lane, options.pitch)) })),
    );
    const total = lanes.reduce((sum, { width }) => sum + width, 0);
    let x = toX(options, siblings[0]!.startMm) + total / 2;
    for (const { key, width } of lanes) {
      columns.set(key, x - width / 2);
      x -= width;
    }
  }
  for (const child of strip.children) placeColumns(drawing, child);
}

interface Visit {
  row: Row;
  laneIndex: number;
  fromMm: number;
  toMm: number;
}

function listTraces(drawing: Drawing): StripTrace[] {
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

function wireSpan(drawing: Drawing, wireId: string, strip: Strip): { fromMm: number; toMm: number } | null {
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
function wiresOf({ plan }: Drawing): Map<string, PlannedWire> {
  let map = wireMaps.get(plan);
  if (!map) {
    map = new Map(plan.wires.map((wire) => [wire.id, wire]));
    wireMaps.set(plan, map);
  }
  return map;
}

/** Lines along the strips a wire lies in, joined by a drop with round corners at every branch. */
function toPath({ options, columns, parents }: Drawing, wire: PlannedWire, way: readonly Visit[]): string {
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

function listEnds({ loom, plan, options }: Drawing, rows: readonly Row[]): StripLayout['ends'] {
  const endAt = new Map(Object.entries(loom.ends).map(([id, end]) => [end.nodeId, { id, end }]));
  const ends: StripLayout['ends'] = [];
  const add = (nodeId: string, x: number, top: number, bottom: number, segmentId: string | null, legMm: number | null) => {
    const found = endAt.get(nodeId);
    if (found) ends.push({ endId: found.id, nodeId, segmentId, x, top, bottom, name: found.end.name, legMm });
  };
  const first = rows[0];
  const main = rows.filter(({ strip }) => strip.startNodeId === plan.tree.datumId);
  add(
    plan.tree.datumId,
    options.left,
    first?.top ?? options.top,
    main.length ? Math.max(...main.map(({ bottom }) => bottom)) : options.top + options.row,
    null,
    null,
  );
  for (const { strip, top, ys, bottom } of rows) {
    const lastId = strip.segmentIds.at(-1)!;
    const { farNodeId } = plan.tree.segments[lastId]!;
    const half = options.pitch * 0.8;
    const atEnd = strip.lanes
      .map((lane, index) => ({ lane, y: ys[index]! }))
      .filter(({ lane }) => Math.abs(lane.toMm - strip.endMm) < 1e-6);
    const middle = (top + bottom) / 2;
    add(
      farNodeId,
      toX(options, strip.endMm),
      atEnd.length ? atEnd[0]!.y - half : middle - half,
      atEnd.length ? atEnd.at(-1)!.y + half : middle + half,
      lastId,
      strip.endMm - strip.startMm,
    );
  }
  return ends;
}

function listNodes({ loom, plan, options }: Drawing, rows: readonly Row[]): StripLayout['nodes'] {
  return rows.flatMap(({ strip, top, bottom }) =>
    strip.folded
      ? []
      : strip.segmentIds.slice(0, -1).map((segmentId) => {
          const { farNodeId } = plan.tree.segments[segmentId]!;
          const { kind, name, holeMm } = loom.nodes[farNodeId]!;
          return { nodeId: farNodeId, kind, name, holeMm, x: toX(options, plan.tree.nodes[farNodeId]!.distanceMm), top, bottom, segmentId };
        }),
  );
}

function listRuns({ loom, plan, options }: Drawing, rows: readonly Row[]): StripLayout['runs'] {
  const kinds = new Map(plan.coverings.map(({ segmentId, kind }) => [segmentId, kind]));
  return rows.flatMap(({ strip, top, bottom }) =>
    (strip.folded ? [strip.id] : strip.segmentIds).map((segmentId) => {
      const { startMm, lengthMm } = plan.tree.segments[segmentId]!;
      const runMm = strip.folded ? strip.endMm - strip.startMm : lengthMm;
      return {
        segmentId,
        x: toX(options, startMm),
        width: runMm * options.scale,
        top,
        bottom,
        zoneId: loom.segments[segmentId]!.zoneId,
        covering: kinds.get(segmentId) ?? 'none',
        count: strip.lanes.length,
      };
    }),
  );
}

function listSplices(drawing: Drawing): StripLayout['splices'] {
  const { plan, options, rows } = drawing;
  const stripOf = new Map(
    [...rows.values()].flatMap((row) => (row.strip.folded ? [] : row.strip.segmentIds.map((id) => [id, row] as const))),
  );
  const placed = plan.splices.flatMap((splice) => {
    const row = stripOf.get(splice.place.segmentId);
    if (!row) return [];
    const touching = new Set(plan.barrels.find(({ spliceId }) => spliceId === splice.id)!.wireIds);
    const ys = row.strip.lanes.flatMap((lane, index) => (lane.wireIds.some((id) => touching.has(id)) ? [row.ys[index]!] : []));
    if (ys.length === 0) return [];
    return [
      {
        spliceId: splice.id,
        label: splice.label,
        x: toX(options, splice.distanceMm),
        top: Math.min(...ys),
        bottom: Math.max(...ys),
        y: ys[0]!,
        labelY: Math.max(...ys) + LABEL_HEIGHT * 0.7,
        clear: splice.clear,
      },
    ];
  });
  // a label that would lie on its neighbour's goes below it
  placed.forEach((one, index) => {
    for (const other of placed.slice(0, index)) {
      if (Math.abs(other.x - one.x) < LABEL_WIDTH && Math.abs(other.labelY - one.labelY) < LABEL_HEIGHT)
        one.labelY = other.labelY + LABEL_HEIGHT;
    }
  });
  return placed;
}

function listFolds({ loom, plan, options }: Drawing, rows: readonly Row[]): StripLayout['folds'] {
  return rows
    .filter(({ strip }) => strip.startNodeId !== plan.tree.datumId && (strip.folded || strip.segmentIds.length > 1))
    .map(({ strip, top, bottom }) => ({
      segmentId: strip.id,
      folded: strip.folded,
      count: strip.lanes.reduce((sum, lane) => sum + lane.wireIds.length, 0),
      x: toX(options, strip.startMm),
      y: (top + bottom) / 2,
      name: loom.nodes[plan.tree.segments[strip.segmentIds.at(-1)!]!.farNodeId]!.name,
    }));
}
