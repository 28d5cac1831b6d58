import type { PlannedFeed } from '../../plan';
import { orderFeed } from '../../plan';
import type { Mark } from '../drawing';
import { drawFeed } from './drawFeed';

const THREE = [
  { id: 'a', envelopeMm: 20, odMm: 3.2, goesAs: 'housing' as const },
  { id: 'b', envelopeMm: 17, odMm: 2.4, goesAs: 'housing' as const },
  { id: 'c', envelopeMm: 14, odMm: 2.4, goesAs: 'wires' as const },
];
const toFeed = (boreMm: number): PlannedFeed => ({
  ...{ nodeId: 'h', boreMm, leaveMm: 0.5, besideMm: 0, direction: 'outward', because: '', wholeMm: 8, unknownIds: [], leastBoreMm: 21 },
  ...orderFeed(THREE, boreMm - 0.5, 8),
});
const circles = (marks: readonly Mark[]) => marks.flatMap((mark) => (mark.kind === 'circle' ? [mark] : []));
const words = (marks: readonly Mark[]) => marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));

test('each part is drawn in the hole at its true size, beside what is through already, which it touches and does not cross', () => {
  const { marks } = drawFeed(toFeed(22), (id) => `end ${id}`);
  // the second: bore, what is free of it, what is through, the part
  const [bore, free, through, part] = circles(marks).slice(3, 7);
  expect([bore!.r, free!.r, through!.r, part!.r].map((r) => Number((2 * r).toFixed(3)))).toEqual([22, 21.5, 3.2, 17]);
  expect(part!.x - through!.x).toBeCloseTo((17 + 3.2) / 2, 9);
  for (const one of [through!, part!]) expect(Math.hypot(one.x - free!.x, one.y - free!.y) + one.r).toBeLessThanOrEqual(free!.r + 1e-9);
  expect(words(marks)).toEqual(
    expect.arrayContaining(['1. end a', '2. end b', '17.0 + 3.2 = 20.2', '3. end c', 'wires, taped', 'holes and parts at true size']),
  );
});

test('one that does not pass is drawn in the colour of what is wrong, over the edge; a large hole to scale', () => {
  const { marks } = drawFeed(toFeed(20.2), (id) => id);
  const last = circles(marks).at(-1)!;
  const free = circles(marks).at(-3)!;
  expect(last.stroke).toBe('#b3261e');
  expect(Math.abs(last.x - free.x) + last.r).toBeGreaterThan(free.r);
  expect(words(drawFeed(toFeed(108), (id) => id).marks)).toContain('holes and parts at 50 % of their size');
});
