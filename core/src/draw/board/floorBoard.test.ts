import { CATALOGUE } from '../../catalogue';
import { createInlet } from '../../demo';
import { findBoardPlace } from '../../make';
import { plan } from '../../plan';
import { toRangeWords } from '../../units';
import { createFloorBoard, toPresentBoard } from './createFloorBoard';
import { drawBoardPlace } from './drawBoardPlace';

const spread = (change: (board: ReturnType<typeof createInlet>['looms'][string]['board']) => void) => {
  const job = createInlet();
  change(job.looms.inlet!.board);
  const planned = plan(job, CATALOGUE).looms[0]!;
  return { planned, floor: createFloorBoard(job, CATALOGUE, planned) };
};
const { planned, floor } = spread((board) => (board.at = { xMm: 200, yMm: 600 }));

test('a loom that nobody spread has no board on the floor', () => expect(spread(() => undefined).floor).toBeNull());

test('a board that was frozen when pegs were counted through is drawn with those numbers', () => {
  const { planned: laid, tiles } = floor!;
  const counted = { ...laid, pegs: laid.pegs.map((peg, index) => ({ ...peg, number: (index + 1) as unknown as string })) };
  const present = toPresentBoard({ planned: counted, tiles });
  const place = findBoardPlace(planned.tree, present.planned, tiles, planned.wires[0]!.pieces);
  expect(place.pegs.length).toBeGreaterThan(0);
  for (const number of place.pegs) expect(number).toMatch(/^\d+$/);
  for (const mark of drawBoardPlace(present.planned, place).marks) if (mark.kind === 'text') expect(typeof mark.text).toBe('string');
});

test('the marks are those of its print: another length makes another one, where it is drawn', () => {
  const other = spread((board) => {
    board.at = { xMm: 200, yMm: 600 };
    board.turns = { 's-inj1': { deg: 70, pinned: true } };
  }).floor!;
  const marks = new Set(floor!.tiles.map(({ fingerprint }) => fingerprint));
  expect(other.tiles.some(({ fingerprint }) => !marks.has(fingerprint))).toBe(true);
});

test('a wire is laid between the pegs of its own way, from its first node to its last, on the pages that show them', () => {
  const { pegs } = floor!.planned;
  for (const wire of planned.wires) {
    const place = findBoardPlace(planned.tree, floor!.planned, floor!.tiles, wire.pieces);
    const runs = new Set(wire.pieces.map(({ segmentId }) => segmentId));
    expect(new Set(place.segmentIds)).toEqual(runs);
    const nodes = new Set([...runs].flatMap((id) => [planned.tree.segments[id]!.nearNodeId, planned.tree.segments[id]!.farNodeId]));
    const own = pegs.filter(({ number }) => place.pegs.includes(number));
    expect(own.every(({ segmentId, nodeId }) => (segmentId === null ? nodes.has(nodeId!) : runs.has(segmentId)))).toBe(true);
    // every peg along a run that it lies in from end to end
    const whole = wire.pieces.filter(({ segmentId, fromMm, toMm }) => fromMm === 0 && toMm === planned.tree.segments[segmentId]!.lengthMm);
    for (const { segmentId } of whole) for (const peg of pegs) if (peg.segmentId === segmentId) expect(place.pegs).toContain(peg.number);
    for (const page of place.pages) {
      const { x, y, widthMm, heightMm } = floor!.tiles.find(({ number }) => number === page)!;
      const on = [...own, ...floor!.planned.runs.filter(({ segmentId }) => runs.has(segmentId)).flatMap(({ points }) => points)];
      expect(on.some((point) => point.x >= x && point.x <= x + widthMm && point.y >= y && point.y <= y + heightMm)).toBe(true);
    }
    if (wire.pieces.length > 0) expect([place.pegs.length > 0, place.pages.length > 0]).toEqual([true, true]);
  }
});

test('its picture has the way heavy, the rest thin, and stays small', () => {
  const place = findBoardPlace(
    planned.tree,
    floor!.planned,
    floor!.tiles,
    planned.wires.reduce((a, b) => (b.cutMm > a.cutMm ? b : a)).pieces,
  );
  const { marks, widthMm, heightMm } = drawBoardPlace(floor!.planned, place);
  const paths = marks.flatMap((mark) => (mark.kind === 'path' ? [mark] : []));
  expect(paths).toHaveLength(floor!.planned.runs.length);
  expect(paths.filter(({ width }) => width > 2)).toHaveLength(place.segmentIds.length);
  for (const mark of marks)
    if (mark.kind === 'circle') expect([mark.x > 0 && mark.x < widthMm, mark.y > 0 && mark.y < heightMm]).toEqual([true, true]);
  const named = marks.flatMap((mark) => (mark.kind === 'text' && /^\d+[a-z]*$/.test(mark.text) ? [mark.text] : []));
  expect(named.length).toBeGreaterThan(1);
  for (const number of named) expect(place.pegs).toContain(number);
});

test.each([
  [[], ''],
  [[4], '4'],
  [[5, 4], '4, 5'],
  [[9, 3, 5, 7, 6, 5, 12, 8], '3, 5–9, 12'],
])('%j is said as %p', (numbers, words) => expect(toRangeWords(numbers)).toBe(words));
