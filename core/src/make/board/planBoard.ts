import { findStandard } from '../../plan/findStandard';
import type { Board, BoardSpread, Job, Printer } from '../../model';
import type { Catalogue } from '../../catalogue';
import { measurePathSigma, type LoomPlan } from '../../plan';
import { boundBoard } from './boundBoard';
import type { BoardForm, BoardSize, BoardTree, Rod } from './boardTypes';
import { createBoardTree } from './createBoardTree';
import { createQuickForm, type BoardPins } from './createQuickForm';
import { fitFold, layBoard, listRods, measureBox, type Laid } from './layBoard';
import { createWays, measureTooNear } from './measureClearance';
import { placePegs, type BoardPeg, type BoardTie } from './placePegs';

/** A place on the board, mm from its left and from its top edge. */
export interface BoardPoint {
  x: number;
  y: number;
}

export interface BoardRun {
  segmentId: string;
  /** middle line, from the near node to the far one */
  points: BoardPoint[];
  lengthMm: number;
  /** over its covering */
  odMm: number;
  isFitted: boolean;
  /** by how much it turns out of what it leaves, to the left where positive; null: it goes straight on */
  turnDeg: number | null;
  /** where it is bent: middle and radius of the arc of its middle line; null: straight */
  fold: (BoardPoint & { radiusMm: number; turnDeg: number }) | null;
}

export interface BoardEnd extends BoardPoint {
  endId: string;
  name: string;
  /** direction in which the loom comes to it, degrees, 0 to the right, 90 down */
  deg: number;
  depthMm: number;
  widthMm: number;
  /** by how much it may lie otherwise, one sigma, mm; 0: all on its way is fitted */
  sigmaMm: number;
}

/** A loom spread on a board at full scale. */
export interface PlannedBoard {
  loomId: string;
  /** where the datum lies before it is mirrored */
  at: NonNullable<BoardSpread['at']>;
  /** where it lies as it is drawn */
  datum: BoardPoint;
  isMirrored: boolean;
  board: Board;
  printer: Printer;
  /** the print of it that hangs; null: none */
  printed: BoardSpread['printed'];
  /** as searched or chosen by hand throughout; some forks are new since; nobody has searched: a quick answer */
  by: 'search' | 'partial' | 'quick';
  nodes: (BoardPoint & { nodeId: string; name: string; kind: string })[];
  runs: BoardRun[];
  ends: BoardEnd[];
  pegs: BoardPeg[];
  ties: BoardTie[];
  /** the runs and housings alone, mm */
  box: { x: number; y: number; widthMm: number; heightMm: number };
  /** of the board, with half of the clearance round it */
  takes: BoardSize;
  areaMm2: number;
  /** no layout that keeps its distances, with these sides, takes less */
  boundMm2: number;
  /** pairs of runs and housings that lie too near, the worst first */
  tooNear: { a: string; b: string; byMm: number }[];
  /** by how much it stands over the board on each side, mm */
  over: { left: number; top: number; right: number; bottom: number };
  /** folds that were asked for and have no room in their run */
  lostFolds: string[];
}

/** What may be used of a board, mm. */
export const toUsable = ({ widthMm, heightMm, edgeMm }: Board) => ({
  widthMm: Math.max(1, widthMm - 2 * edgeMm),
  heightMm: Math.max(1, heightMm - 2 * edgeMm),
});

/** The board that a loom is spread on, and the printer: as chosen, else the shop's first. */
export const findBoard = ({ boards }: Pick<Catalogue, 'boards'>, { boardId }: Pick<BoardSpread, 'boardId'>): Board =>
  boards.find(({ id }) => id === boardId) ?? boards[0]!;
export const findPrinter = ({ printers }: Pick<Catalogue, 'printers'>, { printerId }: Pick<BoardSpread, 'printerId'>): Printer =>
  printers.find(({ id }) => id === printerId) ?? printers[0]!;

/** What the planner chose (or what stands, with all): turns and folds in the order of the tree's runs. */
export function toBoardPins({ pieces }: BoardTree, { turns, folds }: BoardSpread, isAll: boolean): BoardPins {
  const isKept = (one: { pinned: boolean } | undefined) => one !== undefined && (isAll || one.pinned);
  return {
    turns: pieces.map(({ segmentId }) => (isKept(turns[segmentId]) ? turns[segmentId]!.deg : null)),
    folds: pieces.map(({ segmentId }) => {
      const fold = folds[segmentId];
      return fold && isKept(fold) ? { atMm: fold.atMm, turnDeg: fold.deg } : null;
    }),
  };
}

/** A form as a document keeps it: turns and folds by run, and where the datum lies so that the loom lies in the middle of the board. */
export function toBoardMoves(tree: BoardTree, form: BoardForm, board: Pick<Board, 'widthMm' | 'heightMm'>) {
  const { turns, folds } = form;
  return {
    turns: Object.fromEntries(tree.pieces.flatMap(({ segmentId, isOnward }, index) => (isOnward ? [] : [[segmentId, turns[index]!]]))),
    folds: Object.fromEntries(
      tree.pieces.flatMap(({ segmentId }, index) => {
        const fold = folds[index];
        return fold ? [[segmentId, { atMm: fold.atMm, deg: fold.turnDeg }]] : [];
      }),
    ),
    at: toMiddle(measureBox(listRods(layBoard(tree, form))), board),
  };
}

/** The form of a loom as its document says; what it does not say by a quick answer. */
export function toBoardForm(tree: BoardTree, spread: BoardSpread, board: Board): { form: BoardForm; by: PlannedBoard['by'] } {
  const pins = toBoardPins(tree, spread, true);
  const forks = tree.pieces.flatMap(({ isOnward, parent }, index) => (isOnward || parent < 0 ? [] : [index]));
  const known = forks.filter((index) => pins.turns[index] !== null).length;
  const quick = createQuickForm(tree, toUsable(board), pins);
  if (known < forks.length) return { form: quick, by: known === 0 ? 'quick' : 'partial' };
  // where it was searched, it is straight wherever nothing says otherwise
  const isSearched = forks.length > 0 || Object.keys(spread.folds).length > 0 || spread.at !== null;
  return { form: isSearched ? { turns: quick.turns, folds: pins.folds } : quick, by: isSearched ? 'search' : 'quick' };
}

/** Spread one loom as its document says. */
export function planBoard(job: Job, catalogue: Catalogue, planned: LoomPlan): PlannedBoard {
  const loom = job.looms[planned.loomId]!;
  const standard = findStandard(job, catalogue);
  const tree = createBoardTree(job, catalogue, planned, standard.boardClearMm);
  const board = findBoard(catalogue, loom.board);
  const { form, by } = toBoardForm(tree, loom.board, board);
  const laid = layBoard(tree, form);
  const rods = listRods(laid);
  const box = measureBox(rods);
  const at = loom.board.at ?? toMiddle(box, board);
  const { isMirrored } = loom.board;
  const place = ({ x, y }: BoardPoint): BoardPoint => ({ x: isMirrored ? board.widthMm - at.xMm - x : at.xMm + x, y: at.yMm - y });
  const toDeg = (deg: number) => (isMirrored ? deg + 180 : -deg);
  const corners = [place({ x: box.minX, y: box.maxY }), place({ x: box.maxX, y: box.minY })];
  const x = Math.min(corners[0]!.x, corners[1]!.x);
  const { y } = corners[0]!;
  const [widthMm, heightMm] = [box.maxX - box.minX, box.maxY - box.minY];
  const { pegs, ties } = placePegs(planned, tree, laid, {
    everyMm: standard.pegEveryMm,
    pegMm: standard.pegMm,
    tieEveryMm: standard.tieEveryMm,
  });
  return {
    loomId: planned.loomId,
    at,
    datum: place({ x: 0, y: 0 }),
    isMirrored,
    board,
    printer: findPrinter(catalogue, loom.board),
    printed: loom.board.printed,
    by,
    nodes: planned.tree.nodeIds.map((nodeId) => {
      const parent = tree.pieces.findIndex(({ segmentId }) => segmentId === planned.tree.nodes[nodeId]!.parentSegmentId);
      return {
        ...place(parent < 0 ? { x: 0, y: 0 } : laid.ends[parent]!),
        nodeId,
        name: loom.nodes[nodeId]!.name,
        kind: loom.nodes[nodeId]!.kind,
      };
    }),
    runs: tree.pieces.map((piece, index) => ({
      segmentId: piece.segmentId,
      points: toPoints(laid.rods[index]!).map(place),
      lengthMm: piece.lengthMm,
      odMm: piece.radiusMm * 2,
      isFitted: loom.segments[piece.segmentId]!.status === 'fitted',
      turnDeg: piece.isOnward ? null : form.turns[index]!,
      fold: toFold(laid.arcs[index]!, place),
    })),
    ends: listBoardEnds(loom, planned, tree, laid, place, toDeg),
    pegs: pegs.map((peg) => ({ ...peg, ...place(peg) })),
    ties: ties.map((tie) => ({ ...place(tie), deg: toDeg(tie.deg) })),
    box: { x, y, widthMm, heightMm },
    takes: { widthMm: widthMm + tree.clearMm, heightMm: heightMm + tree.clearMm },
    areaMm2: (widthMm + tree.clearMm) * (heightMm + tree.clearMm),
    boundMm2: boundBoard(withSides(tree, form), form.folds.some(Boolean)),
    tooNear: listTooNear(loom, tree, rods),
    over: {
      left: Math.max(0, board.edgeMm - x),
      top: Math.max(0, board.edgeMm - y),
      right: Math.max(0, x + widthMm - (board.widthMm - board.edgeMm)),
      bottom: Math.max(0, y + heightMm - (board.heightMm - board.edgeMm)),
    },
    lostFolds: tree.pieces.flatMap((piece, index) =>
      form.folds[index] && !fitFold(piece, form.folds[index], tree.clearMm) ? [piece.segmentId] : [],
    ),
  };
}

/** Where the datum lies so that the loom lies in the middle of the board. */
function toMiddle(
  box: ReturnType<typeof measureBox>,
  { widthMm, heightMm }: Pick<Board, 'widthMm' | 'heightMm'>,
): { xMm: number; yMm: number } {
  return {
    xMm: Math.round((widthMm - (box.maxX - box.minX)) / 2 - box.minX),
    yMm: Math.round((heightMm - (box.maxY - box.minY)) / 2 + box.maxY),
  };
}

/** Where a fork was put to the other side by hand, that side counts. */
const withSides = (tree: BoardTree, { turns }: BoardForm): BoardTree => ({
  ...tree,
  pieces: tree.pieces.map((piece, index) => (piece.side === null ? piece : { ...piece, side: turns[index]! > 0 ? 'left' : 'right' })),
});

const toFold = (arc: Laid['arcs'][number], place: (at: BoardPoint) => BoardPoint): BoardRun['fold'] =>
  arc && { ...place(arc), radiusMm: arc.radiusMm, turnDeg: arc.turnDeg };

function toPoints(rods: readonly Rod[]): BoardPoint[] {
  const runs = rods.filter(({ isFixture }) => !isFixture);
  const last = runs.at(-1)!;
  return [...runs.map(({ x, y }) => ({ x, y })), { x: last.x + last.dx * last.lengthMm, y: last.y + last.dy * last.lengthMm }];
}

function listBoardEnds(
  loom: Job['looms'][string],
  { tree: route }: LoomPlan,
  tree: BoardTree,
  laid: Laid,
  place: (at: BoardPoint) => BoardPoint,
  toDeg: (deg: number) => number,
): BoardEnd[] {
  const toEnd = (endId: string, at: BoardPoint & { deg: number }, size: { depthMm: number; halfMm: number }, nodeId: string): BoardEnd => ({
    ...place(at),
    endId,
    name: loom.ends[endId]!.name,
    deg: toDeg(at.deg),
    depthMm: size.depthMm,
    widthMm: 2 * size.halfMm,
    sigmaMm: measurePathSigma(listWay(route, nodeId).map((id) => route.segments[id]!.spread)),
  });
  const far = tree.pieces.flatMap(({ fixture, segmentId }, index) =>
    fixture ? [toEnd(fixture.endId, laid.ends[index]!, fixture, route.segments[segmentId]!.farNodeId)] : [],
  );
  if (!tree.datum || !laid.datum) return far;
  const deg = (Math.atan2(laid.datum.dy, laid.datum.dx) * 180) / Math.PI;
  return [toEnd(tree.datum.endId, { x: 0, y: 0, deg }, tree.datum, route.datumId), ...far];
}

function listWay(route: LoomPlan['tree'], nodeId: string): string[] {
  const way: string[] = [];
  for (let at = route.nodes[nodeId]!; at.parentSegmentId !== null; at = route.nodes[at.parentNodeId!]!) way.push(at.parentSegmentId);
  return way;
}

/** What is too near by more than half a millimetre. */
function listTooNear(loom: Job['looms'][string], tree: BoardTree, rods: readonly Rod[]): PlannedBoard['tooNear'] {
  const ways = createWays(tree);
  const worst = new Map<string, { a: string; b: string; byMm: number }>();
  const toName = ({ piece, isFixture }: Rod) => {
    const fixture = piece < 0 ? tree.datum! : tree.pieces[piece]!.fixture;
    if (isFixture) return loom.ends[fixture!.endId]!.name;
    const { fromNodeId, toNodeId } = loom.segments[tree.pieces[piece]!.segmentId]!;
    return `${loom.nodes[fromNodeId]!.name} to ${loom.nodes[toNodeId]!.name}`;
  };
  for (let one = 0; one < rods.length; one += 1)
    for (let other = one + 1; other < rods.length; other += 1) {
      if (rods[one]!.piece === rods[other]!.piece) continue;
      const byMm = measureTooNear(rods[one]!, rods[other]!, tree.clearMm, ways);
      if (byMm <= 0.5) continue;
      const pair = { a: toName(rods[one]!), b: toName(rods[other]!), byMm };
      const key = `${pair.a}|${pair.b}`;
      if ((worst.get(key)?.byMm ?? 0) < byMm) worst.set(key, pair);
    }
  return [...worst.values()].sort((p, q) => q.byMm - p.byMm || (p.a + p.b < q.a + q.b ? -1 : 1));
}
