import fc from 'fast-check';
import { CATALOGUE } from '../catalogue';
import { createRandomJob } from '../demo/createRandomJob';
import { createInlet } from '../demo';
import { toCutListCsv } from '../exchange';
import type { Job } from '../model';
import { findStandard, listZoneLabels, plan } from '../plan';
import { createBench, join } from '../testing/createBench';
import { createBuild, listFindings, orderSteps, type Step } from './index';

const build = (job: Job) => createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE);
const before = (steps: readonly Step[], one: string, other: string) =>
  steps.findIndex(({ id }) => id === one) < steps.findIndex(({ id }) => id === other);

describe('steps', () => {
  const { steps } = build(createInlet());
  test('every step comes after all that it needs', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const made = build(createRandomJob(seed, 40)).steps;
        const place = new Map(made.map(({ id }, index) => [id, index]));
        for (const step of made)
          for (const { stepId } of step.needs) if (place.has(stepId)) expect(place.get(stepId)!).toBeLessThan(place.get(step.id)!);
      }),
      { numRuns: 15 },
    );
  });
  test('what slides on goes on before every end that would stop it', () => {
    for (const { id, needs } of steps.filter(({ operation }) => operation === 'slide')) {
      const segmentId = id.replace('slide.', '');
      if (needs.some(({ because }) => because === 'planned over the finished end')) continue;
      for (const crimp of steps.filter((step) => step.operation === 'crimp' && step.needs.some(({ stepId }) => stepId === id)))
        expect(before(steps, id, crimp.id)).toBe(true);
      expect(steps.some((step) => step.operation === 'crimp' && step.needs.some(({ stepId }) => stepId === `slide.${segmentId}`))).toBe(
        true,
      );
    }
  });
  test('pull-to-seat: through the housing, then the crimp, then the seat', () => {
    expect(before(steps, 'thread.inj1', 'crimp.inj1')).toBe(true);
    expect(before(steps, 'crimp.inj1', 'seat.inj1')).toBe(true);
    expect(steps.some(({ id }) => id === 'thread.thr')).toBe(false);
  });
  test('pull-to-seat with single seals: each seal goes on before its wire goes through the housing (craft)', () => {
    const threads = steps.filter(({ operation }) => operation === 'thread');
    expect(threads.length).toBeGreaterThan(0);
    for (const { endId } of threads) {
      expect(before(steps, `seal.${endId}`, `thread.${endId}`)).toBe(true);
      expect(steps.find(({ id }) => id === `crimp.${endId}`)!.items.every(({ words }) => !words.includes('first'))).toBe(true);
    }
    // pushed in from behind the seal goes on with the contact
    expect(steps.some(({ id }) => id === 'seal.thr')).toBe(false);
    // drawn in by its wire it is looked at in its cavity (craft D2)
    const isLooked = (endId: string) =>
      steps
        .find(({ id }) => id === `seat.${endId}`)!
        .items.filter(({ cavity }) => cavity !== null)
        .map(({ words }) => words.includes('its seal in'));
    expect(threads.flatMap(({ endId }) => isLooked(endId!)).every(Boolean)).toBe(true);
    expect(isLooked('thr').some(Boolean)).toBe(false);
  });
  test('markers for good go on after the trim and before the crimp, one for each trimmed end', () => {
    const loom = plan(createInlet(), CATALOGUE).looms[0]!;
    const marks = steps.filter(({ operation, endId }) => operation === 'mark' && endId !== 'B1');
    expect(marks.length).toBeGreaterThan(0);
    for (const { id, endId, items } of marks) {
      expect(before(steps, 'fit', id)).toBe(true);
      expect(before(steps, id, `crimp.${endId}`)).toBe(true);
      const trimmed = loom.terminations
        .filter((one) => one.endId === endId)
        .flatMap(({ wireIds }) => wireIds)
        .filter((wireId) => loom.wires.find((wire) => wire.id === wireId)!.roughMm > loom.wires.find((wire) => wire.id === wireId)!.cutMm);
      expect(items.flatMap(({ wireIds }) => wireIds).sort()).toEqual(trimmed.sort());
    }
  });
  test('an end label is slid on before its end is crimped and shrunk when it is finished', () => {
    const shrunk = steps.filter(({ operation }) => operation === 'shrink');
    expect(shrunk.length).toBe(steps.filter(({ operation }) => operation === 'label').length);
    for (const { id, endId } of shrunk) {
      expect(before(steps, `label.${endId}`, `crimp.${endId}`)).toBe(true);
      expect(before(steps, `crimp.${endId}`, id)).toBe(true);
    }
  });
  test('the anchor is filled first, the trial fit comes before device ends, then the test, the signature, the way into the car', () => {
    expect(before(steps, 'seat.B1', 'lay')).toBe(true);
    expect(before(steps, 'fit', 'crimp.air')).toBe(true);
    expect(steps.slice(-5).map(({ id }) => id)).toEqual(['test', 'sign', 'route', 'clip', 'bolt.gnd']);
  });
  test('joints are made after the trial fit, when their wires have final lengths', () => {
    for (const { id } of steps.filter(({ operation }) => operation === 'splice')) expect(before(steps, 'fit', id)).toBe(true);
    expect(steps.find(({ id }) => id === 'fit')!.items.map(({ id }) => id)).toEqual(['fitted', 'trimmed']);
  });
  test('a sleeve over a splice waits for the joint', () => expect(before(steps, 'splice.c201@bk1', 'slide.t2')).toBe(true));
  test('every cavity with a wire is crimped once and seated once', () => {
    const loom = plan(createInlet(), CATALOGUE).looms[0]!;
    for (const operation of ['crimp', 'seat'] as const) {
      const done = steps
        .filter((step) => step.operation === operation)
        .flatMap((step) => step.items.filter(({ cavity }) => cavity !== null).map(({ cavity }) => `${step.endId} ${cavity}`));
      const due = loom.terminations
        .filter(({ endId }) => operation === 'crimp' || endId !== 'gnd')
        .map(({ endId, cavity }) => `${endId} ${cavity}`);
      expect(done.sort()).toEqual(due.sort());
    }
  });
  test('held wires cannot be ticked, others can', () => {
    const held = steps.flatMap(({ items }) => items).filter(({ heldBecause }) => heldBecause !== null);
    expect(new Set(held.flatMap(({ wireIds }) => wireIds))).toEqual(
      new Set(['c222.1', 'c223.1', ...held.flatMap(({ wireIds }) => wireIds)]),
    );
    expect(held.map(({ heldBecause }) => heldBecause)).toContain('N-222: length to knock sensor only guessed');
    expect(steps.find(({ id }) => id === 'cut.etfe-20-red')!.items.every(({ heldBecause }) => heldBecause === null)).toBe(true);
  });
  test('where work can hurt someone the step says so', () => {
    for (const operation of ['splice', 'cover', 'fit', 'test', 'twist'] as const)
      expect(steps.find((step) => step.operation === operation)!.caution).toMatch(/\w/);
  });
  test('a wire that comes back to its own end has a box of its own for each of its markers', () => {
    const job = createBench((loom) => {
      loom.circuits.c9 = join('9', 'A-4 A-5');
    });
    const mark = build(job).steps.find(({ id }) => id === 'mark.A')!;
    const loop = mark.items.filter(({ id }) => id.startsWith('c9'));
    expect(loop.map(({ wireIds }) => wireIds)).toEqual([loop[0]!.wireIds, loop[0]!.wireIds]);
    for (const { id, items } of build(job).steps) expect([id, new Set(items.map((one) => one.id)).size]).toEqual([id, items.length]);
  });
  test('BT1: a ring of needs has no order, and the finding names it', () => {
    const job = createBench((loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, slideOn: 'after-ends' };
    });
    const finding = listFindings(job, plan(job, CATALOGUE), CATALOGUE, null).find(({ code }) => code === 'BT1')!;
    expect(finding.sentence).toMatch(/^No order of work keeps all of these: .*slide .* on, datum to fork/);
    expect(build(job).steps).toEqual([]);
  });
  test('orderSteps gives the ring itself', () => {
    const step = (id: string, ...needs: string[]): Step => ({
      id,
      operation: 'cut',
      title: id,
      endId: null,
      segmentId: null,
      spliceId: null,
      items: [],
      tool: '',
      parts: [],
      caution: null,
      needs: needs.map((stepId) => ({ stepId, because: '' })),
    });
    const ordered = orderSteps([step('a'), step('b', 'd'), step('c', 'b'), step('d', 'c'), step('e', 'd')]);
    if (ordered.ok) throw new Error('expected a ring');
    expect(ordered.ring.map(({ id }) => id).sort()).toEqual(['b', 'c', 'd']);
  });
  test('an empty loom has no steps', () => {
    const empty = createBench((loom) => {
      loom.circuits = {};
    });
    expect(build(empty).steps.filter(({ operation }) => operation === 'cut' || operation === 'crimp')).toEqual([]);
  });
});

describe('lists', () => {
  const { cuts, parts, continuity } = build(createInlet());
  const loom = plan(createInlet(), CATALOGUE).looms[0]!;
  test('the cut list has every wire once, longest first in each reel', () => {
    const all = cuts.flatMap(({ wires, held }) => [...wires, ...held]);
    expect(all.map(({ id }) => id).sort()).toEqual(loom.wires.map(({ id }) => id).sort());
    for (const { wires } of cuts)
      for (let index = 1; index < wires.length; index += 1) expect(wires[index]!.cutMm).toBeLessThanOrEqual(wires[index - 1]!.cutMm);
    expect(cuts.flatMap(({ held }) => held.map(({ number }) => number)).sort()).toEqual(['N-222', 'N-223']);
  });
  test('metres of a reel are the sum of its wires, held ones not', () => {
    for (const { wires, roughMm } of cuts) expect(roughMm).toBe(wires.reduce((sum, one) => sum + one.roughMm, 0));
  });
  test('parts are counted: a contact for every cavity with a wire, two labels a wire', () => {
    const count = (group: string) => parts.filter((line) => line.group === group).reduce((sum, { pieces }) => sum + pieces, 0);
    expect(count('contact')).toBe(loom.terminations.length);
    const zones = listZoneLabels(createInlet(), loom, findStandard(createInlet(), CATALOGUE)).length;
    expect(zones).toBeGreaterThan(0);
    expect(count('label')).toBe(2 * loom.wires.length + 16 + zones);
    expect(count('housing')).toBe(15);
    expect(count('plug')).toBe(loom.plugs.length);
    // a barrel and its sleeve each
    expect(count('splice')).toBe(2 * loom.splices.length);
    const ties = parts.filter(({ group }) => group === 'tie');
    // one every 100 mm of each run of two wires or more, and tape at the datum and the forks
    const runs = loom.bundles.filter(({ sections }) => sections.some(({ elements }) => elements.flat().length > 1));
    const expected = runs.reduce((sum, { segmentId }) => sum + Math.ceil(loom.tree.segments[segmentId]!.lengthMm / 100), 0);
    expect(ties.find(({ id }) => id === 'tie')!.pieces).toBe(expected);
    expect(ties.find(({ id }) => id === 'tape')!.pieces).toBe(5);
  });
  test('continuity: every pin of a circuit against its source, resistance worked by hand for one wire', () => {
    const pins = Object.values(createInlet().looms.inlet!.circuits).reduce((sum, { terminations }) => sum + terminations.length - 1, 0);
    expect(continuity).toHaveLength(pins);
    const row = continuity.find(({ circuitId }) => circuitId === 'c203')!;
    // 460 mm of AWG 22 at 53.2 mΩ/m, two contacts of 2 mΩ
    expect(loom.wires.find(({ circuitId }) => circuitId === 'c203')!.cutMm).toBe(460);
    expect(row.expectedOhm).toBeCloseTo(0.46 * 0.0532 + 0.004, 9);
    expect(row.millivolts).toBeNull();
    expect(row.mostOhm).toBeCloseTo(row.expectedOhm + 0.1, 9);
  });
  test('through a splice: both wires, two contacts and the joint', () => {
    const row = continuity.find(({ circuitId, to }) => circuitId === 'c201' && to.endId === 'inj1')!;
    const [a, d] = row.wires.map((number) => loom.wires.find((wire) => wire.number === number)!);
    expect(row.expectedOhm).toBeCloseTo(((a!.cutMm + d!.cutMm) * 32.4) / 1e6 + 0.005, 9);
  });
  test('a feed above 5 A is proved by millivolts at 5 A: what its copper and contacts lose there, a fifth more at most (calculations 15)', () => {
    const job = createInlet();
    job.looms.inlet!.circuits.c209!.currentA = 6;
    const hot = build(job).continuity.find(({ circuitId }) => circuitId === 'c209')!;
    const wire = plan(job, CATALOGUE).looms[0]!.wires.find(({ circuitId }) => circuitId === 'c209')!;
    const expectedMv = 5 * ((wire.conductor.r20MilliohmPerM * wire.cutMm) / 1000 + 2 * 2);
    expect(hot.millivolts!.atA).toBe(5);
    expect(hot.millivolts!.expectedMv).toBeCloseTo(expectedMv, 6);
    expect(hot.millivolts!.mostMv).toBeCloseTo(1.2 * expectedMv, 6);
    // a load of which all of the budget is gone leaves what a sound wire reads within
    job.looms.inlet!.circuits.c209!.currentA = 60;
    const spent = build(job).continuity.find(({ circuitId }) => circuitId === 'c209')!.millivolts!;
    expect(spent.mostMv).toBeCloseTo(1.05 * spent.expectedMv, 6);
  });
  test('the cut CSV has a cable once, by its longest wire, and every wire of it', () => {
    const job = structuredClone(createBench());
    for (const id of ['c1', 'c2']) job.looms.bench!.circuits[id]!.cable = { groupId: 'crank', itemId: 'etfe-2x24s' };
    const made = build(job);
    const wires = plan(job, CATALOGUE).looms[0]!.wires.filter(({ cable }) => cable);
    const lines = toCutListCsv(made)
      .split('\r\n')
      .filter((line) => line.includes('cable crank'));
    expect(wires.length).toBeGreaterThan(1);
    expect(lines).toHaveLength(1);
    for (const { number } of wires) expect(lines[0]).toContain(number);
    expect(lines[0]).toContain(`,${Math.max(...wires.map(({ roughMm }) => roughMm))},`);
  });
});
