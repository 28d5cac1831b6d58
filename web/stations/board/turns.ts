import { changeDocument, turnFork, type BoardPoint, type Job, type PlannedBoard, type Tree } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';

/** dragged forks rest at multiples of this */
const SNAP_DEG = 5;
/** a fork that turns further would lie on what it leaves */
const MOST_DEG = 150;

/** Does a run leave another one by a turn? What goes straight on, and the first at the datum, do not. */
export const isFork = (tree: Tree, segmentId: string): boolean => {
  const { onward, nearNodeId } = tree.segments[segmentId]!;
  return nearNodeId === tree.datumId ? tree.nodes[nearNodeId]!.childSegmentIds[0] !== segmentId : !onward;
};

/** Direction in which a line of points ends, degrees, to the left where positive, as the loom lies unmirrored. */
function findHeading(points: readonly BoardPoint[], isMirrored: boolean): number {
  const [from, to] = points.slice(-2) as [BoardPoint, BoardPoint];
  return (Math.atan2(from.y - to.y, (to.x - from.x) * (isMirrored ? -1 : 1)) * 180) / Math.PI;
}

/** How far a fork turns when it is drawn to a place of the board. */
export function findTurn(tree: Tree, board: PlannedBoard, segmentId: string, to: BoardPoint): number {
  const { nearNodeId } = tree.segments[segmentId]!;
  const near = board.nodes.find(({ nodeId }) => nodeId === nearNodeId)!;
  const { parentSegmentId } = tree.nodes[nearNodeId]!;
  const { isMirrored } = board;
  const before = parentSegmentId === null ? null : board.runs.find((run) => run.segmentId === parentSegmentId)!;
  const heading = before ? findHeading(before.points, isMirrored) : 0;
  const turn = findHeading([near, to], isMirrored) - heading;
  const snapped = Math.round((((turn + 540) % 360) - 180) / SNAP_DEG) * SNAP_DEG;
  return Math.max(-MOST_DEG, Math.min(MOST_DEG, snapped === 0 ? SNAP_DEG : snapped));
}

/** How all forks lie now, by run. */
export const listTurns = ({ runs }: PlannedBoard): Record<string, number> =>
  Object.fromEntries(runs.flatMap(({ segmentId, turnDeg }) => (turnDeg === null ? [] : [[segmentId, turnDeg]])));

/** The job with one fork turned and all others as they lie. */
export const withTurn = ({ job, loomId }: PlannedLoom, board: PlannedBoard, { segmentId, deg }: { segmentId: string; deg: number }): Job =>
  changeDocument(job, turnFork({ loomId, segmentId, name: '' }, deg, { turns: listTurns(board), at: board.at }).apply);
