import DxfParser from 'dxf-parser';
import { CATALOGUE } from '../../catalogue';
import { createInlet } from '../../demo';
import { toBoardJson, toPegsCsv } from '../../exchange';
import { planBoard } from '../../make';
import { plan } from '../../plan';
import { toDxf } from '../toDxf';
import { toSvg } from '../toSvg';
import { BOARD_LAYERS, drawBoard } from './drawBoard';
import { drawTiles } from './drawTiles';
import { listTiles } from './listTiles';
import { measureText } from '../measureText';
import { LARGE, placeEndCards, SMALL } from './placeEndCards';

const job = createInlet();
const planned = plan(job, CATALOGUE).looms[0]!;
const board = planBoard(job, CATALOGUE, planned);
const drawing = drawBoard(job, CATALOGUE, planned, board);
const along = (points: readonly { x: number; y: number }[]) =>
  points.slice(1).reduce((sum, { x, y }, index) => sum + Math.hypot(x - points[index]!.x, y - points[index]!.y), 0);
const lengths = board.runs.map(({ segmentId }) => planned.tree.segments[segmentId]!.lengthMm).sort((a, b) => a - b);
const near = (got: readonly number[], wanted: readonly number[]) => {
  expect(got).toHaveLength(wanted.length);
  got.forEach((mm, index) => expect(Math.abs(mm - wanted[index]!)).toBeLessThan(0.1));
};

test('as DXF another program reads every run at its length, every peg, and the layers by name', () => {
  const parsed = new DxfParser().parseSync(toDxf([drawing]))!;
  expect(Object.keys(parsed.tables.layer.layers)).toEqual(expect.arrayContaining(Object.values(BOARD_LAYERS)));
  const entities = parsed.entities as unknown as {
    layer: string;
    vertices?: { x: number; y: number }[];
    center?: { x: number; y: number };
    radius?: number;
    text?: string;
  }[];
  near(
    entities.flatMap(({ layer, vertices }) => (layer === 'RUNS' && vertices ? [along(vertices)] : [])).sort((a, b) => a - b),
    lengths,
  );
  const pegs = entities.filter(({ layer }) => layer === 'PEGS');
  expect(pegs.map(({ center, radius }) => [center!.x.toFixed(2), center!.y.toFixed(2), (2 * radius!).toFixed(1)])).toEqual(
    board.pegs.map(({ x, y, diameterMm }) => [x.toFixed(2), (board.board.heightMm - y).toFixed(2), diameterMm.toFixed(1)]),
  );
  const words = entities.flatMap(({ layer, text }) => ((layer === 'WORDS' || layer === 'CARDS') && text ? [text] : []));
  for (const { name } of board.ends) expect(words).toContain(name);
});

test('as SVG it is as large as the board, and its lines as long as the runs', () => {
  const svg = toSvg(drawing);
  expect(svg).toMatch(/^<svg [^>]*width="3000mm" height="1250mm" viewBox="0 0 3000 1250"/);
  const drawn = [...svg.matchAll(/<path d="(M[^"Z]+)" fill="none" stroke="#14242b" stroke-width="0.4"/g)].map(([, d]) =>
    along(
      d!
        .slice(1)
        .split('L')
        .map((pair) => {
          const [x, y] = pair.split(' ').map(Number);
          return { x: x!, y: y! };
        }),
    ),
  );
  near(
    drawn.sort((a, b) => a - b),
    lengths,
  );
});

test.each([1, 1.0142])('pages at × %d: paper of the printer, a bar of 100 mm as much longer, and what a map says', (scale) => {
  const map = listTiles(drawing, board, scale);
  const pages = drawTiles(drawing, board, map, { job: 'Skerry', loom: 'inlet', revision: 'revision 1', date: '2026-11-28', scale });
  expect(pages).toHaveLength(map.tiles.length);
  pages.forEach(({ widthMm, heightMm, marks }, index) => {
    expect([widthMm, heightMm]).toEqual([420, 297]);
    const [window] = marks.flatMap((mark) => (mark.kind === 'window' ? [mark] : []));
    // what it shows comes to lie where the page says
    expect([window!.from[0], window!.from[1], window!.scale]).toEqual([map.tiles[index]!.x, map.tiles[index]!.y, scale]);
    const bars = marks.flatMap((mark) => {
      const [, x1, y1, x2, y2] = mark.kind === 'path' && mark.width === 0.4 ? (/^M(\S+) (\S+)L(\S+) (\S+)$/.exec(mark.d) ?? []) : [];
      return x1 === undefined ? [] : [Math.hypot(Number(x2) - Number(x1), Number(y2) - Number(y1))];
    });
    expect(bars).toHaveLength(1);
    expect(bars[0]).toBeCloseTo(100 * scale, 9);
    const words = marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : [])).join('\n');
    expect(words).toContain(`page ${index + 1} of ${pages.length}`);
    expect(words).toContain(map.tiles[index]!.fingerprint);
    expect(words).toContain('revision 1');
    for (const mark of marks) if (mark.kind === 'text') expect(mark.size).toBeGreaterThanOrEqual(3.17);
  });
});

test('lists for other programs say the same: pegs as CSV, the board as JSON', () => {
  const lines = toPegsCsv(board).trim().split(/\r?\n/);
  expect(lines).toHaveLength(board.pegs.length + 1);
  expect(lines[0]).toBe('peg,kind,x mm,y mm,diameter mm,run,along mm,of mm,at');
  const json = toBoardJson(board, listTiles(drawing, board, 1)) as {
    segments: { id: string; lengthMm: number; points: { x: number; y: number }[] }[];
    pegs: unknown[];
    tiles: { pages: unknown[] };
  };
  for (const { lengthMm, points } of json.segments) expect(Math.abs(along(points) - lengthMm)).toBeLessThan(1);
  expect(json.pegs).toHaveLength(board.pegs.length);
  expect(json.tiles.pages).toHaveLength(listTiles(drawing, board, 1).tiles.length);
});

describe('cards beside ends', () => {
  const { marks, endIds } = placeEndCards(job, CATALOGUE, planned, board);
  const boxes = marks.flatMap((mark) =>
    mark.kind === 'text' && mark.size === SMALL
      ? [{ left: mark.x, right: mark.x + measureText(mark.text, mark.size, mark.face), top: mark.y - mark.size * 0.7, bottom: mark.y }]
      : [],
  );
  test('most ends have one, with every wire of theirs by cavity', () => {
    expect(endIds.size).toBeGreaterThan(board.ends.length * 0.6);
    const words = marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
    for (const { endId, wireIds } of planned.terminations)
      if (endIds.has(endId)) for (const id of wireIds) expect(words).toContain(planned.wires.find((wire) => wire.id === id)!.number);
  });
  test('they lie on no run, and their words on no others', () => {
    expect(boxes.length).toBeGreaterThan(10);
    // one list for all: an expectation for each of a million points takes half a minute
    const wrong: string[] = [];
    boxes.forEach((a, index) => {
      for (const b of boxes.slice(index + 1))
        if (a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom) wrong.push(`${index} on words`);
      for (const { points } of board.runs)
        points.slice(1).forEach((to, at) => {
          const from = points[at]!;
          for (let share = 0; share <= 1; share += 0.02) {
            const [x, y] = [from.x + (to.x - from.x) * share, from.y + (to.y - from.y) * share];
            if (x > a.left && x < a.right && y > a.top && y < a.bottom) wrong.push(`${index} at ${x}, ${y}`);
          }
        });
    });
    expect(wrong).toEqual([]);
  });
  test('an end has its name once, with a card or without', () => {
    const names = drawing.marks.flatMap((mark) => (mark.kind === 'text' && mark.size === LARGE ? [mark.text] : []));
    for (const { name } of board.ends) expect(names.filter((one) => one === name)).toHaveLength(1);
  });
});

test('each card has the code of its end where it lies on nothing, printed alone when it is said where it leads', () => {
  const cards = placeEndCards(job, CATALOGUE, planned, board);
  expect(cards.codes.map(({ card }) => card).sort()).toEqual([...cards.endIds].map((id) => `end ${id}`).sort());
  const lead = (card: string) =>
    `http://bench.local:8080/jobs/5ee12000-0000-4000-8000-000000000012/floor?loom=inlet&card=${encodeURIComponent(card)}`;
  const coded = drawBoard(job, CATALOGUE, planned, board, lead);
  const codes = coded.marks.filter((mark) => !drawing.marks.some((one) => JSON.stringify(one) === JSON.stringify(mark)));
  expect(coded.marks.length).toBe(drawing.marks.length + cards.codes.length);
  expect(codes).toHaveLength(cards.codes.length);
  expect(codes.every(({ layer }) => layer === BOARD_LAYERS.cards)).toBe(true);
  const others = cards.marks.flatMap((mark) =>
    mark.kind === 'text'
      ? [{ x: mark.x, y: mark.y - mark.size * 0.8, w: measureText(mark.text, mark.size, mark.face ?? 'narrow'), h: mark.size }]
      : [],
  );
  for (const { x, y, sizeMm } of cards.codes)
    for (const one of others)
      expect(x + sizeMm <= one.x + 0.1 || one.x + one.w <= x + 0.1 || y + sizeMm <= one.y + 0.1 || one.y + one.h <= y + 0.1).toBe(true);
});
