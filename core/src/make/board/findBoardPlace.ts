import type { Tree, WireRun } from '../../plan';
import type { Tile } from './listTiles';
import type { PlannedBoard } from './planBoard';

/** Where on a board something is laid: along which runs, between which pegs, on which pages of the print. */
export interface BoardPlace {
  segmentIds: string[];
  pegs: string[];
  pages: number[];
}

/** Stretches of runs on a board: those of a wire, or a whole run. Pages of the print only where there are any. */
export function findBoardPlace(
  tree: Tree,
  { pegs, runs }: Pick<PlannedBoard, 'pegs' | 'runs'>,
  tiles: readonly Tile[],
  pieces: readonly WireRun[],
): BoardPlace {
  const segmentIds = [...new Set(pieces.map(({ segmentId }) => segmentId))];
  // a node is passed where two of its runs are, and reached at the end of a run
  const nodes = new Set(
    pieces.flatMap(({ segmentId, fromMm, toMm }) => {
      const { nearNodeId, farNodeId, lengthMm } = tree.segments[segmentId]!;
      return [...(fromMm <= 1e-6 ? [nearNodeId] : []), ...(toMm >= lengthMm - 1e-6 ? [farNodeId] : [])];
    }),
  );
  const isOnWay = ({ segmentId, nodeId, atMm }: PlannedBoard['pegs'][number]) =>
    (nodeId !== null && nodes.has(nodeId)) ||
    (segmentId !== null &&
      pieces.some((one) => one.segmentId === segmentId && (atMm === null || (atMm >= one.fromMm && atMm <= one.toMm))));
  const here = pegs.filter(isOnWay);
  // a run too short for a peg of its own lies on a page all the same
  const points = [...here, ...runs.filter(({ segmentId }) => segmentIds.includes(segmentId)).flatMap((run) => run.points)];
  const isOn = (tile: Tile) =>
    points.some(({ x, y }) => x >= tile.x && x <= tile.x + tile.widthMm && y >= tile.y && y <= tile.y + tile.heightMm);
  return { segmentIds, pegs: here.map((peg) => peg.number), pages: tiles.filter(isOn).map((tile) => tile.number) };
}

/** A run from end to end. */
export const toWholeRun = ({ segments }: Tree, segmentId: string): WireRun => ({
  segmentId,
  fromMm: 0,
  toMm: segments[segmentId]!.lengthMm,
});
