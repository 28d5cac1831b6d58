import { CATALOGUE } from '../../../catalogue';
import type { Job, PinNeed } from '../../../model';
import { listFindings } from '../../../make';
import { createSeededVehicle } from '../../../testing/createSeededVehicle';
import { solveCopper } from '../../../testing/solveCopper';
import { findStandard, plan } from '../..';
import type { JobPlan } from '../../types';
import { measureFuseCarries } from '../protection/fuse';
import { runs } from '../../../testing/runs';

const SEEDS = Array.from({ length: runs(40, 300) }, (_, index) => index + 1);
/** What a driver takes goes on inside its box: its pin hangs on nothing. */
const DRIVERS = ['main/ecu/4', 'main/ecu/5', 'main/ecu/6'];
const PLANS = new Map<number, { job: Job; planned: JobPlan }>();
const get = (seed: number) => {
  const known = PLANS.get(seed);
  if (known) return known;
  const job = createSeededVehicle(seed);
  const made = { job, planned: plan(job, CATALOGUE) };
  PLANS.set(seed, made);
  return made;
};

/** What each load takes from one point to another in a mode, read off the document alone. */
function listDraws(job: Job, modeId: string) {
  const share = (endId: string, need: PinNeed) => {
    const duty = job.devices[endId]?.duty ?? {};
    return duty[modeId] ?? (need.load === 'starter' && job.modes[modeId]!.engine !== 'cranking' ? 0 : 1);
  };
  const draws: { from: string; to: string; currentA: number }[] = [];
  let ecuA = 0;
  for (const [loomId, { ends, circuits }] of Object.entries(job.looms))
    for (const [endId, { pins }] of Object.entries(ends))
      for (const [cavity, need] of Object.entries(pins)) {
        const isWired = Object.values(circuits).some(({ terminations }) =>
          terminations.some((one) => one.endId === endId && one.cavity === cavity),
        );
        if (!isWired || need.kind !== 'supply' || need.currentA === null || share(endId, need) === 0) continue;
        const from = `${loomId}/${endId}/${cavity}`;
        const { currentA } = need;
        const driver = Object.entries(pins).find(([, { kind }]) => kind === 'output')?.[0];
        const ground = Object.entries(pins).find(([, { kind }]) => kind === 'power-ground')?.[0];
        if (endId === 'ecu') ecuA += currentA;
        else if (need.returnBy === 'engine-case') draws.push({ from, to: 'engine', currentA });
        else if (need.returnBy === 'chassis-case') draws.push({ from, to: `case ${endId}`, currentA });
        else if (driver) draws.push({ from, to: `${loomId}/${endId}/${driver}`, currentA });
        else draws.push({ from, to: `${loomId}/${endId}/${ground}`, currentA });
      }
  // drivers take theirs from the wire to each load; what they and the box itself take goes out of its two grounds evenly
  const drivers = draws.filter(({ to }) => /\/(load5|load6|relay)\/2$/.test(to));
  const pinOf = { load5: '5', load6: '6', relay: '4' } as Record<string, string>;
  for (const { to, currentA } of drivers) {
    const pin = `main/ecu/${pinOf[to.split('/')[1]!]}`;
    for (const ground of ['2', '3']) draws.push({ from: pin, to: `main/ecu/${ground}`, currentA: currentA / 2 });
  }
  for (const ground of ['2', '3']) draws.push({ from: 'main/ecu/1', to: `main/ecu/${ground}`, currentA: ecuA / 2 });
  return draws.filter(({ currentA }) => currentA > 0);
}

test('currents and drops agree with nodal analysis of the whole copper within 0.1 % on seeded vehicles, in every mode', () => {
  let compared = 0;
  const wrong: unknown[] = [];
  for (const seed of SEEDS) {
    const { job, planned } = get(seed);
    const standard = findStandard(job, CATALOGUE);
    planned.power.modeIds.forEach((modeId, mode) => {
      const { volts, wireA } = solveCopper(job, planned, standard, listDraws(job, modeId), DRIVERS);
      for (const { loomId, currents } of planned.looms)
        for (const { wireId, onA } of currents) {
          const naive = Math.abs(wireA.get(`${loomId}/${wireId}`)!);
          if (!(Math.abs(naive - onA[mode]!) <= 1e-3 * Math.max(naive, 0.01))) wrong.push([seed, modeId, wireId, naive, onA[mode]]);
          compared += 1;
        }
      for (const { id, pin, load, onA, totalByModeV, returnBy, name } of planned.power.loads) {
        if (load === 'feed' || onA[mode] === 0) continue;
        const { pins } = job.looms[pin.loomId]!.ends[pin.endId]!;
        const at = (key: string) => volts.get(key)!;
        const own = `${pin.loomId}/${pin.endId}`;
        const grounds = Math.max(at('main/ecu/2'), at('main/ecu/3'));
        const driver = Object.keys(pins).find((cavity) => pins[cavity]!.kind === 'output');
        const ground = Object.keys(pins).find((cavity) => pins[cavity]!.kind === 'power-ground');
        const driverPin = { load5: '5', load6: '6', relay: '4' }[pin.endId];
        // lost out: how far below plus its supply is; lost home: how far above minus its return is
        const home =
          pin.endId === 'ecu'
            ? grounds
            : returnBy === 'engine-case'
              ? at('engine')
              : returnBy === 'chassis-case'
                ? at(`case ${pin.endId}`)
                : driver
                  ? at(`${own}/${driver}`) - at(`main/ecu/${driverPin}`) + grounds
                  : at(`${own}/${ground}`);
        const naive = home - at(id);
        if (!(Math.abs(naive - totalByModeV[mode]!) <= 1e-3 * naive)) wrong.push([seed, modeId, name, naive, totalByModeV[mode]]);
        compared += 1;
      }
    });
  }
  expect(wrong.slice(0, 5)).toEqual([]);
  expect(compared).toBeGreaterThan(runs(4000, 40_000));
});

describe('what holds for every seeded vehicle', () => {
  test('Kirchhoff: as much flows into every splice, stud and device as out of it, in every mode, case returns included', () => {
    for (const seed of SEEDS) {
      const { job, planned } = get(seed);
      planned.power.modeIds.forEach((modeId, mode) => {
        const draws = listDraws(job, modeId);
        const sums = new Map<string, number>();
        const add = (key: string, amperes: number) => sums.set(key, (sums.get(key) ?? 0) + amperes);
        const { wireA } = solveCopper(job, planned, findStandard(job, CATALOGUE), draws, DRIVERS);
        for (const { loomId, wires, currents } of planned.looms)
          wires.forEach(({ id, from, to }, index) => {
            // the plan says how much, the other solution which way
            const amperes = Math.sign(wireA.get(`${loomId}/${id}`)!) * currents[index]!.onA[mode]!;
            for (const [end, sign] of [
              [from, -1],
              [to, 1],
            ] as const)
              if (end.kind === 'splice') add(`${loomId} ${end.spliceId}`, sign * amperes);
          });
        expect([...sums].filter(([, sum]) => Math.abs(sum) > 1e-6)).toEqual([]);
        const negative = planned.looms.find(({ loomId }) => loomId === 'main')!;
        const flowing = (circuitId: string) =>
          negative.currents[negative.wires.findIndex((one) => one.circuitId === circuitId)]!.onA[mode]!;
        const named = (name: string) => Object.entries(job.looms.main!.circuits).find(([, circuit]) => circuit.name === name)![0];
        // all that leaves battery positive comes back to battery negative, the starter's by the engine strap too
        expect(flowing(named('negative'))).toBeCloseTo(planned.power.sourceA!.on[mode]!, 9);
        expect(flowing(named('battery')) + flowing(named('starter'))).toBeCloseTo(planned.power.sourceA!.on[mode]!, 9);
      });
    }
  });
  test('an on-current is never less than what a bundle feels of it', () => {
    const wrong: unknown[] = [];
    for (const seed of SEEDS)
      for (const { currents } of get(seed).planned.looms)
        for (const { onA, heatA, designA } of currents)
          onA.forEach((amperes, mode) => {
            if (amperes < heatA[mode]! - 1e-9 || designA! < amperes - 1e-9) wrong.push([seed, amperes, heatA[mode], designA]);
          });
    expect(wrong).toEqual([]);
  });
  test('no wire that a fault behind a fuse can load bears less than the fuse, out or home, or the plan says so', () => {
    const wrong: unknown[] = [];
    let judged = 0;
    for (const seed of SEEDS) {
      const { job, planned } = get(seed);
      const standard = findStandard(job, CATALOGUE);
      const currentOf = new Map(
        planned.looms.flatMap(({ loomId, currents }) => currents.map((one) => [`${loomId}/${one.wireId}`, one] as const)),
      );
      for (const { load, linkIds, steps, name } of planned.power.loads) {
        const guards = linkIds.map((id) => planned.power.protections.find((one) => one.id === id)!).filter(({ kind }) => kind === 'fuse');
        const nearest = guards.at(-1);
        if (load === 'feed' || !nearest) continue;
        const from = steps.findLastIndex(({ kind, words }) => kind === 'link' && words === nearest.name);
        for (const { wireId, loomId } of steps.slice(from)) {
          if (wireId === null) continue;
          const { steadyA, guardIds } = currentOf.get(`${loomId}/${wireId}`)!;
          if (!guardIds.includes(nearest.id)) wrong.push([seed, name, wireId, 'not behind its fuse']);
          const isBorne = nearest.ratingA === null || nearest.ratingA <= steadyA! + 1e-6;
          if (!isBorne && !nearest.problems.includes('over-wire')) wrong.push([seed, name, wireId, nearest.ratingA, steadyA]);
          judged += 1;
        }
        const isCarried =
          nearest.ratingA !== null && nearest.ratingA * measureFuseCarries(nearest.ambientC, standard) >= nearest.loadA - 1e-9;
        if (!isCarried && !nearest.problems.includes('no-rating')) wrong.push([seed, name, nearest.ratingA, nearest.loadA]);
      }
    }
    expect(wrong.slice(0, 5)).toEqual([]);
    expect(judged).toBeGreaterThan(runs(1000, 10_000));
  });
  test('the drops along a way add up to the drop of the way, and every load has a drop and a protection or a finding', () => {
    for (const seed of SEEDS.slice(0, 60)) {
      const { job, planned } = get(seed);
      const findings = listFindings(job, planned, CATALOGUE, null);
      for (const { id, pin, load, linkIds, steps, dropV } of planned.power.loads) {
        expect(steps.filter(({ counts }) => counts).reduce((sum, step) => sum + step.dropV, 0)).toBeCloseTo(dropV, 9);
        if (load === 'feed' || load === 'starter') continue;
        const isSaid = findings.some(({ places }) => places.some((place) => place.id === id || place.id === pin.endId));
        expect((dropV > 0 && linkIds.length > 0) || isSaid).toBe(true);
      }
    }
  });
});
