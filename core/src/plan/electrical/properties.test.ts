import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { createRandomVehicle } from '../../demo/createRandomVehicle';
import { editDocument, type Job } from '../../model';
import { findStandard, plan } from '..';
import { routeLoom } from '../route/routeLoom';
import type { JobPlan } from '../types';
import { measureFuseCarries } from './protection/fuse';
import type { PathStep } from './types';

/** Vehicles that nobody drew by hand, and the demo: what holds for one of them has to hold for all. */
const VEHICLES: [string, Job][] = [
  ['the demo', createCleanSkerry()],
  ...[1, 2, 3, 4, 5, 6].map((seed): [string, Job] => [`vehicle ${seed}`, createRandomVehicle(seed, 60 + 20 * seed)]),
];
const PLANNED = new Map(VEHICLES.map(([name, job]) => [name, plan(job, CATALOGUE)]));
const wireOf = ({ looms }: JobPlan, { loomId, wireId }: { loomId: string | null; wireId: string | null }) =>
  looms.find((one) => one.loomId === loomId)!.wires.find(({ id }) => id === wireId)!;
const currentOf = ({ looms }: JobPlan, { loomId, wireId }: { loomId: string | null; wireId: string | null }) =>
  looms.find((one) => one.loomId === loomId)!.currents.find((one) => one.wireId === wireId)!;

describe.each(VEHICLES)('sums of %s', (name, job) => {
  const planned = PLANNED.get(name)!;
  const standard = findStandard(job, CATALOGUE);
  const { loads, protections, modeIds } = planned.power;

  test('at every splice as much flows in as out, in every mode', () => {
    for (const { splices, wires, currents } of planned.looms)
      for (const { id } of splices)
        modeIds.forEach((_, mode) => {
          const at = wires.flatMap((wire, index) =>
            [wire.from, wire.to].some((end) => end.kind === 'splice' && end.spliceId === id) ? [currents[index]!.onA[mode]!] : [],
          );
          // one of them carries what all the others carry
          const most = Math.max(...at);
          expect(at.reduce((sum, one) => sum + one, 0) - most).toBeCloseTo(most, 6);
        });
  });
  test('the battery gives on the mean what its loads take', () => {
    const { sourceA } = planned.power;
    if (!sourceA) return;
    modeIds.forEach((_, mode) => {
      const shareOf = (deviceId: string | null) => (deviceId === null ? 1 : (job.devices[deviceId]!.duty[modeIds[mode]!] ?? 1));
      const taken = loads
        .filter(({ load, faultA, steps }) => load !== 'feed' && faultA !== null && steps.length > 0)
        .reduce((sum, { onA, deviceId }) => sum + onA[mode]! * shareOf(deviceId), 0);
      expect(sourceA.mean[mode]!).toBeCloseTo(taken, 3);
    });
  });
  test('every drop is its steps added up, and every step Ohm’s law over its wire as it is planned', () => {
    const sum = (steps: readonly PathStep[]) => steps.reduce((total, { dropV }) => total + dropV, 0);
    for (const { steps, dropV, totalByModeV, dropByModeV } of loads) {
      totalByModeV.forEach((totalV, mode) => {
        // while the engine is cranked the starter's current is on what all share, and has a budget of its own
        if (job.modes[modeIds[mode]!]!.engine !== 'cranking') expect(totalV).toBeLessThanOrEqual(sum(steps) + 1e-9);
      });
      expect(sum(steps.filter(({ counts }) => counts))).toBeCloseTo(dropV, 9);
      expect(dropByModeV).toHaveLength(modeIds.length);
      for (const step of steps) {
        expect(step.dropV).toBeCloseTo((step.milliohm * step.currentA) / 1000, 12);
        if (step.wireId === null) continue;
        const { conductor, lengthMm, number } = wireOf(planned, step);
        const at = currentOf(planned, step).runningC ?? standard.unknownZoneC;
        expect(step.milliohm).toBeCloseTo((conductor.r20MilliohmPerM * lengthMm * (1 + 0.00393 * (at - 20))) / 1000, 9);
        expect(step.words.startsWith(number)).toBe(true);
      }
    }
  });
  test('the way of a load hangs together: each wire begins where the one before ended', () => {
    const endsOf = (step: PathStep) =>
      [wireOf(planned, step).from, wireOf(planned, step).to].map((end) => (end.kind === 'splice' ? end.spliceId : `${end.endId}`));
    for (const { steps } of loads)
      for (const way of ['out', 'back'] as const) {
        const wires = steps.filter((step) => step.way === way && step.wireId !== null);
        wires.slice(1).forEach((step, index) => {
          const before = wires[index]!;
          if (before.loomId !== step.loomId) return;
          const shared = endsOf(before).some((end) => endsOf(step).includes(end));
          // between them lies a fuse, a channel or the chassis, or they share an end
          const between = steps.slice(steps.indexOf(before), steps.indexOf(step)).some(({ kind }) => kind === 'link' || kind === 'chassis');
          expect(shared || between || way === 'back').toBe(true);
        });
      }
  });
  test('a budget is passed only where the thickest conductors that its contacts take would not keep it', () => {
    const ranges = new Map(
      Object.keys(job.looms).map((loomId) => {
        const { wires, ranges: of } = routeLoom(job, loomId, CATALOGUE, standard);
        return [loomId, new Map(wires.map(({ id }, index) => [id, of[index]!.conductors.at(-1)!]))];
      }),
    );
    for (const { steps, dropV, budgetV } of loads) {
      if (dropV <= budgetV) continue;
      const least = steps
        .filter(({ counts }) => counts)
        .reduce((sum, step) => {
          if (step.wireId === null) return sum + step.dropV;
          const most = ranges.get(step.loomId!)!.get(step.wireId)!;
          return sum + (step.dropV * most.r20MilliohmPerM) / wireOf(planned, step).conductor.r20MilliohmPerM;
        }, 0);
      // the thickest run cooler than this reckons: a few percent
      expect(least).toBeGreaterThan(budgetV * 0.95);
    }
    if (name === 'the demo') expect(loads.every(({ dropV, budgetV }) => dropV <= budgetV)).toBe(true);
  });
  test('a fuse bears its load at its temperature, and its weakest wire bears the fuse, or the plan says which does not', () => {
    for (const { kind, ratingA, loadA, ambientC, weakest, problems, netId, pinned } of protections) {
      if (kind !== 'fuse' || ratingA === null || netId === null || pinned) continue;
      expect(loadA <= ratingA * measureFuseCarries(ambientC, standard) + 1e-6).toBe(!problems.includes('over-load'));
      if (weakest) expect(ratingA <= weakest.steadyA + 1e-6).toBe(!problems.includes('over-wire'));
    }
  });
  test('no bundle is warmer than the shop allows where its zone leaves room', () => {
    for (const { heats } of planned.looms)
      for (const { middleC, limitC, ambientC, wattsPerM } of heats) {
        if (limitC === null || wattsPerM === 0 || ambientC > limitC - standard.heatMarginK) continue;
        expect(middleC!).toBeGreaterThanOrEqual(ambientC);
        expect(middleC!).toBeLessThanOrEqual(limitC - standard.heatMarginK + 1e-9);
      }
  });
  test('rounds come to an end', () => {
    expect(planned.power.settled).toBe(true);
    expect(planned.power.rounds).toBeLessThanOrEqual(8);
  });
});

describe('least copper of a whole vehicle', () => {
  /** Wires that heat or a fuse made thick, with their sizes. */
  const listRuled = ({ looms }: JobPlan) =>
    looms.flatMap(({ loomId, wires }) =>
      wires
        .filter(({ ruledBy }) => ruledBy === 'heat' || ruledBy === 'fuse')
        .map(({ id, conductor }) => `${loomId} ${id} ${conductor.size}`),
    );
  test.each(VEHICLES.slice(0, 4))('of %s: no wire that the drop made thick could be another size for less copper in all', (name, job) => {
    const planned = PLANNED.get(name)!;
    const before = planned.power.copper.massG;
    const thick = planned.looms.flatMap(({ loomId, wires }) =>
      wires.filter(({ ruledBy }) => ruledBy === 'drop').map(({ circuitId, conductor }) => ({ loomId, circuitId, conductor })),
    );
    for (const { loomId, circuitId, conductor } of thick.filter((_, index) => index % Math.ceil(thick.length / 4) === 0)) {
      const table = CATALOGUE.wires[conductor.table]!;
      const at = table.findIndex(({ size }) => size === conductor.size);
      for (const size of [table[at - 1]?.size, table[at + 1]?.size]) {
        if (size === undefined) continue;
        const other = plan(
          editDocument(job, (draft) => {
            draft.looms[loomId]!.circuits[circuitId]!.sizePin = { size, reason: 'to see' };
          }).next,
          CATALOGUE,
        );
        if (other.power.loads.some(({ dropV, budgetV }) => dropV > budgetV + 1e-9)) continue;
        // 4 %: heat and length move a little with every size, and where budgets overlap the choice is not proven least. What heat and
        // fuses ask of a wire goes to that wire; where another then takes less, the neighbour of a feed could have made room for it
        const isElsewhere = listRuled(other).join() !== listRuled(planned).join();
        expect(other.power.copper.massG).toBeGreaterThan(before * (isElsewhere ? 0.88 : 0.96));
      }
    }
  });
});
