import type { Loom } from '../../model';
import type { LoomPlan } from '../../plan';
import { once, pushTo } from '../../units';
import { createStrips, type Strip } from './createStrips';
import { nameZones } from './nameZones';
import { listTraces } from './listTraces';
import { packStrips } from './packStrips';
import type { StripEnd, StripLayout, StripRun } from './stripLayout';
import { columnKey, HEAD, toLine, toX, type Box, type Row, type StripDrawing, type StripOptions } from './stripDrawing';

/** Lay a loom out along its strip (docs/decisions/0018). */
export function layoutStrip(loom: Loom, plan: LoomPlan, options: StripOptions): StripLayout {
  const strips = createStrips(plan);
  const packed = packStrips(loom, plan, strips, options);
  const drawing: StripDrawing = {
    loom,
    plan,
    options,
    rows: new Map(packed.rows.map((row) => [row.strip.id, row])),
    parents: new Map(),
    columns: new Map(),
  };
  for (const strip of strips) placeColumns(drawing, strip);
  const ends = listEnds(drawing, packed.rows);
  const runs = listRuns(drawing, packed.rows);
  const tags = packed.rows.flatMap((row) => listTagBoxes(row, options));
  const boxes = [...tags.map(({ box }) => box), ...ends.flatMap((end) => [toBlock(end, options), ...(end.words ? [end.words] : [])])];
  return {
    width: packed.right,
    height: packed.bottom,
    sides: packed.sides,
    listTraces: once(() => listTraces(drawing)),
    ends,
    nodes: listNodes(drawing, packed.rows),
    runs,
    tags,
    zones: nameZones(runs, boxes, options),
    splices: listSplices(drawing, tags),
  };
}

/** Where each lane of a branch goes down from its trunk: side by side about the breakout. */
function placeColumns(drawing: StripDrawing, strip: Strip): void {
  const { options, columns, rows } = drawing;
  const atNode = new Map<string, Strip[]>();
  for (const child of strip.children) {
    drawing.parents.set(child.id, strip.id);
    pushTo(atNode, `${child.startNodeId} ${rows.get(child.id)!.side}`, child);
  }
  for (const siblings of atNode.values()) {
    const keys = siblings.flatMap((child) =>
      rows.get(child.id)!.lanes.flatMap(({ fromMm }, index) => (fromMm <= child.startMm + 1e-6 ? [columnKey(child, index)] : [])),
    );
    const middle = (keys.length - 1) / 2;
    const { stem } = rows.get(siblings[0]!.id)!;
    const pitch = Math.min(stem / keys.length, ...siblings.map((child) => rows.get(child.id)!.pitch));
    keys.forEach((key, index) => columns.set(key, toX(options, siblings[0]!.startMm) + (middle - index) * pitch));
  }
  for (const child of strip.children) placeColumns(drawing, child);
}

const clamp = (value: number, least: number, most: number) => (least > most ? (least + most) / 2 : Math.max(least, Math.min(most, value)));

function listEnds({ loom, plan, options }: StripDrawing, rows: readonly Row[]): StripEnd[] {
  const endAt = new Map(Object.entries(loom.ends).map(([id, end]) => [end.nodeId, { id, end }]));
  const ends: StripEnd[] = [];
  const add = (nodeId: string, rest: Omit<StripEnd, 'endId' | 'nodeId' | 'name'>) => {
    const found = endAt.get(nodeId);
    if (found) ends.push({ endId: found.id, nodeId, name: found.end.name, ...rest });
  };
  const trunks = rows.filter(({ strip }) => strip.startNodeId === plan.tree.datumId);
  const top = Math.min(...trunks.map((row) => row.top), ...(trunks.length ? [] : [options.top]));
  const bottom = Math.max(...trunks.map((row) => row.bottom), ...(trunks.length ? [] : [options.top + options.row]));
  add(plan.tree.datumId, { segmentId: null, x: options.left, top, bottom, legMm: null, words: null });
  for (const row of rows) {
    const { strip, lanes, ys, pitch } = row;
    const lastId = strip.segmentIds.at(-1)!;
    const half = Math.max(pitch * 0.8, options.text * 0.2);
    const atEnd = lanes.flatMap(({ toMm }, index) => (Math.abs(toMm - strip.endMm) < 1e-6 ? [ys[index]!] : []));
    const around = atEnd.length ? { top: Math.min(...atEnd), bottom: Math.max(...atEnd) } : measureLanes(row);
    const [least, most] = listRoom(row, options);
    const [from, to] = [Math.max(least, around.top - half), Math.min(most, around.bottom + half)];
    add(plan.tree.segments[lastId]!.farNodeId, {
      segmentId: lastId,
      x: toX(options, strip.endMm),
      top: from,
      bottom: to,
      legMm: strip.endMm - strip.startMm,
      words: placeWords(row, (from + to) / 2, options),
    });
  }
  return ends;
}

function placeWords({ label, side, top, bottom }: Row, middle: number, options: StripOptions): Box | null {
  if (!label) return null;
  const height = toLine(options);
  const [left, right] = [label.x, label.x + label.width];
  const y = label.beside
    ? side === 'below'
      ? top
      : bottom - height * HEAD
    : clamp(middle, top + height / 2, bottom - height / 2) - height / 2;
  return { left, right, top: y, bottom: y + height * (label.beside ? HEAD : 1) };
}

/** What is drawn of an end beside its words. */
export const toBlock = ({ x, top, bottom }: Pick<StripEnd, 'x' | 'top' | 'bottom'>, { text }: StripOptions): Box => ({
  left: x,
  right: x + text * 0.55,
  top,
  bottom,
});

/** What the words beside a strip leave of its row. */
function listRoom({ label, side, top, bottom }: Row, options: StripOptions): [number, number] {
  const head = label?.beside ? toLine(options) * HEAD : 0;
  return side === 'below' ? [top + head, bottom] : [top, bottom - head];
}

/** From the top of the first to the bottom of the last lane of a row that lies between two places, or its middle where none does. */
function measureLanes(row: Row, fromMm = -Infinity, toMm = Infinity): { top: number; bottom: number } {
  const { lanes, pitch, top, bottom, label, side } = row;
  const ys = lanes.flatMap((lane, index) => (lane.fromMm < toMm + 1e-6 && lane.toMm > fromMm - 1e-6 ? [row.ys[index]!] : []));
  if (ys.length) return { top: Math.min(...ys) - pitch / 2, bottom: Math.max(...ys) + pitch / 2 };
  const middle = label?.beside ? (side === 'below' ? bottom - pitch : top + pitch) : (top + bottom) / 2;
  return { top: middle, bottom: middle };
}

function listNodes({ loom, plan, options }: StripDrawing, rows: readonly Row[]): StripLayout['nodes'] {
  return rows.flatMap((row) =>
    row.strip.segmentIds.slice(0, -1).map((segmentId) => {
      const { farNodeId } = plan.tree.segments[segmentId]!;
      const { kind, name, holeMm } = loom.nodes[farNodeId]!;
      const { distanceMm } = plan.tree.nodes[farNodeId]!;
      const { top, bottom } = measureLanes(row, distanceMm, distanceMm);
      return { nodeId: farNodeId, kind, name, holeMm, atMm: distanceMm, x: toX(options, distanceMm), top, bottom, segmentId };
    }),
  );
}

function listRuns({ loom, plan, options }: StripDrawing, rows: readonly Row[]): StripRun[] {
  const kinds = new Map(plan.coverings.map(({ segmentId, kind }) => [segmentId, kind]));
  const counts = new Map<string, number>();
  for (const { pieces } of plan.wires) for (const { segmentId } of pieces) counts.set(segmentId, (counts.get(segmentId) ?? 0) + 1);
  return rows.flatMap((row) =>
    row.strip.segmentIds.map((segmentId) => {
      const { top, bottom, side } = row;
      const { startMm, lengthMm } = plan.tree.segments[segmentId]!;
      return {
        segmentId,
        x: toX(options, startMm),
        width: lengthMm * options.scale,
        top,
        bottom,
        side,
        // what only reaches its breakouts lies in the next run
        lanes: measureLanes(row, startMm + 0.01, startMm + lengthMm - 0.01),
        zoneId: loom.segments[segmentId]!.zoneId,
        covering: kinds.get(segmentId) ?? 'none',
        count: counts.get(segmentId) ?? 0,
      };
    }),
  );
}

function listTagBoxes(row: Row, options: StripOptions): StripLayout['tags'] {
  const half = toLine(options) / 2;
  const { top, bottom } = row.label?.beside ? measureLanes(row) : row;
  const y = (top + bottom) / 2;
  return row.tags.map(({ spliceIds, words, x, width, clear }) => ({
    spliceIds,
    words,
    clear,
    box: { left: x - width / 2, right: x + width / 2, top: y - half, bottom: y + half },
  }));
}

/** In which lane of a row each wire lies. */
const listLanes = ({ lanes }: Row) => new Map(lanes.flatMap(({ wireIds }, index) => wireIds.map((id) => [id, index] as const)));

function listSplices({ plan, options, rows }: StripDrawing, tags: StripLayout['tags']): StripLayout['splices'] {
  const tagOf = new Map(tags.flatMap(({ spliceIds, box }) => (spliceIds.length === 1 ? [[spliceIds[0]!, box] as const] : [])));
  const rowOf = new Map([...rows.values()].flatMap((row) => row.strip.segmentIds.map((id) => [id, row] as const)));
  const wiresAt = new Map(plan.barrels.map(({ spliceId, wireIds }) => [spliceId, wireIds]));
  const lanesOf = new Map([...rows.values()].map((row) => [row, once(() => listLanes(row))]));
  return plan.splices.flatMap(({ id, place, distanceMm, clear }) => {
    const row = rowOf.get(place.segmentId)!;
    const lanes = lanesOf.get(row)!();
    const touched = new Set(wiresAt.get(id)!.flatMap((wireId) => lanes.get(wireId) ?? []));
    if (touched.size === 0) return [];
    const ys = [...touched].sort((a, b) => a - b).map((lane) => row.ys[lane]!);
    // a tag of its own is joined to it
    const alone = tagOf.get(id);
    const all = alone ? [...ys, (alone.top + alone.bottom) / 2] : ys;
    return [{ spliceId: id, x: toX(options, distanceMm), top: Math.min(...all), bottom: Math.max(...all), y: ys[0]!, clear }];
  });
}
