import DxfParser from 'dxf-parser';
import { CATALOGUE } from '../catalogue';
import { createInlet } from '../demo';
import { createBuild, listFindings } from '../make';
import { plan } from '../plan';
import type { Drawing, Mark } from './drawing';
import { line, text } from './drawing';
import { flattenPath } from './flattenPath';
import { createSheets } from './index';
import { toDxf } from './toDxf';

interface Read {
  type: string;
  layer: string;
  vertices?: { x: number; y: number }[];
  shape?: boolean;
  center?: { x: number; y: number };
  radius?: number;
  text?: string;
  startPoint?: { x: number; y: number };
  color?: number;
}
/** As another program reads it. */
const read = (drawings: readonly Drawing[]) => {
  const parsed = new DxfParser().parseSync(toDxf(drawings))!;
  return {
    entities: parsed.entities as unknown as Read[],
    header: parsed.header as Record<string, unknown>,
    layers: Object.keys(parsed.tables.layer.layers),
  };
};
const page = (marks: Mark[]): Drawing => ({ widthMm: 100, heightMm: 60, marks });

test('lines, circles and words stand where they are drawn, at true size in millimetres, y upwards', () => {
  const { entities, header, layers } = read([
    page([
      line([10, 20], [40, 20], 0.3, '#b3261e'),
      { kind: 'circle', x: 50, y: 30, r: 12.5, fill: null, stroke: '#14242b', width: 0.2 },
      { kind: 'rect', x: 5, y: 6, w: 20, h: 10, fill: '#ffffff', stroke: '#14242b', width: 0.2 },
      text(7, 9, 'N-203 Ø 4 & <x>', 3),
    ]),
  ]);
  expect(header.$INSUNITS).toBe(4);
  expect(layers).toEqual(expect.arrayContaining(['LINES', 'FILLS', 'WORDS']));
  const [straight, round, box, words] = entities;
  expect(straight!.vertices!.map(({ x, y }) => [x, y])).toEqual([
    [10, 40],
    [40, 40],
  ]);
  expect(straight!.color).toBe(0xb3261e);
  expect([round!.center!.x, round!.center!.y, round!.radius]).toEqual([50, 30, 12.5]);
  expect(box!.vertices!.map(({ x, y }) => [x, y])).toEqual([
    [5, 54],
    [25, 54],
    [25, 44],
    [5, 44],
  ]);
  expect(box!.shape).toBe(true);
  expect([words!.text, words!.layer, words!.startPoint!.x, words!.startPoint!.y]).toEqual(['N-203 Ø 4 & <x>', 'WORDS', 7, 51]);
});

test('pages lie side by side; what is only filled is on a layer of its own, what is neither is left out', () => {
  const dot: Mark = { kind: 'circle', x: 10, y: 10, r: 1, fill: '#ffffff', stroke: null, width: 0 };
  const nothing: Mark = { ...dot, fill: null };
  const { entities } = read([page([dot, nothing]), page([dot])]);
  expect(entities.map(({ layer, center }) => [layer, center!.x])).toEqual([
    ['FILLS', 10],
    ['FILLS', 130],
  ]);
});

describe('a path as lines', () => {
  test('moves begin a new one, an end closes it', () =>
    expect(flattenPath('M0 0L10 0L10 5ZM1 1L2 2')).toEqual([
      {
        points: [
          [0, 0],
          [10, 0],
          [10, 5],
        ],
        isClosed: true,
      },
      {
        points: [
          [1, 1],
          [2, 2],
        ],
        isClosed: false,
      },
    ]));
  test('a curve is followed within a tenth of a millimetre', () => {
    const [only] = flattenPath('M0 0Q10 20 20 0');
    const on = (t: number) => [20 * t, 40 * t * (1 - t)] as const;
    for (let step = 0; step <= 200; step += 1) {
      const [x, y] = on(step / 200);
      const after = only!.points.findIndex((point) => point[0] >= x - 1e-9);
      const [a, b] = [only!.points[Math.max(0, after - 1)]!, only!.points[after]!];
      const share = b[0] === a[0] ? 0 : (x - a[0]) / (b[0] - a[0]);
      expect(Math.abs(a[1] + share * (b[1] - a[1]) - y)).toBeLessThan(0.25);
      // the way across the line, not straight up
      const slope = b[0] === a[0] ? 0 : (b[1] - a[1]) / (b[0] - a[0]);
      expect(Math.abs(a[1] + share * (b[1] - a[1]) - y) / Math.hypot(1, slope)).toBeLessThanOrEqual(0.1 + 1e-9);
    }
    expect(only!.points.at(-1)).toEqual([20, 0]);
  });
  test('what the writer never writes is refused', () => expect(() => flattenPath('M0 0C1 1 2 2 3 3')).toThrow('expected M, L, Q or Z'));
});

test('every sheet of a loom reads back with as many words as it has, and circles as large', () => {
  const job = createInlet();
  const whole = plan(job, CATALOGUE);
  const [loomPlan] = whole.looms;
  const pages = createSheets(
    {
      job,
      whole,
      plan: loomPlan!,
      build: createBuild(job, loomPlan!, CATALOGUE),
      findings: listFindings(job, whole, CATALOGUE, null),
      catalogue: CATALOGUE,
    },
    { paper: 'A4', job: job.name, loom: 'inlet', revision: '1', date: '2026-11-28' },
  );
  const marks = pages.flatMap((one) => one.marks);
  const { entities } = read(pages);
  const words = (list: readonly (string | undefined)[]) => [...list].sort();
  expect(words(entities.filter(({ type }) => type === 'TEXT').map((one) => one.text))).toEqual(
    words(marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []))),
  );
  const sum = (radii: readonly number[]) => radii.reduce((all, r) => all + r, 0);
  const seen = marks.flatMap((mark) =>
    mark.kind === 'circle' && (mark.fill !== null || (mark.stroke !== null && mark.width > 0)) ? [mark.r] : [],
  );
  expect(sum(entities.filter(({ type }) => type === 'CIRCLE').map((one) => one.radius!))).toBeCloseTo(sum(seen), 3);
});
