import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { createBuild } from '../../make';
import { plan, type LoomPlan } from '../../plan';
import { createSheets } from '../sheets/createSheets';
import type { Drawing, Mark } from '../drawing';
import { drawBreakoutStack, drawEndStack } from './drawStack';
import { toStackedRun } from './toStackedRun';

const job = createCleanSkerry();
const whole = plan(job, CATALOGUE);
const loom = whole.looms.find(({ loomId }) => loomId === 'engine')!;
const dressed = <T extends { pieces: readonly unknown[] }>(list: readonly T[]) => list.filter(({ pieces }) => pieces.length > 0);
const drawn = [
  ...dressed(loom.endDress).map((one) => ({ name: one.endId, one, drawing: drawEndStack(one, toStackedRun(loom, one.segmentId)) })),
  ...dressed(loom.breakoutDress).map((one) => ({
    name: one.nodeId,
    one,
    drawing: drawBreakoutStack(
      one,
      toStackedRun(loom, one.trunkSegmentId),
      one.legSegmentIds.map((id) => toStackedRun(loom, id)),
    ),
  })),
];
const points = (mark: Mark): [number, number][] =>
  mark.kind === 'path'
    ? [...mark.d.matchAll(/(-?[\d.]+(?:e-?\d+)?) (-?[\d.]+(?:e-?\d+)?)/g)].map(([, x, y]) => [Number(x), Number(y)])
    : mark.kind === 'rect'
      ? [
          [mark.x, mark.y],
          [mark.x + mark.w, mark.y + mark.h],
        ]
      : mark.kind === 'circle'
        ? [
            [mark.x - mark.r, mark.y - mark.r],
            [mark.x + mark.r, mark.y + mark.r],
          ]
        : [[mark.x, mark.y]];
const toScale = ({ marks }: Drawing) =>
  Number(/drawn ([\d.]+) : 1/.exec(marks.map((mark) => (mark.kind === 'text' ? mark.text : '')).join(' '))![1]);
/** Walls of pieces: filled paths of four points or more along each edge. */
const walls = ({ marks }: Drawing, fill: string) => marks.filter((mark) => mark.kind === 'path' && mark.fill === fill);
const reach = (marks: readonly Mark[], axis: 0 | 1) => {
  const all = marks.flatMap(points).map((point) => point[axis]);
  return Math.max(...all) - Math.min(...all);
};

test('the demo has ends and breakouts that something goes over', () => expect(drawn.length).toBeGreaterThan(5));

test.each(drawn.map((one) => [one.name, one] as const))(
  '%s: all of it is on its paper, numbered, at the scale that it names',
  (_, { one, drawing }) => {
    for (const [x, y] of drawing.marks.flatMap(points)) {
      expect(x).toBeGreaterThanOrEqual(0);
      expect(x).toBeLessThanOrEqual(drawing.widthMm);
      expect(y).toBeGreaterThanOrEqual(0);
      expect(y).toBeLessThanOrEqual(drawing.heightMm);
    }
    const numbers = drawing.marks.filter((mark) => mark.kind === 'text' && /^\d+$/.test(mark.text));
    expect(numbers).toHaveLength(one.pieces.length);
    const scale = toScale(drawing);
    // build-up: as long as it lies, as thick as it gets
    const built = one.pieces.filter(({ role }) => role === 'build-up');
    const marks = walls(drawing, '#e3cf9c');
    expect(marks).toHaveLength(2 * built.length);
    built.forEach((piece, at) => {
      const pair = marks.slice(2 * at, 2 * at + 2);
      expect(reach(pair, 0)).toBeCloseTo((piece.toMm - piece.fromMm) * scale, 6);
      expect(reach(pair, 1)).toBeCloseTo(Math.max(piece.overMm, piece.underMm + 1 / scale) * scale, 6);
    });
    // what goes over the joint as well
    const over = one.pieces.at(-1)!;
    expect(reach(walls(drawing, '#c9d3d5'), 0)).toBeCloseTo((over.toMm - over.fromMm) * scale, 6);
  },
);

test('a lined piece has its inside drawn heavy, another has not', () => {
  const heavy = (drawing: Drawing) => drawing.marks.filter((mark) => mark.kind === 'path' && mark.stroke === '#1f7a80').length;
  for (const { one, drawing } of drawn) expect(heavy(drawing)).toBe(2 * one.pieces.filter(({ isLined }) => isLined).length);
  expect(drawn.some(({ drawing }) => heavy(drawing) > 0)).toBe(true);
});

describe('the sheet', () => {
  const makeSheets = (planned: LoomPlan) => {
    const pack = { job, whole, plan: planned, build: createBuild(job, planned, CATALOGUE), findings: [], catalogue: CATALOGUE };
    return createSheets(pack, { paper: 'A4', job: job.name, loom: planned.loomId, revision: 'draft', date: '2026-11-27' }).filter(
      ({ sheet }) => sheet === 'Dress',
    );
  };
  test('has every piece with what is cut of it, and what stands back while an end is made', () => {
    const words = makeSheets(loom)
      .flatMap(({ marks }) => marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : [])))
      .join(' ');
    for (const { itemName, table, cutMm } of drawn.flatMap(({ one }) => one.pieces)) {
      expect(words).toContain(itemName);
      if (table === 'coverings') expect(words).toContain(` ${cutMm} `);
    }
    expect(words.match(/While it is made:/g)).toHaveLength(dressed(loom.endDress).length);
  });
  test('is there only where something goes over ends or breakouts', () =>
    expect(makeSheets(whole.looms.find(({ loomId }) => loomId === 'inlet')!)).toEqual([]));
});
