import type { BoardForm, BoardPiece, BoardTree, Box, Fixture, Fold, Rod } from './boardTypes';

/** A bend is drawn by chords of so much, degrees. */
const CHORD_DEG = 7.5;

const toRad = (deg: number) => (deg * Math.PI) / 180;

/** Radius of the middle line where a run is folded: what it stands, and enough that both arms keep apart. */
export const toFoldRadius = ({ bendMm }: Pick<BoardPiece, 'bendMm'>, { turnDeg }: Fold, clearMm: number): number =>
  Math.max(bendMm, Math.abs(turnDeg) > 120 ? clearMm / 2 + 2 : 0);

/** The fold as it can be made in a run of this length: as near to where it was put as the arc has room; null: it has none. */
export function fitFold(piece: BoardPiece, fold: Fold | null, clearMm: number): (Fold & { radiusMm: number; arcMm: number }) | null {
  if (!fold) return null;
  const radiusMm = toFoldRadius(piece, fold, clearMm);
  const arcMm = radiusMm * toRad(Math.abs(fold.turnDeg));
  if (arcMm > piece.lengthMm) return null;
  return { ...fold, atMm: Math.min(fold.atMm, piece.lengthMm - arcMm), radiusMm, arcMm };
}

/** A place, and the direction in which the loom goes on there. */
export interface Arrival {
  x: number;
  y: number;
  deg: number;
}

/** The bend of a run: middle of its arc, radius of its middle line, and where along the run it lies. */
export interface Arc {
  x: number;
  y: number;
  radiusMm: number;
  turnDeg: number;
  fromMm: number;
  toMm: number;
}

/** Where each run ends, its straight parts with what is held at its end, and what is held at the datum. */
export interface Laid {
  rods: Rod[][];
  ends: Arrival[];
  arcs: (Arc | null)[];
  datum: Rod | null;
}

const ORIGIN: Arrival = { x: 0, y: 0, deg: 0 };

/** Spread a loom: runs from the datum at 0, 0 on. What forks off leaves as it is told, what goes on goes straight on. */
export function layBoard(tree: BoardTree, form: BoardForm): Laid {
  const laid: Laid = { rods: [], ends: [], arcs: [], datum: tree.datum && layDatum(tree.datum, tree, form) };
  tree.pieces.forEach((_, index) => {
    const { rods, end, arc } = layPiece(tree, form, index, laid.ends);
    laid.rods.push(rods);
    laid.ends.push(end);
    laid.arcs.push(arc);
  });
  return laid;
}

/** What is held at the datum faces away from the first run. */
function layDatum({ depthMm, halfMm }: Fixture, { pieces }: BoardTree, { turns }: BoardForm): Rod {
  const first = pieces.findIndex(({ parent }) => parent < 0);
  const deg = first < 0 ? 180 : turns[first]! + 180;
  const [dx, dy] = [Math.cos(toRad(deg)), Math.sin(toRad(deg))];
  return { piece: -1, fromMm: 0, lengthMm: depthMm, x: 0, y: 0, dx, dy, radiusMm: halfMm, isFixture: true };
}

/** One run from where its parent ends. */
export function layPiece(
  { pieces, clearMm }: BoardTree,
  form: BoardForm,
  index: number,
  ends: readonly Arrival[],
): { rods: Rod[]; end: Arrival; arc: Arc | null } {
  const piece = pieces[index]!;
  const from = piece.parent < 0 ? ORIGIN : ends[piece.parent]!;
  const rods: Rod[] = [];
  let { x, y } = from;
  let deg = from.deg + (piece.isOnward ? 0 : form.turns[index]!);
  let fromMm = 0;
  let arc: Arc | null = null;
  const go = (lengthMm: number, wayMm: number, radiusMm: number, isFixture: boolean) => {
    const [dx, dy] = [Math.cos(toRad(deg)), Math.sin(toRad(deg))];
    rods.push({ piece: index, fromMm, lengthMm, x, y, dx, dy, radiusMm, isFixture });
    x += dx * lengthMm;
    y += dy * lengthMm;
    fromMm += wayMm;
  };
  const fold = fitFold(piece, form.folds[index] ?? null, clearMm);
  if (!fold) go(piece.lengthMm, piece.lengthMm, piece.radiusMm, false);
  else {
    if (fold.atMm > 0) go(fold.atMm, fold.atMm, piece.radiusMm, false);
    const side = Math.sign(fold.turnDeg) * fold.radiusMm;
    const centre = { x: x - Math.sin(toRad(deg)) * side, y: y + Math.cos(toRad(deg)) * side };
    arc = { ...centre, radiusMm: fold.radiusMm, turnDeg: fold.turnDeg, fromMm: fold.atMm, toMm: fold.atMm + fold.arcMm };
    const chords = Math.max(1, Math.ceil(Math.abs(fold.turnDeg) / CHORD_DEG));
    const step = fold.turnDeg / chords;
    const chordMm = 2 * fold.radiusMm * Math.sin(toRad(Math.abs(step) / 2));
    for (let chord = 0; chord < chords; chord += 1) {
      deg += step / 2;
      go(chordMm, fold.arcMm / chords, piece.radiusMm, false);
      deg += step / 2;
    }
    const rest = piece.lengthMm - fold.atMm - fold.arcMm;
    if (rest > 1e-9) go(rest, rest, piece.radiusMm, false);
  }
  const end = { x, y, deg };
  if (piece.fixture) go(piece.fixture.depthMm, piece.fixture.depthMm, piece.fixture.halfMm, true);
  return { rods, end, arc };
}

/** All that is laid: runs, and what is held at ends and at the datum. */
export const listRods = ({ rods, datum }: Laid): Rod[] => [...rods.flat(), ...(datum ? [datum] : [])];

/** What the rods take, with their own thickness. */
export function measureBox(rods: readonly Rod[]): Box {
  const box = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
  for (const { x, y, dx, dy, lengthMm, radiusMm } of rods) {
    const endX = x + dx * lengthMm;
    const endY = y + dy * lengthMm;
    box.minX = Math.min(box.minX, Math.min(x, endX) - radiusMm);
    box.maxX = Math.max(box.maxX, Math.max(x, endX) + radiusMm);
    box.minY = Math.min(box.minY, Math.min(y, endY) - radiusMm);
    box.maxY = Math.max(box.maxY, Math.max(y, endY) + radiusMm);
  }
  return rods.length > 0 ? box : { minX: 0, minY: 0, maxX: 0, maxY: 0 };
}
