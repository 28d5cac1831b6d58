import type { CoveringKind, Loom, LoomNode } from '../../model';
import type { LoomPlan } from '../../plan';
import { pushTo } from '../../units';
import { createStrips, type Strip } from './createStrips';
import { listTraces, type StripTrace } from './listTraces';
import { columnKey, laneWidth, toX, type Row, type StripDrawing, type StripOptions } from './stripDrawing';

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

/**
 * Lay a loom out along its strip. Later breakouts hang higher than earlier ones and wires that leave first lie lowest, so
 * that a branch goes down past nothing and a label to the right of an end meets nothing.
 */
export function layoutStrip(loom: Loom, plan: LoomPlan, options: StripOptions): StripLayout {
  const strips = createStrips(loom, plan, options.folded);
  const drawing: StripDrawing = { loom, plan, options, rows: new Map(), parents: new Map(), columns: new Map() };
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

function placeRows(drawing: StripDrawing, strip: Strip, top: number): number {
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

function placeColumns(drawing: StripDrawing, strip: Strip): void {
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

function listEnds({ loom, plan, options }: StripDrawing, rows: readonly Row[]): StripLayout['ends'] {
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

function listNodes({ loom, plan, options }: StripDrawing, rows: readonly Row[]): StripLayout['nodes'] {
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

function listRuns({ loom, plan, options }: StripDrawing, rows: readonly Row[]): StripLayout['runs'] {
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

function listSplices(drawing: StripDrawing): StripLayout['splices'] {
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

function listFolds({ loom, plan, options }: StripDrawing, rows: readonly Row[]): StripLayout['folds'] {
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
