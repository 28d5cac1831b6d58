import { createBoardSeed } from '../../testing/createBoardSeed';
import { runs } from '../../testing/runs';
import { createRandom } from '../../units/createRandom';
import { boundBoard } from './boundBoard';
import type { BoardForm, BoardTree } from './boardTypes';
import { createQuickForm, NO_PINS } from './createQuickForm';
import { layBoard, listRods, measureBox, type Laid } from './layBoard';
import { createWays, measureTooNear } from './measureClearance';
import { BOARD_TRIES, searchBoard } from './searchBoard';

const LARGE = { widthMm: 20_000, heightMm: 6000 };
const boxOf = (tree: BoardTree, form: BoardForm) => measureBox(listRods(layBoard(tree, form)));
const ask = (rest: Partial<Parameters<typeof searchBoard>[1]> = {}) => ({ seed: 1, tries: 6_000, size: LARGE, pins: NO_PINS, ...rest });
const seeds = Array.from({ length: runs(5, 500) }, (_, index) => ({ seed: index + 1, ends: 10 + ((index * 29) % 71) }));

/** Places of a loom every few mm with the way between them along it: knows nothing of rods, angles or boxes. */
function samplePlaces(tree: BoardTree, laid: Laid, stepMm: number) {
  return tree.pieces.flatMap((piece, index) => {
    const runsOf = laid.rods[index]!.filter(({ isFixture }) => !isFixture);
    const count = Math.ceil(piece.lengthMm / stepMm);
    return Array.from({ length: count + 1 }, (_, nth) => {
      const along = (piece.lengthMm * nth) / count;
      const rod = runsOf.findLast(({ fromMm }) => fromMm <= along + 1e-9)!;
      return { index, along, x: rod.x + rod.dx * (along - rod.fromMm), y: rod.y + rod.dy * (along - rod.fromMm) };
    });
  });
}
/** Way along the loom between any two of them: up from either to where both come by. */
function createMeasureWay({ pieces }: BoardTree) {
  const chains = pieces.map((_, index) => {
    const chain = new Set<number>();
    for (let at = index; at >= 0; at = pieces[at]!.parent) chain.add(at);
    return chain;
  });
  const starts = pieces.map((_, index) => [...chains[index]!].reduce((sum, one) => (one === index ? sum : sum + pieces[one]!.lengthMm), 0));
  return (a: { index: number; along: number }, b: { index: number; along: number }): number => {
    const [ofA, ofB] = [chains[a.index]!, chains[b.index]!];
    const [toA, toB] = [starts[a.index]! + a.along, starts[b.index]! + b.along];
    if (ofB.has(a.index) || ofA.has(b.index)) return Math.abs(toA - toB);
    // a chain begins with the run itself: the first that both have is where they part
    const shared = [...ofA].find((one) => ofB.has(one));
    return toA + toB - 2 * (shared === undefined ? 0 : starts[shared]! + pieces[shared]!.lengthMm);
  };
}
/** By how much the worst two places are too near: the clearance, or a quarter of the way between them where that is less. */
function findWorst(tree: BoardTree, laid: Laid): number {
  const places = samplePlaces(tree, laid, 12);
  const measureWay = createMeasureWay(tree);
  let worst = 0;
  places.forEach((a, one) => {
    for (const b of places.slice(one + 1)) {
      if (a.index === b.index) continue;
      const apart = Math.hypot(a.x - b.x, a.y - b.y);
      if (apart < tree.clearMm) worst = Math.max(worst, Math.min(tree.clearMm, 0.25 * measureWay(a, b)) - apart);
    }
  });
  return worst;
}

describe('layouts of made-up looms (craft C, calculations 12)', () => {
  const ratios: number[] = [];
  test.each(seeds)(
    'seed $seed, $ends ends: true lengths, sides as surveyed, nothing nearer than it says, no less than the bound',
    ({ seed, ends }) => {
      const tree = createBoardSeed(seed, ends);
      const found = searchBoard(tree, ask({ tries: runs(60_000, BOARD_TRIES) }));
      ratios.push(found.areaMm2 / found.boundMm2);
      const laid = layBoard(tree, found.form);
      tree.pieces.forEach((piece, index) => {
        const drawn = laid.rods[index]!.filter(({ isFixture }) => !isFixture).reduce((sum, { lengthMm }) => sum + lengthMm, 0);
        expect(Math.abs(drawn - piece.lengthMm)).toBeLessThan(0.2);
        if (piece.side !== null && !piece.isOnward && piece.parent >= 0)
          expect([index, found.form.turns[index]! > 0 ? 'left' : 'right']).toEqual([index, piece.side]);
      });
      expect(found.areaMm2).toBeGreaterThanOrEqual(found.boundMm2);
      expect(found.form.folds.every((fold) => fold === null)).toBe(true);
      // what it does not name is not there: runs against runs, by places alone
      expect(findWorst(tree, laid)).toBeLessThanOrEqual(found.tooNearMm + 0.6);
    },
  );
  test('half of them take no more than 1.25 times the bound', () => {
    expect(ratios.length).toBe(seeds.length);
    expect([...ratios].sort((a, b) => a - b)[Math.floor(ratios.length / 2)]).toBeLessThanOrEqual(1.25);
  });
  test('the same seed finds the same; another finds another', () => {
    const tree = createBoardSeed(2, 20);
    const found = searchBoard(tree, ask());
    expect(searchBoard(tree, ask())).toEqual(found);
    expect(searchBoard(tree, ask({ seed: 2 })).form).not.toEqual(found.form);
  });
  test('one run alone takes no less than the bound, however thin it is', () => {
    const [piece] = createBoardSeed(1, 10).pieces;
    for (const lengthMm of [30, 400, 3000]) {
      const tree: BoardTree = { pieces: [{ ...piece!, lengthMm, radiusMm: 0.5, fixture: null }], datum: null, clearMm: 40 };
      const found = searchBoard(tree, ask());
      expect(found.areaMm2).toBeGreaterThanOrEqual(found.boundMm2 - 1);
    }
  });
  test('a layout at a guess takes no less than the bound either, however its forks are turned', () => {
    const random = createRandom(7);
    for (const { seed, ends } of seeds.slice(0, 3)) {
      const tree = createBoardSeed(seed, ends);
      const form = { ...createQuickForm(tree, LARGE, NO_PINS) };
      for (let nth = 0; nth < 12; nth += 1) {
        const turns = form.turns.map((turn, index) =>
          tree.pieces[index]!.parent < 0 ? turn : Math.sign(turn || 1) * (30 + 15 * Math.floor(random() * 9)),
        );
        const box = boxOf(tree, { ...form, turns });
        const ways = createWays(tree);
        const rods = listRods(layBoard(tree, { ...form, turns }));
        const isClear = rods.every((a, one) =>
          rods.slice(one + 1).every((b) => a.piece === b.piece || measureTooNear(a, b, 40, ways) === 0),
        );
        // only what keeps its distances is bound by them; the reach of forks binds all
        if (isClear) expect((box.maxX - box.minX + 40) * (box.maxY - box.minY + 40)).toBeGreaterThanOrEqual(boundBoard(tree, false) - 1);
      }
    }
  });
});

describe('what the planner and the board ask for', () => {
  const tree = createBoardSeed(3, 24);
  const trunkMm = tree.pieces
    .filter(({ isOnward, fixture }, index) => index === 0 || (isOnward && !fixture))
    .reduce((sum, one) => sum + one.lengthMm, 0);
  test('what is pinned stays where it was put', () => {
    const fork = tree.pieces.findIndex(({ parent, isOnward }) => parent >= 0 && !isOnward);
    const turns = tree.pieces.map((_, index) => (index === fork ? -40 : null));
    expect(searchBoard(tree, ask({ pins: { turns, folds: [] } })).form.turns[fork]).toBe(-40);
  });
  test('a loom that is longer than the board is folded, at its radius or more, and fits', () => {
    const size = { widthMm: trunkMm * 0.7, heightMm: 1500 };
    const found = searchBoard(tree, ask({ size, tries: runs(12_000, 40_000) }));
    const laid = layBoard(tree, found.form);
    const folds = laid.arcs.flatMap((arc, index) => (arc ? [{ arc, piece: tree.pieces[index]! }] : []));
    expect(folds.length).toBeGreaterThan(0);
    for (const { arc, piece } of folds) {
      expect(arc.radiusMm).toBeGreaterThanOrEqual(piece.bendMm);
      // its arms keep the clearance
      if (Math.abs(arc.turnDeg) === 180) expect(2 * arc.radiusMm).toBeGreaterThanOrEqual(40);
    }
    expect(found.overMm).toBe(0);
    tree.pieces.forEach((piece, index) => {
      const arc = laid.arcs[index];
      const straight = laid.rods[index]!.filter(({ isFixture }) => !isFixture).reduce((sum, { lengthMm }) => sum + lengthMm, 0);
      // chords of a bend are a little shorter than it: less than a millimetre
      expect(Math.abs(straight - piece.lengthMm)).toBeLessThan(arc ? 1 : 1e-6);
    });
  });
  test('it tells how far it is, and ended early gives the best so far', () => {
    const told: number[] = [];
    const whole = searchBoard(tree, ask({ progress: (done) => (told.push(done), false) }));
    expect(told.length).toBeGreaterThan(20);
    expect([...told].sort((a, b) => a - b)).toEqual(told);
    const early = searchBoard(tree, ask({ progress: (done) => done > 0.3 }));
    expect(early.tooNearMm * 1e6 + early.areaMm2).toBeGreaterThanOrEqual(whole.tooNearMm * 1e6 + whole.areaMm2 - 1);
  });
});
