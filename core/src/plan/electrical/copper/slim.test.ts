import { CATALOGUE, LARKHOLLOW } from '../../../catalogue';
import { createCleanSkerry, createInlet } from '../../../demo';
import { COPPER_G_PER_MM2_M } from '../../heat/measureHeat';
import { createSeededVehicle } from '../../../testing/createSeededVehicle';
import { plan } from '../..';
import type { PlannedWire } from '../../types';
import { findHarm } from '..';
import { runs } from '../../../testing/runs';

/** Resistance of one size thinner over that of a wire as it is; undefined where there is none. */
function findThinner({ conductor }: PlannedWire): { ratio: number; areaMm2: number } | undefined {
  const table = CATALOGUE.wires[conductor.table]!;
  const thinner = table[table.findIndex(({ size }) => size === conductor.size) - 1];
  return thinner && { ratio: thinner.r20MilliohmPerM / conductor.r20MilliohmPerM, areaMm2: thinner.areaMm2 };
}

test('no wire is thicker than the rule printed for it asks: one size thinner, all others as they are, that rule is broken', () => {
  let tried = 0;
  const loose: string[] = [];
  for (const seed of Array.from({ length: runs(16, 40) }, (_, index) => index + 1)) {
    const job = createSeededVehicle(seed);
    const { looms, power } = plan(job, CATALOGUE);
    const ratings = new Map([...power.protections, ...power.outside].map(({ id, ratingA }) => [id, ratingA ?? 0]));
    for (const { loomId, wires, currents } of looms)
      wires.forEach((wire, index) => {
        const thinner = findThinner(wire);
        if (!thinner) return;
        const { steadyA, shortA, runningC, guardIds } = currents[index]!;
        // what a load's way loses more with it, its own warmth left out
        const isOver = power.loads.some(({ steps, dropV, budgetV }) => {
          const own = steps.filter((step) => step.counts && step.loomId === loomId && step.wireId === wire.id);
          const more = own.reduce((sum, step) => sum + step.dropV * (thinner.ratio - 1), 0);
          // 4 %: the thinner wire is warmer, and what came out over its limit as built keeps to a little less
          return more > 0 && dropV + more > budgetV * 0.96;
        });
        // one of two grounds of a pin, the other of which is the worse, is no load's way shown
        if (wire.ruledBy === 'drop' && !power.loads.some(({ steps }) => steps.some((step) => step.wireId === wire.id))) return;
        const bears = {
          loomId,
          wireId: wire.id,
          circuitId: wire.circuitId,
          steadyA: steadyA! / Math.sqrt(thinner.ratio),
          shortA: shortA! / Math.sqrt(thinner.ratio),
          areaMm2: thinner.areaMm2,
          runningC: runningC!,
          shortC: LARKHOLLOW.insulationShortC[wire.conductor.table]!,
        };
        // too warm for good, or spoilt before the fuse opens
        const isBurnt = guardIds.some((id) => {
          const ratingA = ratings.get(id)! * 1.04;
          return bears.steadyA < ratingA || findHarm(ratingA, null, bears) !== null;
        });
        if (wire.ruledBy === 'drop' && !isOver) loose.push(`${seed} ${wire.id} ${wire.conductor.size}: ${wire.because}`);
        if (wire.ruledBy === 'fuse' && !isBurnt) loose.push(`${seed} ${wire.id} ${wire.conductor.size}: ${wire.because}`);
        if (wire.ruledBy === 'drop' || wire.ruledBy === 'fuse') tried += 1;
      });
  }
  expect(loose).toEqual([]);
  expect(tried).toBeGreaterThan(runs(100, 300));
});

test('the reason printed names a rule with its figures, and devices of one kind in one bank have one size', () => {
  const { looms } = plan(createCleanSkerry(), CATALOGUE);
  const inlet = looms.find(({ loomId }) => loomId === 'inlet')!;
  const legs = (cavity: string) =>
    new Set(
      ['inj1', 'inj2', 'inj3'].map((endId) => {
        const wire = inlet.wires.find((one) =>
          [one.from, one.to].some((end) => end.kind === 'cavity' && end.endId === endId && end.cavity === cavity),
        )!;
        return wire.conductor.size;
      }),
    );
  expect(legs('1').size).toBe(1);
  expect(legs('2').size).toBe(1);
  for (const { wires } of looms)
    for (const { ruledBy, because } of wires) {
      if (ruledBy === 'drop')
        expect(because).toMatch(/^(with (AWG \d+|[\d.]+ mm²) .+ would lose [\d.]+ V of its [\d.]+ V|keeps every load)/);
      if (ruledBy === 'alike') expect(because).toContain('as the others of its bank');
      if (ruledBy === 'fuse') expect(because).toMatch(/bears the [\d.]+ A of .+ until it opens/);
    }
});

test('the copper that is printed is that of the wires as they are planned, and of no draft', () => {
  const {
    looms: [inlet],
    power,
  } = plan(createInlet(), CATALOGUE);
  // one feed each and no two grounds of a pin: every wire with a budget is on the way of some load
  const shown = new Set(power.loads.flatMap(({ steps }) => steps.flatMap(({ wireId, counts }) => (counts ? [wireId] : []))));
  const grams = inlet!.wires
    .filter(({ id }) => shown.has(id))
    .reduce((sum, { conductor, lengthMm }) => sum + (conductor.areaMm2 * lengthMm * COPPER_G_PER_MM2_M) / 1000, 0);
  expect(power.copper.massG).toBeCloseTo(grams, 6);
  expect(power.copper.oneSizeMassG).toBeGreaterThan(grams - 1e-6);
});
