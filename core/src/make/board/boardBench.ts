import { boundBoard } from './boundBoard';
import type { BoardForm, BoardSize, BoardTree, Box, Rod } from './boardTypes';
import { layBoard, layPiece, measureBox, type Laid } from './layBoard';
import { createWays, measureTooNear, type Ways } from './measureClearance';

/** What was found: the form, what it takes, and what is wrong with it. */
export interface BoardFound {
  form: BoardForm;
  areaMm2: number;
  boundMm2: number;
  /** by how much in all, mm: what is too near, and what stands over the board */
  tooNearMm: number;
  overMm: number;
}

/** A form with where all of it lies and what it comes to. */
export interface BoardState {
  form: BoardForm;
  laid: Laid;
  boxes: Box[];
  /** of the board, in shares of the bound */
  area: number;
  tooNear: number;
  over: number;
  folds: number;
}

/** What weighs forms of one tree on one board. */
export function createBoardBench(tree: BoardTree, size: BoardSize) {
  const ways = createWays(tree);
  const share = boundBoard(tree, false) || 1;
  const beyond = listBeyond(tree);
  const measureOver = (boxes: readonly Box[]) => {
    const { widthMm, heightMm } = joinBoxes(boxes);
    return Math.max(0, widthMm - size.widthMm) + Math.max(0, heightMm - size.heightMm);
  };
  const toBoardState = (form: BoardForm, laid: Laid, boxes: Box[], tooNear: number): BoardState => {
    const { widthMm, heightMm } = joinBoxes(boxes);
    const folds = form.folds.reduce((sum, fold) => sum + (fold ? 1 : 0), 0);
    return {
      form,
      laid,
      boxes,
      area: ((widthMm + tree.clearMm) * (heightMm + tree.clearMm)) / share,
      tooNear,
      over: measureOver(boxes),
      folds,
    };
  };
  const weigh = (form: BoardForm): BoardState => {
    const laid = layBoard(tree, form);
    const boxes = laid.rods.map(measureBox);
    if (laid.datum) boxes.push(measureBox([laid.datum]));
    return toBoardState(form, laid, boxes, measureAll(laid, tree, ways));
  };
  /** the same with what lies from a run on laid anew: as one stiff thing */
  const relay = (state: BoardState, index: number, form: BoardForm): BoardState => {
    const moved = beyond[index]!;
    const laid: Laid = { rods: [...state.laid.rods], ends: [...state.laid.ends], arcs: state.laid.arcs, datum: state.laid.datum };
    const boxes = [...state.boxes];
    for (const one of moved) {
      const { rods, end } = layPiece(tree, form, one, laid.ends);
      laid.rods[one] = rods;
      laid.ends[one] = end;
      boxes[one] = measureBox(rods);
    }
    const others = new Uint8Array(tree.pieces.length);
    for (const one of moved) others[one] = 1;
    const before = measureBetween(state.laid, state.boxes, moved, others, tree.clearMm, ways);
    const after = measureBetween(laid, boxes, moved, others, tree.clearMm, ways);
    return toBoardState(form, laid, boxes, Math.max(0, state.tooNear - before + after));
  };
  const toFound = ({ form, boxes, tooNear }: BoardState): BoardFound => {
    const { widthMm, heightMm } = joinBoxes(boxes);
    const isFolded = form.folds.some((one) => one !== null);
    return {
      form,
      areaMm2: (widthMm + tree.clearMm) * (heightMm + tree.clearMm),
      boundMm2: boundBoard(tree, isFolded),
      tooNearMm: tooNear < 0.5 ? 0 : tooNear,
      overMm: measureOver(boxes),
    };
  };
  return { beyond, weigh, relay, toFound };
}
export type BoardBench = ReturnType<typeof createBoardBench>;

function joinBoxes(boxes: readonly Box[]): BoardSize {
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const box of boxes) {
    if (box.minX < minX) minX = box.minX;
    if (box.minY < minY) minY = box.minY;
    if (box.maxX > maxX) maxX = box.maxX;
    if (box.maxY > maxY) maxY = box.maxY;
  }
  return boxes.length > 0 ? { widthMm: maxX - minX, heightMm: maxY - minY } : { widthMm: 0, heightMm: 0 };
}

/** Each run with all that lies beyond it. */
function listBeyond({ pieces }: BoardTree): number[][] {
  const beyond = pieces.map((_, index) => [index]);
  for (let index = pieces.length - 1; index >= 0; index -= 1) {
    const { parent } = pieces[index]!;
    if (parent >= 0) beyond[parent]!.push(...beyond[index]!);
  }
  return beyond.map((list) => list.sort((a, b) => a - b));
}

const isApart = (a: Box, b: Box, clear: number) =>
  a.maxX + clear < b.minX || b.maxX + clear < a.minX || a.maxY + clear < b.minY || b.maxY + clear < a.minY;

const measureGroups = (a: readonly Rod[], b: readonly Rod[], clear: number, ways: Ways) => {
  let sum = 0;
  for (const one of a) for (const other of b) sum += measureTooNear(one, other, clear, ways);
  return sum;
};

/** What is too near between runs that were moved and all others. */
function measureBetween(
  { rods, datum }: Laid,
  boxes: readonly Box[],
  moved: readonly number[],
  isMoved: Uint8Array,
  clear: number,
  ways: Ways,
): number {
  let sum = 0;
  for (const one of moved) {
    for (let other = 0; other < rods.length; other += 1)
      if (!isMoved[other] && !isApart(boxes[one]!, boxes[other]!, clear)) sum += measureGroups(rods[one]!, rods[other]!, clear, ways);
    if (datum) sum += measureGroups(rods[one]!, [datum], clear, ways);
  }
  return sum;
}

/** What is too near in all, mm. */
export function measureAll({ rods, datum }: Laid, { clearMm }: BoardTree, ways: Ways): number {
  let sum = 0;
  for (let one = 0; one < rods.length; one += 1) {
    for (let other = one + 1; other < rods.length; other += 1) sum += measureGroups(rods[one]!, rods[other]!, clearMm, ways);
    if (datum) sum += measureGroups(rods[one]!, [datum], clearMm, ways);
  }
  return sum;
}
