import { CATALOGUE } from '../catalogue';
import { createInlet } from '../demo';
import { drawSleeves, printSleeves } from '../draw';
import { listMarks, plan, toLabelOrders, type PlannedMark } from '../plan';
import { fromLabelList, toLabelsCsv } from './index';

const job = createInlet();
const marks = listMarks(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE);
const HEAD = 'sleeve,legend,letter mm,pieces';

test('the list of labels, read by the printer that stands in for a real one, comes out as the plan has it', () => {
  const { orders, problems } = fromLabelList(toLabelsCsv(job, 'inlet', marks), CATALOGUE.labels);
  expect(problems).toEqual([]);
  expect(orders).toEqual(toLabelOrders(marks));
  const printed = printSleeves(orders, CATALOGUE);
  expect(printed.flatMap(({ sleeves }) => sleeves)).toHaveLength(
    marks.reduce((sum, { pieces, stockId }) => sum + (stockId ? pieces : 0), 0),
  );
  expect(printed.map(({ stock }) => stock.suppliedBoreMm)).toEqual(printed.map(({ stock }) => stock.suppliedBoreMm).sort((a, b) => a - b));
  for (const { sleeves, packs } of printed) expect(packs!.opened * 250 - packs!.left).toBe(sleeves.length);
});

test('legends of several lines, with quotes, or like a formula go through the file', () => {
  const mark: PlannedMark = { ...marks[0]!, stockId: 'label-6.4', legend: { lines: ['=1+1', 'say "on", then'], capMm: 2, fits: true } };
  expect(fromLabelList(toLabelsCsv(job, 'inlet', [mark]), CATALOGUE.labels)).toEqual({ orders: toLabelOrders([mark]), problems: [] });
});

test('what cannot be printed is named with its line, the rest is printed', () => {
  const { orders, problems } = fromLabelList(
    `${HEAD}\nlabel-2.4,A,2,1\nnone,B,2,1\nlabel-2.4,C,0,1\nlabel-2.4,D,2,201\nlabel-2.4,E,2,-1\nlabel-2.4,F,2,3\nlabel-2.4,G,Infinity,1\n`,
    CATALOGUE.labels,
  );
  expect(orders.map(({ lines, pieces }) => [lines[0], pieces])).toEqual([
    ['A', 1],
    ['F', 3],
  ]);
  expect(problems).toEqual([
    { path: 'line 3', message: 'expected a marker sleeve of the shop, got "none"' },
    { path: 'line 4', message: 'expected letters of more than 0 and up to 100 mm, got "0"' },
    { path: 'line 5', message: 'expected up to 200 pieces, got "201"' },
    { path: 'line 6', message: 'expected up to 200 pieces, got "-1"' },
    { path: 'line 8', message: 'expected letters of more than 0 and up to 100 mm, got "Infinity"' },
  ]);
  expect(fromLabelList('sleeve,legend\na,b\n', CATALOGUE.labels).problems.map(({ message }) => message)).toEqual([
    'expected a column letter mm',
    'expected a column pieces',
  ]);
  const many = `${HEAD}\n${'label-2.4,A,2,200\n'.repeat(101)}`;
  expect(fromLabelList(many, CATALOGUE.labels)).toEqual({
    orders: [],
    problems: [{ path: 'line 102', message: 'expected at most 20000 sleeves in all' }],
  });
});

test('a line longer than the face allows is cut off, by how much is told; sleeves lie at true size and not on each other', () => {
  const [printed] = printSleeves(
    [
      { stockId: 'label-4.8', lines: ['W'.repeat(40)], capMm: 2, pieces: 1 },
      { stockId: 'label-4.8', lines: ['I-1'], capMm: 2, pieces: 9 },
    ],
    CATALOGUE,
  );
  // 40 letters of 0.774 of 2 / 0.686 mm are 90.26 mm, on 36 mm
  expect(printed!.sleeves.map(({ cutOffMm }) => cutOffMm)).toEqual([54.26, ...Array<number>(9).fill(0)]);
  const drawing = drawSleeves(printed!, 160);
  const boxes = drawing.marks.flatMap((mark) => (mark.kind === 'rect' ? [mark] : []));
  expect(boxes).toHaveLength(10);
  for (const { x, y, w, h } of boxes) {
    expect([w, Number(h.toFixed(2))]).toEqual([38, Number(((Math.PI * 4.8) / 2).toFixed(2))]);
    expect(x + w).toBeLessThanOrEqual(160);
    expect(y + h).toBeLessThanOrEqual(drawing.heightMm);
    expect(boxes.filter((other) => Math.abs(other.x - x) < w && Math.abs(other.y - y) < h)).toHaveLength(1);
  }
});
