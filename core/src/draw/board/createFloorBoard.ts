import type { Catalogue } from '../../catalogue';
import { planBoard, type PlannedBoard, type Tile } from '../../make';
import type { Job } from '../../model';
import type { LoomPlan } from '../../plan';
import { drawBoard } from './drawBoard';
import { listTiles } from './listTiles';

/** A board as the floor lays on it: with the pages of its print, each with its mark. */
export interface FloorBoard {
  planned: PlannedBoard;
  tiles: Tile[];
}

/** The board of a loom; null where nobody has spread it: then it is laid on a bench, or along a plank. */
export function createFloorBoard(job: Job, catalogue: Catalogue, plan: LoomPlan): FloorBoard | null {
  const { at, turns, folds, scale } = job.looms[plan.loomId]!.board;
  const isSpread = at !== null || Object.keys(turns).length + Object.keys(folds).length > 0;
  if (!isSpread || Object.keys(plan.tree.segments).length === 0) return null;
  const planned = planBoard(job, catalogue, plan);
  return { planned, tiles: listTiles(drawBoard(job, catalogue, plan, planned), planned, scale).tiles };
}

/** A board as an older Wattograph froze it: its pegs were counted through. */
export const toPresentBoard = ({ planned, tiles }: FloorBoard): FloorBoard => ({
  planned: { ...planned, pegs: planned.pegs.map((peg) => ({ ...peg, number: String(peg.number) })) },
  tiles,
});
