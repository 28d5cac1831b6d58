import { CATALOGUE } from '../../catalogue';
import { createInlet, createSkerry } from '../../demo';
import { drawBoard, drawPlank, listTiles, measureText } from '../../draw';
import { foldRun, hangPrint, takeBoard, turnFork } from '../../edit';
import { changeDocument, type Job } from '../../model';
import { plan } from '../../plan';
import { runs } from '../../testing/runs';
import { toDigest } from '../toDigest';
import {
  BOARD_TRIES,
  compareTiles,
  correctScale,
  countTiles,
  FOOT_MM,
  createBoardTree,
  isBarTrue,
  listPlankTiles,
  planBoard,
  planPlank,
  searchBoard,
  toBoardPins,
  toBoardMoves,
  toPegWords,
  type PlannedBoard,
} from './index';

const boardOf = (job: Job, loomId = 'inlet') =>
  planBoard(
    job,
    CATALOGUE,
    plan(job, CATALOGUE).looms.find((one) => one.loomId === loomId)!,
  );
/** As the station does it: searched and taken. */
function layOut(job: Job, loomId = 'inlet', tries = 6_000): Job {
  const planned = plan(job, CATALOGUE).looms.find((one) => one.loomId === loomId)!;
  const tree = createBoardTree(job, CATALOGUE, planned, 40);
  const { form } = searchBoard(tree, {
    seed: 1,
    tries,
    size: { widthMm: 2960, heightMm: 1210 },
    pins: toBoardPins(tree, job.looms[loomId]!.board, false),
  });
  const { at, ...moves } = toBoardMoves(tree, form, CATALOGUE.boards[0]!);
  return changeDocument(job, takeBoard(loomId, moves, at).apply);
}
const lengthOf = ({ points }: PlannedBoard['runs'][number]) =>
  points.slice(1).reduce((sum, { x, y }, index) => sum + Math.hypot(x - points[index]!.x, y - points[index]!.y), 0);
const laidOut = layOut(createInlet());
const tilesOf = (job: Job, scale = 1) => {
  const planned = plan(job, CATALOGUE).looms[0]!;
  const board = planBoard(job, CATALOGUE, planned);
  return listTiles(drawBoard(job, CATALOGUE, planned, board), board, scale);
};

describe('pages of a print (craft C, Accept)', () => {
  const A3 = { usableWidthMm: 400, usableHeightMm: 277, overlapMm: 10 };
  test('1,640 × 620 mm on A3 across is 5 × 3 pages', () =>
    expect(countTiles({ widthMm: 1640, heightMm: 620 }, A3)).toEqual({ columns: 5, rows: 3 }));
  test.each([
    [400, 1],
    [400.5, 2],
    [790, 2],
    [791, 3],
  ])('%d mm across are %d pages', (widthMm, columns) => expect(countTiles({ widthMm, heightMm: 100 }, A3).columns).toBe(columns));
  test('a bar that reads 98.6 asks for 1.0142 times as much, and is refused; within half a millimetre it is taken', () => {
    expect(correctScale(1, 98.6)).toBeCloseTo(1.0142, 4);
    expect([98.6, 99.4, 99.5, 100.5, 100.6].map(isBarTrue)).toEqual([false, false, true, true, false]);
    // printed at that and measured true
    expect(98.6 * correctScale(1, 98.6)).toBeCloseTo(100, 9);
  });
  test('pages meet: each begins where its neighbour ends but for what they share, and all of the loom lies on them', () => {
    const board = boardOf(laidOut);
    for (const scale of [1, 1.0142]) {
      const { tiles, columns, rows } = tilesOf(laidOut, scale);
      expect(tiles).toHaveLength(columns * rows);
      for (const { x, y, widthMm, heightMm, column, row } of tiles) {
        const [right, below] = [
          tiles.find((one) => one.column === column + 1 && one.row === row),
          tiles.find((one) => one.row === row + 1 && one.column === column),
        ];
        if (right) expect((x + widthMm - right.x) * scale).toBeCloseTo(10, 6);
        if (below) expect((y + heightMm - below.y) * scale).toBeCloseTo(10, 6);
      }
      const last = tiles.at(-1)!;
      expect(tiles[0]!.x).toBeLessThan(board.box.x);
      expect(last.x + last.widthMm).toBeGreaterThan(board.box.x + board.box.widthMm);
      expect(last.y + last.heightMm).toBeGreaterThan(board.box.y + board.box.heightMm);
    }
  });
});

test('all that is written beside the loom lies on its pages; paper too small for a print has none', () => {
  const planned = plan(laidOut, CATALOGUE).looms[0]!;
  const board = planBoard(laidOut, CATALOGUE, planned);
  const drawing = drawBoard(laidOut, CATALOGUE, planned, board);
  const { tiles } = listTiles(drawing, board, 1);
  const last = tiles.at(-1)!;
  for (const mark of drawing.marks)
    if (mark.kind === 'text') {
      expect([mark.text, mark.x >= tiles[0]!.x && mark.x <= last.x + last.widthMm]).toEqual([mark.text, true]);
      expect([mark.text, mark.y >= tiles[0]!.y && mark.y <= last.y + last.heightMm]).toEqual([mark.text, true]);
    }
  const small = { ...board, printer: { ...board.printer, usableWidthMm: 80, usableHeightMm: 80, overlapMm: 40 } };
  const long = listTiles({ ...drawing, marks: [] }, { ...small, box: { x: 0, y: 0, widthMm: 3000, heightMm: 1250 } }, 1);
  expect(long.columns * long.rows).toBeGreaterThan(1000);
  expect(long.tiles).toEqual([]);
});

describe('a print and a loom that was changed since', () => {
  const hang = (job: Job, map = tilesOf(job)) => changeDocument(job, hangPrint('inlet', map, '2026-11-30', 'Imke').apply);
  const hung = hang(laidOut);
  const printed = hung.looms.inlet!.board.printed!;
  const compare = (map: ReturnType<typeof tilesOf>) => compareTiles(map, printed.tiles);
  const fit = (job: Job, id: string, moreMm: number) =>
    changeDocument(job, ({ looms }) => {
      const segment = looms.inlet!.segments[id]!;
      Object.assign(segment, { status: 'fitted', fittedMm: segment.lengthMm + moreMm });
    });
  const legs = Object.keys(laidOut.looms.inlet!.segments).filter((one) => one.startsWith('s-'));
  test('the same loom prints the same pages, beside a print or not', () => {
    expect(tilesOf(hung).tiles).toEqual(tilesOf(laidOut).tiles);
    expect(compare(tilesOf(hung))).toEqual({ again: [], added: [], gone: [] });
  });
  test.each(legs)('leg %s fitted 12 mm longer, wherever it stands out: only pages by which it comes are stale', (id) => {
    const job = fit(hung, id, 12);
    const map = tilesOf(job);
    const { again, added } = compare(map);
    expect(again.length).toBeGreaterThan(0);
    expect(again.length).toBeLessThan(printed.tiles.length);
    const { points } = boardOf(job).runs.find(({ segmentId }) => segmentId === id)!;
    const [from, to] = [points[0]!, points.at(-1)!];
    for (const number of [...again, ...added]) {
      const { x, y, widthMm, heightMm } = map.tiles.find((tile) => tile.number === number)!;
      // the leg, with its housing, pegs and the card of its end, comes by
      const near = [0, 0.25, 0.5, 0.75, 1].some((share) => {
        const [px, py] = [from.x + (to.x - from.x) * share, from.y + (to.y - from.y) * share];
        return px > x - 100 && px < x + widthMm + 100 && py > y - 100 && py < y + heightMm + 100;
      });
      expect([number, near]).toEqual([number, true]);
    }
  });
  test('a leg longer by half a page: pages join on its side with new numbers, those that hang keep place and number', () => {
    const places = new Map(tilesOf(hung).tiles.map(({ number, x, y }) => [number, [x, y]]));
    let joined = 0;
    for (const id of legs) {
      const job = fit(hung, id, 200);
      const map = tilesOf(job);
      for (const { number, x, y } of map.tiles) {
        const before = places.get(number);
        if (before) [x, y].forEach((mm, axis) => expect(mm).toBeCloseTo(before[axis]!, 6));
        else expect(number).toBeGreaterThan(printed.tiles.length);
      }
      expect(new Set(map.tiles.map(({ number }) => number)).size).toBe(map.tiles.length);
      // every place of every run is on a page, and no page is added that shows nothing
      const { runs: laid, ends, nodes } = boardOf(job);
      const isOn =
        ({ x, y }: { x: number; y: number }) =>
        (tile: (typeof map.tiles)[number]) =>
          x >= tile.x && x <= tile.x + tile.widthMm && y >= tile.y && y <= tile.y + tile.heightMm;
      for (const point of [...laid.flatMap(({ points }) => points), ...ends, ...nodes]) expect(map.tiles.some(isOn(point))).toBe(true);
      const added = map.tiles.filter(({ number }) => !places.has(number));
      expect(new Set(added.map(({ fingerprint }) => fingerprint)).has(toDigest('1.0000'))).toBe(false);
      expect(added.map(({ number }) => number)).toEqual(added.map((_, index) => printed.tiles.length + 1 + index));
      // under the foot of the lowest pages lies nothing: no page below has it too
      const lowest = Math.max(...map.tiles.map(({ y, heightMm }) => y + heightMm));
      const { box } = boardOf(job);
      expect(box.y + box.heightMm).toBeLessThanOrEqual(lowest - FOOT_MM);
      if (compare(map).added.length === 0) continue;
      joined += 1;
      // hung anew, all of it holds; and short again, only what hangs beyond is told to go
      const anew = hang(job, map);
      const all = anew.looms.inlet!.board.printed!.tiles;
      expect(compareTiles(tilesOf(anew), all)).toEqual({ again: [], added: [], gone: [] });
      const { gone, added: more } = compareTiles(tilesOf(fit(anew, id, 0)), all);
      expect(more).toEqual([]);
      for (const number of gone) expect(number).toBeGreaterThan(printed.tiles.length);
    }
    expect(joined).toBeGreaterThan(0);
  });
  test('a run that comes out a tenth thicker makes no page stale that its millimetre leaves as it was', () => {
    const planned = plan(hung, CATALOGUE).looms[0]!;
    const board = planBoard(hung, CATALOGUE, planned);
    const coverings = planned.coverings.map((one) => {
      const more = Math.min(0.1, Math.ceil(one.odOutsideMm) - one.odOutsideMm);
      return { ...one, odOutsideMm: one.odOutsideMm + more };
    });
    const thicker = { ...planned, coverings };
    const after = planBoard(hung, CATALOGUE, thicker);
    expect(after.runs.map(({ odMm }) => odMm)).not.toEqual(board.runs.map(({ odMm }) => odMm));
    expect(compare(listTiles(drawBoard(hung, CATALOGUE, thicker, after), after, 1))).toEqual({ again: [], added: [], gone: [] });
  });
  test('a peg more along one run renames no other', () => {
    const [before, after] = [boardOf(hung), boardOf(fit(hung, 's-byp', 200))];
    const name = ({ pegs }: PlannedBoard) => pegs.filter(({ segmentId }) => segmentId !== 's-byp').map(({ number }) => number);
    expect(after.pegs.length).toBeGreaterThan(before.pegs.length);
    expect(name(after)).toEqual(name(before));
    for (const { pegs } of [before, after]) expect(new Set(pegs.map(({ number }) => number)).size).toBe(pegs.length);
    expect(toPegWords(['0', '7a', '7b', '7c', '7', '8a', '8b', '9'])).toBe('0, 7a–7c, 7, 8a, 8b, 9');
  });
  test('another colour of one wire: the pages with the cards of its ends are stale, whatever its run does', () => {
    const { circuits, ends } = hung.looms.inlet!;
    const [circuitId, circuit] = Object.entries(circuits).find(([, one]) =>
      one.terminations.some(({ endId }) => ends[endId]!.nodeId === 'n-inj1' || endId === 'inj1'),
    )!;
    const job = changeDocument(hung, ({ looms }) => {
      looms.inlet!.circuits[circuitId]!.colour = { base: circuit.colour.base === 'pink' ? 'grey' : 'pink', stripe: 'white', bands: [] };
    });
    const { again, added, gone } = compare(tilesOf(job));
    expect([added, gone]).toEqual([[], []]);
    expect(again.length).toBeGreaterThan(0);
    expect(again.length).toBeLessThan(printed.tiles.length);
  });
  test('another scale, other paper and a mirrored loom begin a print of their own: all that hangs is stale', () => {
    const smaller = changeDocument(hung, ({ looms }) => void (looms.inlet!.board.printerId = CATALOGUE.printers[1]!.id));
    const mirrored = changeDocument(hung, ({ looms }) => void (looms.inlet!.board.isMirrored = true));
    for (const map of [tilesOf(hung, 1.0142), tilesOf(smaller), tilesOf(mirrored)]) {
      const numbers = map.tiles.map(({ number }) => number);
      expect(numbers).toEqual(numbers.map((_, index) => index + 1));
      const { again, gone } = compare(map);
      expect(again.length + gone.length).toBe(printed.tiles.length);
    }
  });
  test('a print that was hung before anybody kept where it begins is compared page by page', () => {
    const old = changeDocument(hung, ({ looms }) => {
      const print = looms.inlet!.board.printed!;
      Object.assign(print, { grid: null, tiles: print.tiles.map((tile) => ({ ...tile, column: null, row: null })) });
    });
    expect(compareTiles(tilesOf(old), old.looms.inlet!.board.printed!.tiles)).toEqual({ again: [], added: [], gone: [] });
    expect(compare(tilesOf(fit(old, legs[0]!, 12))).again.length).toBeGreaterThan(0);
  });
});

describe('a plank: the trunk as one line (craft C)', () => {
  const job = createSkerry();
  const planned = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'chassis')!;
  const plank = planPlank(job, planned);
  test('stations lie where the tree says, in order, and every end is named once', () => {
    for (const { nodeId, atMm } of plank.stations) expect(atMm).toBeCloseTo(planned.tree.nodes[nodeId]!.distanceMm, 6);
    expect(plank.stations.map(({ atMm }) => atMm)).toEqual(plank.stations.map(({ atMm }) => atMm).sort((a, b) => a - b));
    const words = plank.stations.flatMap(({ name, branches }) => [name, ...branches.map((one) => one.words)]).join('\n');
    const { nodes, ends } = job.looms.chassis!;
    for (const { nodeId } of Object.values(ends)) expect(words).toContain(nodes[nodeId]!.name);
  });
  test('a branch is told with its length and what lies beyond it', () => {
    const told = plank.stations.flatMap(({ branches }) => branches.map(({ words }) => words));
    for (const words of told) expect(words).toMatch(/ \d+(: .+)?$/);
    expect(told.some((words) => words.includes(': '))).toBe(true);
  });
  test('no words lie on those of another station, and its pages stand in one row of the printer', () => {
    const drawing = drawPlank(plank);
    const boxes = drawing.marks.flatMap((mark) =>
      mark.kind === 'text' && mark.y > 45
        ? [{ left: mark.x, right: mark.x + measureText(mark.text, mark.size, mark.face), top: mark.y - mark.size * 0.7, bottom: mark.y }]
        : [],
    );
    boxes.forEach((a, index) => {
      for (const b of boxes.slice(index + 1))
        expect(a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom).toBe(false);
    });
    const { columns, rows, tiles } = listPlankTiles(plank, drawing, CATALOGUE.printers[0]!, 1);
    expect(rows).toBe(1);
    expect(tiles.at(-1)!.x + tiles.at(-1)!.widthMm).toBeGreaterThanOrEqual(drawing.widthMm);
    expect(columns).toBe(Math.ceil((drawing.widthMm - 10) / 390));
  });
});

describe('what is laid', () => {
  test('rings, blades and tails have the room that the shop says, housings their own', () => {
    const job = createSkerry();
    const planned = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'chassis')!;
    const catalogue = {
      ...CATALOGUE,
      standards: { larkhollow: { ...CATALOGUE.standards.larkhollow!, boardBareDepthMm: 33, boardBareHalfMm: 11 } },
    };
    const { ends } = job.looms.chassis!;
    const fixtures = createBoardTree(job, catalogue, planned, 40).pieces.flatMap(({ fixture }) => fixture ?? []);
    const [bare, housed] = [true, false].map((isBare) => fixtures.filter(({ endId }) => (ends[endId]!.familyId === null) === isBare));
    expect([bare!.length > 0, housed!.length > 0]).toEqual([true, true]);
    for (const one of bare!) expect(one).toMatchObject({ depthMm: 33, halfMm: 11 });
    for (const one of housed!) expect(one.depthMm).toBe(CATALOGUE.families[ends[one.endId]!.familyId!]!.entryDepthMm);
  });
  test.each(['inlet', 'engine', 'chassis', 'gearbox'])(
    '%s: every run as long as planned, pegs at ends, forks and every 150 mm, nothing too near',
    (loomId) => {
      const job = layOut(createSkerry(), loomId, loomId === 'chassis' ? runs(50_000, BOARD_TRIES) : runs(10_000, 20_000));
      const { looms } = plan(job, CATALOGUE);
      const planned = looms.find((one) => one.loomId === loomId)!;
      const board = boardOf(job, loomId);
      expect(board.by).toBe('search');
      for (const run of board.runs) expect(Math.abs(lengthOf(run) - planned.tree.segments[run.segmentId]!.lengthMm)).toBeLessThan(1);
      expect(board.tooNear).toEqual([]);
      expect(board.over).toEqual({ left: 0, top: 0, right: 0, bottom: 0 });
      // every wire is as long on the board as its way in the route
      for (const wire of planned.wires) {
        const drawn = wire.pieces.reduce((sum, { segmentId, fromMm, toMm }) => {
          const run = board.runs.find((one) => one.segmentId === segmentId)!;
          return sum + (lengthOf(run) * (toMm - fromMm)) / run.lengthMm;
        }, 0);
        expect(Math.abs(drawn - wire.pieces.reduce((sum, { fromMm, toMm }) => sum + toMm - fromMm, 0))).toBeLessThan(1);
      }
      const fixtures = board.ends.filter(
        ({ endId }) => planned.tree.nodes[job.looms[loomId]!.ends[endId]!.nodeId]!.parentSegmentId !== null,
      );
      expect(board.pegs.filter(({ kind }) => kind === 'end')).toHaveLength(fixtures.length);
      for (const run of board.runs) {
        const along = board.pegs.filter((peg) => peg.segmentId === run.segmentId && peg.kind === 'along').map(({ atMm }) => atMm!);
        const gaps = [...along, run.lengthMm].map((at, index) => at - (along[index - 1] ?? 0));
        expect(Math.max(...gaps)).toBeLessThanOrEqual(151);
      }
      // none stands in a run
      for (const peg of board.pegs)
        for (const { points, odMm } of board.runs)
          points.slice(1).forEach((to, index) => {
            const from = points[index]!;
            const long = Math.hypot(to.x - from.x, to.y - from.y);
            const share = Math.max(
              0,
              Math.min(1, ((peg.x - from.x) * (to.x - from.x) + (peg.y - from.y) * (to.y - from.y)) / (long * long)),
            );
            const apart = Math.hypot(peg.x - from.x - (to.x - from.x) * share, peg.y - from.y - (to.y - from.y) * share);
            if (apart < odMm / 2 + peg.diameterMm / 2 - 0.6) expect([peg, long]).toEqual(['a peg outside', 'of the run']);
          });
    },
  );
  test('mirrored, all of it lies on the other side of the middle, and is as long', () => {
    const board = boardOf(laidOut);
    const other = boardOf(changeDocument(laidOut, ({ looms }) => void (looms.inlet!.board.isMirrored = true)));
    board.nodes.forEach(({ x, y }, index) => {
      expect(other.nodes[index]!.x).toBeCloseTo(board.board.widthMm - x, 6);
      expect(other.nodes[index]!.y).toBeCloseTo(y, 6);
    });
    other.runs.forEach((run, index) => expect(lengthOf(run)).toBeCloseTo(lengthOf(board.runs[index]!), 6));
    board.ends.forEach(({ deg }, index) =>
      expect(Math.cos((other.ends[index]!.deg * Math.PI) / 180)).toBeCloseTo(-Math.cos((deg * Math.PI) / 180), 6),
    );
  });
  test('a fork turned by hand turns alone, to the side that it is told, and is kept by a search', () => {
    const before = boardOf(laidOut);
    const turns = Object.fromEntries(before.runs.flatMap(({ segmentId, turnDeg }) => (turnDeg === null ? [] : [[segmentId, turnDeg]])));
    const place = { loomId: 'inlet', segmentId: 's-inj1', name: 'injector 1' };
    const deg = turns['s-inj1']! > 0 ? -65 : 65;
    const turned = changeDocument(laidOut, turnFork(place, deg, { turns, at: before.at }).apply);
    const after = boardOf(turned);
    const moved = after.runs.filter(
      ({ points }, index) =>
        Math.hypot(points.at(-1)!.x - before.runs[index]!.points.at(-1)!.x, points.at(-1)!.y - before.runs[index]!.points.at(-1)!.y) > 0.01,
    );
    expect(moved.map(({ segmentId }) => segmentId)).toEqual(['s-inj1']);
    // its side is its own now, and the bound is of that side
    expect(after.areaMm2).toBeGreaterThanOrEqual(after.boundMm2);
    expect(layOut(turned).looms.inlet!.board.turns['s-inj1']).toEqual({ deg, pinned: true });
  });
  test('a fold keeps the length of its run; one that has no room is named', () => {
    const place = { loomId: 'inlet', segmentId: 't1', name: 'trunk' };
    const longest = boardOf(laidOut).runs.reduce((best, one) => (one.lengthMm > best.lengthMm ? one : best));
    const folded = boardOf(changeDocument(laidOut, foldRun({ ...place, segmentId: longest.segmentId }, { atMm: 10, deg: 90 }).apply));
    const run = folded.runs.find(({ segmentId }) => segmentId === longest.segmentId)!;
    expect(run.fold).not.toBeNull();
    expect(Math.abs(lengthOf(run) - longest.lengthMm)).toBeLessThan(1);
    const short = boardOf(laidOut).runs.reduce((best, one) => (one.lengthMm < best.lengthMm ? one : best));
    const lost = boardOf(
      changeDocument(laidOut, ({ looms }) => {
        looms.inlet!.segments[short.segmentId]!.lengthMm = 5;
        foldRun({ ...place, segmentId: short.segmentId }, { atMm: 0, deg: 180 }).apply({ looms } as Job);
      }),
    );
    expect(lost.lostFolds).toEqual([short.segmentId]);
  });
  test('what is not fitted says by how much it may lie otherwise; what is fitted throughout does not', () => {
    const sigmaOf = (job: Job) => Object.fromEntries(boardOf(job).ends.map(({ endId, sigmaMm }) => [endId, sigmaMm]));
    expect(Object.values(sigmaOf(laidOut)).filter((mm) => mm > 0).length).toBeGreaterThan(5);
    const fitted = changeDocument(laidOut, ({ looms }) => {
      for (const segment of Object.values(looms.inlet!.segments)) Object.assign(segment, { status: 'fitted', fittedMm: segment.lengthMm });
    });
    expect(Object.values(sigmaOf(fitted)).every((mm) => mm === 0)).toBe(true);
  });
});
