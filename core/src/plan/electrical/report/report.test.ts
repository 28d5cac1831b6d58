import { CATALOGUE } from '../../../catalogue';
import { createSkerry } from '../../../demo';
import type { Job } from '../../../model';
import { plan } from '../../plan';
import type { PathStep, PlannedLoad, PlannedProtection } from '../types';
import { findInMode, findMostOn, listFuseCurves, listRunning, listVoltageSteps, measureSag, measureSourceMean } from '../index';

const job = createSkerry();
const { power } = plan(job, CATALOGUE);

test('what is lost along a way: each step adds its own, out from the source and back from battery negative', () => {
  const step = (way: PathStep['way'], kind: PathStep['kind'], words: string, dropV: number) => ({ way, kind, words, dropV }) as PathStep;
  const steps = [
    step('out', 'wire', 'feed', 0.1),
    step('out', 'contact', 'plug 3', 0.02),
    step('back', 'wire', 'ground', 0.05),
    step('back', 'chassis', 'tub', 0.01),
  ];
  const { out, back } = listVoltageSteps({ steps });
  // 0.1 + 0.02; the way back is listed load first, and lifted from battery negative on: 0.01, then 0.05
  expect(out.map(({ words, lostV }) => [words, Number(lostV.toFixed(6))])).toEqual([
    ['source', 0],
    ['feed', 0.1],
    ['contact plug 3', 0.12],
  ]);
  expect(back.map(({ words, lostV }) => [words, Number(lostV.toFixed(6))])).toEqual([
    ['source', 0],
    ['chassis tub', 0.01],
    ['ground', 0.06],
  ]);
  expect(listVoltageSteps({ steps: [] })).toEqual({ out: [{ words: 'source', lostV: 0 }], back: [{ words: 'source', lostV: 0 }] });
});

test('the steps of every load of the demo come to its drops', () => {
  for (const load of power.loads.filter(({ steps }) => steps.length > 0)) {
    const { out, back } = listVoltageSteps(load);
    const sum = load.steps.reduce((total, { dropV }) => total + dropV, 0);
    expect(out.at(-1)!.lostV + back.at(-1)!.lostV).toBeCloseTo(sum, 9);
  }
});

describe('a fuse over its wire', () => {
  const fuse = power.protections.find(({ kind, ratingA, weakest }) => kind === 'fuse' && ratingA !== null && weakest !== null)!;
  test('it opens sooner the more flows, never later at the earliest than at the latest; the wire bears it to its short-time current', () => {
    const { mostA, band, damage } = listFuseCurves(fuse);
    expect(mostA).toBeGreaterThanOrEqual(8 * fuse.ratingA!);
    band.forEach(({ currentA, shortestS, longestS }, at) => {
      expect(shortestS).toBeLessThanOrEqual(longestS);
      if (at > 0) expect([currentA > band[at - 1]!.currentA, longestS <= band[at - 1]!.longestS]).toEqual([true, true]);
    });
    damage.forEach(({ currentA, seconds }, at) => {
      expect(currentA).toBeGreaterThan(fuse.weakest!.shortA);
      if (at > 0) expect(seconds).toBeLessThan(damage[at - 1]!.seconds);
    });
    expect([band.length, damage.length].every((count) => count > 20)).toBe(true);
  });
  test('no wire in a known zone: no curve of harm; no rating: nothing to draw', () => {
    expect(listFuseCurves({ ...fuse, weakest: null }).damage).toEqual([]);
    expect(() => listFuseCurves({ ...fuse, ratingA: null } as PlannedProtection)).toThrow('expected a protection with a rating, got none');
  });
});

test('figures by mode: one, the largest, and the largest of those that count', () => {
  expect([findInMode([1, 3, 2], 2), findInMode([1, 3, 2], null), findInMode([], null), findInMode([1], 4)]).toEqual([2, 3, 0, 0]);
  const modes: Job['modes'] = {
    run: { name: 'run', engine: 'running' },
    crank: { name: 'crank', engine: 'cranking' },
    wet: { name: 'wet', engine: 'off' },
  };
  const running = listRunning({ modes }, ['run', 'crank', 'wet']);
  expect(running).toEqual([true, false, true]);
  const load = (kind: PlannedLoad['load'], onA: number[]) => ({ load: kind, onA });
  // off in wet, and cranking does not count but for a starter
  expect(findMostOn([0.1, 0.9, 0.5], load('lamp', [2, 2, 0]), running)).toBe(0.1);
  expect(findMostOn([0.1, 0.9, 0.5], load('starter', [0, 120, 0]), running)).toBe(0.9);
  const of = { modeIds: ['run', 'crank', 'wet'], sourceA: { on: [10, 150, 20], mean: [8, 60, 12] } };
  expect([measureSourceMean({ modes }, of, null), measureSourceMean({ modes }, of, 1)]).toEqual([12, 60]);
  expect(measureSourceMean({ modes }, { ...of, sourceA: null }, null)).toBeNull();
  // 150 A through 8 mΩ
  expect(measureSag({ milliohm: 8 }, 150)).toBeCloseTo(1.2, 9);
});
