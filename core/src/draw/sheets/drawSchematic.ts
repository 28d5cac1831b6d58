import type { Tree } from '../../plan';
import { FAINT, INK, line, type Drawing, type Mark } from '../drawing';

const USUAL = { widthMm: 52, heightMm: 16 };
/** in the line over a few rows */
export const SMALL_SCHEMATIC = { widthMm: 34, heightMm: 8 };
const EDGE_MM = 1.4;

/** What of a loom a card is about. */
export interface Here {
  segmentIds?: Iterable<string>;
  nodeIds?: Iterable<string>;
}

/**
 * The whole loom as thin lines, the datum to the left as a block, with what a card is about drawn heavy: "you are here". Not to scale: a leg that is
 * measured longer must not make every card another one.
 */
export function drawSchematic({ datumId, nodeIds, nodes, segments }: Tree, here: Here, { widthMm, heightMm } = USUAL): Drawing {
  const rows = placeRows({ datumId, nodeIds, nodes, segments });
  const deepest = Math.max(1, ...Object.values(nodes).map(({ depth }) => depth));
  const most = Math.max(1, ...rows.values());
  const x = (id: string) => EDGE_MM + 1.5 + (nodes[id]!.depth / deepest) * (widthMm - 2 * EDGE_MM - 1.5);
  const y = (id: string) => EDGE_MM + (rows.get(id)! / most) * (heightMm - 2 * EDGE_MM);
  const heavy = new Set(here.segmentIds);
  const draw = ({ id, nearNodeId, farNodeId }: (typeof segments)[string]): Mark => ({
    kind: 'path',
    d: `M${x(nearNodeId).toFixed(2)} ${y(nearNodeId).toFixed(2)}L${x(nearNodeId).toFixed(2)} ${y(farNodeId).toFixed(2)}L${x(farNodeId).toFixed(2)} ${y(farNodeId).toFixed(2)}`,
    fill: null,
    ...(heavy.has(id) ? { stroke: INK, width: 0.9 } : { stroke: FAINT, width: 0.2 }),
  });
  const inOrder = Object.values(segments).sort((a, b) => Number(heavy.has(a.id)) - Number(heavy.has(b.id)));
  return {
    widthMm,
    heightMm,
    marks: [
      ...inOrder.map(draw),
      line([EDGE_MM + 0.6, y(datumId) - 1.3], [EDGE_MM + 0.6, y(datumId) + 1.3], 1.2),
      ...[...(here.nodeIds ?? [])].map((id): Mark => ({
        ...{ kind: 'circle', x: x(id), y: y(id), r: 1.3, fill: '#ffffff', stroke: INK, width: 0.7 },
      })),
    ],
  };
}

/** A row for each node: ends one under another, a fork where its own continuation goes on. */
function placeRows({ datumId, nodes, segments }: Tree): Map<string, number> {
  const rows = new Map<string, number>();
  let free = 0;
  // without recursion: a loom may be a chain of thousands of runs
  const open: { id: string; isDone: boolean }[] = [{ id: datumId, isDone: false }];
  while (open.length > 0) {
    const { id, isDone } = open.pop()!;
    const children = nodes[id]!.childSegmentIds.map((segmentId) => segments[segmentId]!.farNodeId);
    if (children.length === 0) rows.set(id, free++);
    else if (isDone) rows.set(id, rows.get(children[0]!)!);
    else open.push({ id, isDone: true }, ...children.map((child) => ({ id: child, isDone: false })).reverse());
  }
  return rows;
}
