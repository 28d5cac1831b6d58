import type { PlannedBoard, TileMap } from '../make';

const round = (mm: number) => Math.round(mm * 100) / 100;
const at = ({ x, y }: { x: number; y: number }) => ({ x: round(x), y: round(y) });

/** A board for another program: places in mm from its left and top edge, runs as lines through points, pegs, housings, pages of the print. */
export function toBoardJson(planned: PlannedBoard, { columns, rows, tiles }: TileMap): object {
  const { loomId, board, printer, by, nodes, runs, ends, pegs, ties, box, takes, areaMm2, boundMm2, tooNear, over } = planned;
  return {
    loom: loomId,
    board: { id: board.id, widthMm: board.widthMm, heightMm: board.heightMm, edgeMm: board.edgeMm },
    laidOut: by,
    box: { ...at(box), widthMm: round(box.widthMm), heightMm: round(box.heightMm) },
    takes: { widthMm: round(takes.widthMm), heightMm: round(takes.heightMm) },
    areaMm2: Math.round(areaMm2),
    boundMm2: Math.round(boundMm2),
    nodes: nodes.map((node) => ({ id: node.nodeId, name: node.name, kind: node.kind, ...at(node) })),
    segments: runs.map(({ segmentId, points, lengthMm, odMm, isFitted, fold }) => ({
      id: segmentId,
      lengthMm: round(lengthMm),
      diameterMm: round(odMm),
      fitted: isFitted,
      points: points.map(at),
      fold: fold && { ...at(fold), radiusMm: round(fold.radiusMm), turnDeg: fold.turnDeg },
    })),
    fixtures: ends.map((end) => ({
      id: end.endId,
      name: end.name,
      ...at(end),
      deg: round(((end.deg % 360) + 360) % 360),
      depthMm: end.depthMm,
      widthMm: end.widthMm,
      sigmaMm: round(end.sigmaMm),
    })),
    pegs: pegs.map(({ number, kind, diameterMm, segmentId, nodeId, atMm, ...place }) => ({
      ...{ number, kind, ...at(place), diameterMm: round(diameterMm), segment: segmentId, node: nodeId, alongMm: atMm },
    })),
    ties: ties.map((tie) => ({ ...at(tie), deg: round(tie.deg) })),
    tooNear: tooNear.map(({ a, b, byMm }) => ({ a, b, byMm: round(byMm) })),
    over: Object.fromEntries(Object.entries(over).map(([side, mm]) => [side, round(mm)])),
    tiles: {
      printer: printer.id,
      columns,
      rows,
      pages: tiles.map(({ number, column, row, x, y, widthMm, heightMm, fingerprint }) => ({
        ...{ number, column, row, x: round(x), y: round(y), widthMm: round(widthMm), heightMm: round(heightMm), fingerprint },
      })),
    },
  };
}
