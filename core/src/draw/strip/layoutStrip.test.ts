import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry, createInlet } from '../../demo';
import { createRandomJob } from '../../demo/createRandomJob';
import type { Job } from '../../model';
import { plan, type LoomPlan } from '../../plan';
import { runs } from '../../testing/runs';
import { drawStrip } from '../drawStrip';
import { measureText } from '../measureText';
import { PAPER_DETAILS, SCREEN_DETAILS, zoomDetail } from './details';
import { fitStrip } from './fitStrip';
import { layoutStrip, toBlock } from './layoutStrip';
import { isOverlapping } from './nameZones';
import type { Box, StripOptions } from './stripDrawing';
import type { StripLayout } from './stripLayout';

/** The pane of the strip in its normal place on a screen of 1280 by 800. */
const PANE = { width: 764, height: 438 };
const BASE = { row: 18, left: 44, top: 36, text: 14 };

const skerry = createCleanSkerry();
const skerryPlan = plan(skerry, CATALOGUE);
const zonesOf = (job: Job) => new Map(Object.entries(job.zones).map(([id, { name, ambientC }]) => [id, `${name} ${ambientC} °C`]));
const fit = (job: Job, loom: LoomPlan, room = PANE, before: StripOptions | null = null) =>
  fitStrip(job.looms[loom.loomId]!, loom, { ...BASE, zones: zonesOf(job) }, room, SCREEN_DETAILS, before);

/** What must not lie on each other: words, and on them the ends of legs. */
function listCollisions({ ends, tags, zones }: StripLayout, options: StripOptions): string[] {
  const words: { of: string; box: Box }[] = [
    ...ends.flatMap((end) => (end.words ? [{ of: `name of ${end.name}`, box: end.words }] : [])),
    ...tags.map((tag) => ({ of: `tag ${tag.words}`, box: tag.box })),
    ...zones.map((zone) => ({ of: `zone ${zone.words}`, box: zone.box })),
  ];
  const blocks = ends.filter((end) => end.words).map((end) => ({ of: `end of ${end.name}`, box: toBlock(end, options) }));
  return words.flatMap((one, index) =>
    [...words.slice(index + 1), ...blocks].filter((other) => isOverlapping(one.box, other.box)).map((other) => `${one.of} on ${other.of}`),
  );
}

/** Words that a wire on its way down or up to another strip runs through. */
function listCrossed({ ends, listTraces }: StripLayout): string[] {
  const drops = listTraces().flatMap(({ parts }) =>
    parts.flatMap(({ d }) => {
      const points = [...d.matchAll(/([\d.-]+) ([\d.-]+)(?=[LQM]|$)/g)].map(([, x, y]) => [Number(x), Number(y)] as const);
      return points.slice(1).flatMap(([x, y], index) => {
        const [fromX, fromY] = points[index]!;
        return Math.abs(fromX - x) < 0.02 && Math.abs(fromY - y) > 1 ? [{ x, top: Math.min(y, fromY), bottom: Math.max(y, fromY) }] : [];
      });
    }),
  );
  return ends.flatMap(({ name, words }) =>
    words && drops.some(({ x, top, bottom }) => x > words.left && x < words.right && top < words.bottom - 3 && bottom > words.top + 3)
      ? [name]
      : [],
  );
}

test.each(skerryPlan.looms.map((loom) => [loom.loomId, loom] as const))(
  'the %s loom of the demo: no words on others or on the end of a leg, at any zoom',
  (loomId, loom) => {
    const fitted = fit(skerry, loom);
    for (const zoom of [1, 1.7, 4]) {
      const options = { ...fitted, scale: fitted.scale * zoom, detail: zoomDetail(fitted.detail, zoom) };
      const layout = layoutStrip(skerry.looms[loomId]!, loom, options);
      expect(listCollisions(layout, options)).toEqual([]);
      expect(listCrossed(layout)).toEqual([]);
    }
  },
);

test('on 1280 by 800 every leg of the chassis loom has its name in view, and no splice is left out', () => {
  const loom = skerryPlan.looms.find(({ loomId }) => loomId === 'chassis')!;
  const options = fit(skerry, loom);
  const layout = layoutStrip(skerry.looms.chassis!, loom, options);
  expect(layout.height).toBeLessThanOrEqual(PANE.height);
  expect(layout.width).toBeLessThanOrEqual(PANE.width);
  const legs = layout.ends.filter(({ segmentId }) => segmentId !== null);
  expect(legs).toHaveLength(Object.keys(skerry.looms.chassis!.ends).length - 1);
  for (const { words } of legs) {
    expect(words!.right).toBeLessThanOrEqual(PANE.width);
    expect(words!.top).toBeGreaterThanOrEqual(BASE.top);
    expect(words!.bottom).toBeLessThanOrEqual(PANE.height);
  }
  expect(layout.tags.flatMap(({ spliceIds }) => spliceIds).sort()).toEqual(loom.splices.map(({ id }) => id).sort());
});

test('seeded looms of 5 to 300 wires: no words on others or on the end of a leg, none crossed by a wire that drops', () => {
  let most = 0;
  // every third is as small and as large as all
  for (let seed = 1; seed <= 100; seed += runs(3, 1)) {
    const job = createRandomJob(seed, 5 + Math.round((295 * (seed - 1)) / 99));
    const [loom] = plan(job, CATALOGUE).looms;
    const options = fit(job, loom!);
    const layout = layoutStrip(job.looms.random!, loom!, options);
    expect({ seed, on: listCollisions(layout, options), crossed: listCrossed(layout) }).toEqual({ seed, on: [], crossed: [] });
    most = Math.max(most, loom!.wires.length);
  }
  expect(most).toBeGreaterThanOrEqual(300);
});

test('few wires lie apart below their trunk; many lie closer, on both sides; more room brings detail back', () => {
  const of = (loomId: string, room = PANE) =>
    fit(
      skerry,
      skerryPlan.looms.find((one) => one.loomId === loomId)!,
      room,
    ).detail;
  expect(of('gearbox')).toEqual(SCREEN_DETAILS[0]);
  expect(of('chassis').both).toBe(true);
  const places = [438, 700, 1100, 2500].map((height) => SCREEN_DETAILS.indexOf(of('chassis', { width: 1500, height })));
  expect(places).toEqual([...places].sort((a, b) => b - a));
  expect(places.at(-1)).toBeLessThan(places[0]!);
});

test('zoomed in, every wire comes to be as thick as that its stripe is seen', () => {
  for (const detail of [...SCREEN_DETAILS, ...PAPER_DETAILS]) expect(zoomDetail(detail, 1)).toEqual(detail);
  const last = SCREEN_DETAILS.at(-1)!;
  expect(zoomDetail(last, 3).pitch).toBeCloseTo(last.pitch * 3, 9);
  expect(zoomDetail(last, 40).pitch).toBe(SCREEN_DETAILS[0]!.pitch);
  const loom = skerryPlan.looms.find(({ loomId }) => loomId === 'chassis')!;
  const fitted = fit(skerry, loom);
  const options = { ...fitted, scale: fitted.scale * 6, detail: zoomDetail(fitted.detail, 6) };
  const widths = layoutStrip(skerry.looms.chassis!, loom, options)
    .listTraces()
    .flatMap(({ parts }) => parts.map(({ width }) => width));
  expect(Math.min(...widths)).toBeGreaterThan(2);
});

test('an edited loom keeps its branches on their sides as long as it fits', () => {
  const loom = skerryPlan.looms.find(({ loomId }) => loomId === 'chassis')!;
  const before = fit(skerry, loom);
  const job = structuredClone(skerry);
  const [segmentId] = loom.tree.nodes[loom.tree.datumId]!.childSegmentIds;
  job.looms.chassis!.segments[segmentId!]!.lengthMm += 10;
  const edited = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'chassis')!;
  const after = fit(job, edited, { ...PANE, height: PANE.height + 10 }, before);
  expect(after.detail).toEqual(before.detail);
  expect(after.sides).toEqual(before.sides);
  expect(after.scale).not.toBe(before.scale);
  // with no room for that it is laid out anew
  expect(fit(job, edited, { ...PANE, height: 300 }, before).detail).toEqual(SCREEN_DETAILS.at(-1));
});

test('lanes are few: where wires follow each other they share one, and no wire lies in the lane of another', () => {
  const job = createInlet();
  const [loom] = plan(job, CATALOGUE).looms;
  const { runs } = layoutStrip(job.looms.inlet!, loom!, { ...BASE, scale: 0.5, sides: null, detail: SCREEN_DETAILS[0]! });
  const trunk = runs.filter(
    ({ segmentId }) => loom!.tree.segments[segmentId]!.nearNodeId === loom!.tree.datumId || loom!.tree.segments[segmentId]!.onward,
  );
  const most = Math.max(...trunk.map(({ count }) => count));
  const lanes = (trunk[0]!.lanes.bottom - trunk[0]!.lanes.top) / SCREEN_DETAILS[0]!.pitch;
  expect(lanes).toBeGreaterThanOrEqual(most);
  expect(lanes).toBeLessThanOrEqual(most * 1.2);
});

test('on paper the strip of a large loom stays on the sheet, with every leg named', () => {
  const loom = skerryPlan.looms.find(({ loomId }) => loomId === 'chassis')!;
  const drawing = drawStrip(skerry.looms.chassis!, loom, 180);
  expect(drawing.heightMm).toBeLessThan(200);
  const words = drawing.marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
  for (const { name } of Object.values(skerry.looms.chassis!.ends)) expect(words).toContain(name);
});

test.each(skerryPlan.looms.map((loom) => [loom.loomId, loom] as const))(
  'on paper no words of the %s loom lie on others, nor beside the sheet',
  (loomId, loom) => {
    for (const widthMm of [120, 180, 260]) {
      const words = drawStrip(skerry.looms[loomId]!, loom, widthMm).marks.flatMap((mark) => {
        if (mark.kind !== 'text' || mark.turn) return [];
        const width = measureText(mark.text, mark.size, mark.face);
        const left = mark.anchor === 'middle' ? mark.x - width / 2 : mark.x;
        return [{ of: mark.text, box: { left, right: left + width, top: mark.y - mark.size * 0.7, bottom: mark.y } }];
      });
      const collisions = words.flatMap((one, index) =>
        words.slice(index + 1).flatMap((other) => (isOverlapping(one.box, other.box) ? [`${one.of} on ${other.of}`] : [])),
      );
      expect({ widthMm, collisions }).toEqual({ widthMm, collisions: [] });
      expect(words.filter(({ box }) => box.left < 0 || box.right > widthMm + 0.5).map(({ of }) => of)).toEqual([]);
    }
  },
);
