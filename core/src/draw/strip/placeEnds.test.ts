import { CATALOGUE } from '../../catalogue';
import { createSkerry } from '../../demo';
import { plan } from '../../plan';
import { placeEnds, TAPE_ROW } from './placeEnds';

const job = createSkerry();
const { looms } = plan(job, CATALOGUE);
const reach = (loomId: string) =>
  Math.max(...Object.values(looms.find((one) => one.loomId === loomId)!.tree.nodes).map(({ distanceMm }) => distanceMm));
const place = (loomId: string, widthPx: number) =>
  placeEnds(
    job.looms[loomId]!,
    looms.find((one) => one.loomId === loomId)!,
    widthPx,
    (mm) => (mm / reach(loomId)) * widthPx,
  );

describe.each(Object.keys(job.looms))('ends of the %s loom on its tape', (loomId) => {
  test.each([656, 700, 940, 1104, 1800])('at %d px lie inside it, none on another', (widthPx) => {
    const { ends, rows, isNamed } = place(loomId, widthPx);
    expect(ends).toHaveLength(Object.keys(job.looms[loomId]!.ends).length);
    for (const end of ends) {
      expect(end.row).toBeLessThan(rows);
      expect(end.x).toBeGreaterThanOrEqual(0);
      expect(end.width).toBeGreaterThanOrEqual(TAPE_ROW);
      if (isNamed) expect(end.x + end.width).toBeLessThanOrEqual(widthPx);
      for (const other of ends)
        if (other !== end && other.row === end.row)
          expect(Math.max(end.x, other.x)).toBeGreaterThanOrEqual(Math.min(end.x + end.width, other.x + other.width));
    }
  });
  test('at the width of a laptop and of an upright tablet every end has its name', () => {
    expect([place(loomId, 1090).isNamed, place(loomId, 656).isNamed]).toEqual([true, true]);
  });
});

test('where names have no room there are boxes, still in the order of the tape in each row', () => {
  const { ends, isNamed } = place('chassis', 300);
  expect(isNamed).toBe(false);
  for (const row of [0, 1, 2]) {
    const line = ends.filter((end) => end.row === row);
    expect(line.map(({ atMm }) => atMm)).toEqual(line.map(({ atMm }) => atMm).sort((a, b) => a - b));
  }
});
