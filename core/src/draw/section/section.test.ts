import fc from 'fast-check';
import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { plan } from '../../plan';
import { packCircles } from '../../plan/bundle/packCircles';
import { listLeaving } from './listLeaving';
import { settleCircles } from './settleCircles';

const job = createCleanSkerry();
const planned = plan(job, CATALOGUE);

test('settled circles are the same circles, within the same round, none on another, and nearer to the middle', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(1.2, 1.5, 2, 3.1, 4.8), { minLength: 4, maxLength: 70 }), (diameters) => {
      const sorted = [...diameters].sort((a, b) => b - a);
      const { odMm, circles } = packCircles(sorted);
      const settled = settleCircles(circles, odMm / 2);
      expect(settled.map(({ r }) => r)).toEqual(circles.map(({ r }) => r));
      settled.forEach((one, index) => {
        expect(Math.hypot(one.x, one.y) + one.r).toBeLessThanOrEqual(odMm / 2 + 1e-3);
        for (const other of settled.slice(index + 1))
          expect(Math.hypot(one.x - other.x, one.y - other.y)).toBeGreaterThanOrEqual(one.r + other.r - 2e-3);
      });
      // weighed by what they cover
      const spread = (all: typeof settled) => all.reduce((sum, { x, y, r }) => sum + (x * x + y * y) * r * r, 0);
      expect(spread(settled)).toBeLessThanOrEqual(spread(circles));
    }),
    { numRuns: 60 },
  );
});

test('in the fattest section of the demo no hole as wide as a wire is left in the middle', () => {
  const { bundles } = planned.looms.find(({ loomId }) => loomId === 'chassis')!;
  const section = bundles.flatMap(({ sections }) => sections).sort((a, b) => b.elements.length - a.elements.length)[0]!;
  const settled = settleCircles(section.circles, section.odMm / 2);
  const thinnest = Math.min(...settled.map(({ r }) => r));
  const inner = section.odMm / 4;
  let widest = 0;
  for (let x = -inner; x <= inner; x += thinnest / 6)
    for (let y = -inner; y <= inner; y += thinnest / 6)
      if (Math.hypot(x, y) <= inner) widest = Math.max(widest, Math.min(...settled.map((one) => Math.hypot(one.x - x, one.y - y) - one.r)));
  expect(widest).toBeLessThan(thinnest);
});

test('every wire of a section is in one group, where it leaves the line of its bundle, the nearest group first', () => {
  for (const loom of planned.looms)
    for (const bundle of loom.bundles)
      for (const section of bundle.sections) {
        const groups = listLeaving(job.looms[loom.loomId]!, loom, bundle.segmentId, section);
        expect(groups.flatMap(({ wireIds }) => wireIds).sort()).toEqual(section.elements.flat().sort());
        const far = groups.map(({ distanceMm }) => distanceMm);
        expect(far).toEqual([...far].sort((a, b) => a - b));
        // none leaves before the section is over
        expect(far[0]!).toBeGreaterThanOrEqual(loom.tree.segments[bundle.segmentId]!.startMm + section.toMm - 1);
      }
});

test('a wire that ends at a splice under way is listed at that splice', () => {
  const loom = planned.looms.find(({ loomId }) => loomId === 'inlet')!;
  const splice = loom.splices.find(({ label }) => label === 'S1')!;
  const bundle = loom.bundles.find(({ segmentId }) => segmentId === splice.place.segmentId)!;
  const before = bundle.sections.find(({ toMm }) => Math.abs(toMm - splice.place.offsetMm) < 1)!;
  const group = listLeaving(job.looms.inlet!, loom, bundle.segmentId, before).find(({ kind }) => kind === 'splice')!;
  expect(group).toMatchObject({ name: 'S1', distanceMm: splice.distanceMm });
  for (const id of group.wireIds) {
    const { from, to } = loom.wires.find((wire) => wire.id === id)!;
    expect([from, to]).toContainEqual({ kind: 'splice', spliceId: splice.id });
  }
});
