import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo/createSkerry';
import { editDocument, type Job } from '../../model';
import { plan } from '../../plan';
import { runs } from '../../testing/runs';
import { createBuild } from '../createBuild';
import { isPassing } from '../judgeReadings';
import { createRingOut } from './createRingOut';
import { toOhm } from './createSeen';
import { examine, type Examined } from './examine';
import { plantFault, type PlantedKind } from './plantFault';
import { createStandInTester, type Planted } from './standInTester';
import { toFaultWords } from './toFaultWords';
import { toProbeKey, type RingOut } from './types';

const job = createCleanSkerry();
const whole = plan(job, CATALOGUE);
const ringOuts = new Map(
  whole.looms.map((loom) => [loom.loomId, createRingOut(job, CATALOGUE, loom, createBuild(job, loom, CATALOGUE).continuity)]),
);
const inlet = ringOuts.get('inlet')!;

/** what is asked for is listed anew after so many */
const AT_ONCE = 4;

/** The table is measured, then what is asked for, until nothing is. */
function ringOutWith(ringOut: RingOut, planted: readonly Planted[], seed: number) {
  const tester = createStandInTester(ringOut, planted, seed);
  const values = new Map(ringOut.tests.map((test) => [test.id, tester(test)]));
  let seeks = 0;
  let found = examine(ringOut, values);
  for (; found.seeks.length > 0 && seeks < 2000; found = examine(ringOut, values)) {
    for (const next of found.seeks.slice(0, AT_ONCE)) {
      seeks += 1;
      expect(values.has(next.id)).toBe(false);
      values.set(next.id, tester(next));
    }
  }
  return { found, seeks, values };
}

/** Is what was planted among what is named, and nothing beside it but what reads the same? */
function isNamed(ringOut: RingOut, planted: Planted, { faults }: Examined): boolean {
  const [fault, ...others] = faults;
  if (!fault || others.length > 0) return false;
  switch (planted.kind) {
    case 'open':
      return fault.kind === 'open' && fault.wireIds.includes(planted.wireId);
    case 'poor':
      return fault.kind === 'poor' && fault.wireIds.includes(planted.wireId);
    case 'bridge': {
      const nets = [planted.a, planted.b].map((probe) =>
        ringOut.nets.find(({ probes }) => probes.some((one) => toProbeKey(one) === toProbeKey(probe)))!,
      );
      const isScreen = nets.some(({ kind }) => kind === 'screen');
      if (fault.kind !== 'joined' && fault.kind !== 'screen') return false;
      return (
        fault.kind === (isScreen ? 'screen' : 'joined') &&
        nets.every(({ id }) => fault.netIds.includes(id)) &&
        fault.nearestEndId === planted.a.endId
      );
    }
    case 'moved': {
      if (!('moves' in fault)) return false;
      const same = (one: { endId: string; moves: readonly (readonly [string, string])[] }) =>
        one.endId === planted.endId && JSON.stringify([...one.moves].sort()) === JSON.stringify([...planted.moves].sort());
      return [fault, ...fault.or].some(same);
    }
  }
}

test('the inlet loom: 28 nets, 28 isolation measurements, not 378; k − 1 joins for k pins; N-203 passes up to 119 mΩ', () => {
  expect(inlet.nets).toHaveLength(28);
  expect(inlet.tests.filter(({ kind }) => kind === 'isolate')).toHaveLength(28);
  const joins = inlet.tests.filter(({ kind }) => kind === 'join');
  expect(joins).toHaveLength(inlet.nets.reduce((sum, { probes }) => sum + probes.length - 1, 0));
  // the figure is that of AWG 20, whatever the rest of the feed lets it be
  const pinned = editDocument(job, (draft) => {
    draft.looms.inlet!.circuits.c203!.sizePin = { size: '20', reason: 'as the figure has it' };
  }).next;
  const loom = plan(pinned, CATALOGUE).looms.find(({ loomId }) => loomId === 'inlet')!;
  const { tests } = createRingOut(pinned, CATALOGUE, loom, createBuild(pinned, loom, CATALOGUE).continuity);
  const one = tests.find(({ kind, wires }) => kind === 'join' && wires.includes('N-203'))!;
  expect(one.expected! * 1000).toBeCloseTo(18.9, 1);
  expect(one.most! * 1000).toBeCloseTo(118.9, 1);
  expect(inlet.tests.find(({ kind }) => kind === 'isolate')).toMatchObject({ unit: 'MΩ', least: 100 });
});

test('a probe stays where it is as long as it can: the far ends are gone to once for each place that it stays at', () => {
  for (const { tests, moves } of ringOuts.values()) {
    const joins = tests.filter(({ kind }) => kind === 'join');
    const anchors = new Set(joins.map(({ from }) => from.endId));
    const pairs = new Set(joins.map(({ from, to }) => `${from.endId} ${to!.endId}`));
    expect(moves).toBeLessThanOrEqual(anchors.size + pairs.size);
  }
});

test('how far a part may be off is the shop’s to say', () => {
  const shop = { ...CATALOGUE, standards: { larkhollow: { ...CATALOGUE.standards.larkhollow!, partBandShare: 0.05 } } };
  const loom = whole.looms.find(({ loomId }) => loomId === 'chassis')!;
  const part = createRingOut(job, shop, loom, createBuild(job, loom, shop).continuity).tests.find(({ kind }) => kind === 'part')!;
  expect([part.least, part.most]).toEqual([114, 126]);
});

test('a loom with wire that was in use before is isolated by less, at less; how much is the shop’s to say, and the floor asks for the same', () => {
  const used = structuredClone(job);
  used.looms.inlet!.hasReusedWire = true;
  const loom = whole.looms.find(({ loomId }) => loomId === 'inlet')!;
  const isolationOf = (one: Job, shop = CATALOGUE) => {
    const build = createBuild(one, loom, shop);
    const ringOut = createRingOut(one, shop, loom, build.continuity);
    const reads = build.steps
      .flatMap(({ items }) => items.flatMap((item) => item.reads ?? []))
      .filter(({ words }) => words.includes('against all others'));
    const leasts = [...ringOut.tests.filter(({ kind }) => kind === 'isolate'), ...reads].map(({ least }) => least);
    const volts = new Set([ringOut.isolationVolts, ...reads.map(({ words }) => Number(/at (\d+) V$/.exec(words)![1]))]);
    return { leasts: [...new Set(leasts)], volts: [...volts], reads: reads.length };
  };
  expect(isolationOf(job)).toEqual({ leasts: [100], volts: [500], reads: 28 });
  expect(isolationOf(used)).toEqual({ leasts: [10], volts: [100], reads: 28 });
  const own = { ...CATALOGUE.standards.larkhollow!, isolationReusedMegohm: 20, isolationReusedVolts: 250 };
  const shop = { ...CATALOGUE, standards: { ...CATALOGUE.standards, larkhollow: own } };
  expect(isolationOf(used, shop)).toEqual({ leasts: [20], volts: [250], reads: 28 });
  expect(isolationOf(job, shop)).toEqual({ leasts: [100], volts: [500], reads: 28 });
});

test('a terminator that is built into the loom is measured by its value, and its two nets are not expected apart', () => {
  const chassis = ringOuts.get('chassis')!;
  const part = chassis.tests.find(({ kind }) => kind === 'part')!;
  expect(part).toMatchObject({ expected: 120, least: 96, most: 144 });
  expect(chassis.nets.filter(({ partnerIds }) => partnerIds.length > 0)).toHaveLength(2);
  const tester = createStandInTester(chassis, [], 1);
  const values = new Map(chassis.tests.map((test) => [test.id, tester(test)]));
  expect(examine(chassis, values).failed).toEqual([]);
  values.set(part.id, 60);
  const { faults } = examine(chassis, values);
  expect(faults).toMatchObject([{ kind: 'part', ohm: 60 }]);
  expect(toFaultWords(chassis, faults[0]!).what).toBe('The terminator 120 Ω, 0.25 W reads 60 Ω.');
});

test('200 sound looms: nothing fails', () => {
  for (let seed = 1; seed <= runs(200, 1000); seed += 1)
    for (const ringOut of seed % 20 === 0 ? ringOuts.values() : [inlet]) {
      const { found, seeks } = ringOutWith(ringOut, [], seed);
      expect([seed, ringOut.loomId, found.failed, found.faults, found.passed, seeks]).toEqual([
        seed,
        ringOut.loomId,
        [],
        [],
        ringOut.tests.length,
        0,
      ]);
    }
});

test.each(['open', 'short', 'exchange', 'screen', 'poor', 'turn'] as const)(
  '200 looms with a fault of kind %s: each is named',
  (kind: PlantedKind) => {
    // every fault in the loom that is quickest, in each of the others now and then: a long row that is turned asks for many measurements, those are of npm run soak
    const quick = kind === 'screen' ? ringOuts.get('engine')! : inlet;
    for (let seed = 1; seed <= runs(200, 1000); seed += 1)
      for (const ringOut of seed % (kind === 'turn' ? 250 : 40) === 0 ? ringOuts.values() : [quick]) {
        const planted = plantFault(ringOut, kind, seed);
        if (planted === null) continue;
        const { found } = ringOutWith(ringOut, [planted], seed);
        const words = found.faults.map((fault) => toFaultWords(ringOut, fault).what);
        expect([seed, ringOut.loomId, planted, found.faults, words, isNamed(ringOut, planted, found)]).toEqual([
          ...[seed, ringOut.loomId, planted, found.faults, words, true],
        ]);
      }
  },
);

test('an exchanged pair in words: what, where to look, and what reads the same', () => {
  const { found, seeks } = ringOutWith(
    inlet,
    [
      {
        kind: 'moved',
        endId: 'B1',
        moves: [
          ['1', '2'],
          ['2', '1'],
        ],
      },
    ],
    7,
  );
  const [fault] = found.faults;
  expect(toFaultWords(inlet, fault!).what).toBe('1 and 2 of inlet bulkhead B1 are exchanged.');
  expect(toFaultWords(inlet, fault!).look).toContain('Look at the numbers of 1, 2 of inlet bulkhead B1, wire side.');
  expect(seeks).toBeLessThan(10);
});

test('a wire in a cavity that is to stay empty is found there', () => {
  const end = inlet.ends.find(({ empty, hasCavities }) => hasCavities && empty.length > 0)!;
  const used = end.cavities.find((cavity) => !end.empty.includes(cavity))!;
  const sits = end.empty[0]!;
  const { found } = ringOutWith(inlet, [{ kind: 'moved', endId: end.id, moves: [[used, sits]] }], 3);
  expect(found.faults).toMatchObject([{ kind: 'astray', endId: end.id, moves: [[used, sits]] }]);
  expect(toFaultWords(inlet, found.faults[0]!).what).toContain(`what belongs in ${used} sits in ${sits}`);
});

test('a row that was read from the mating side is told as one thing', () => {
  const end = inlet.ends.find(({ id }) => id === 'B1')!;
  const row = end.cavities.slice(2, 6);
  const moves = row.map((cavity, at): [string, string] => [cavity, row[3 - at]!]);
  const nets = new Set(
    row.map((cavity) => inlet.nets.find(({ probes }) => probes.some((one) => one.endId === 'B1' && one.cavity === cavity))!.id),
  );
  expect(nets.size).toBe(4);
  const { found } = ringOutWith(inlet, [{ kind: 'moved', endId: 'B1', moves }], 5);
  expect(found.faults).toMatchObject([{ kind: 'mirrored', endId: 'B1' }]);
});

test('two faults that do not meet are both named', () => {
  const [open, poor] = inlet.copper.filter(({ circuitId }, at, all) => all.findIndex((one) => one.circuitId === circuitId) === at);
  const { found } = ringOutWith(
    inlet,
    [
      { kind: 'open', wireId: open!.wireId },
      { kind: 'poor', wireId: poor!.wireId, ohm: 0.5 },
    ],
    9,
  );
  expect(found.faults.map(({ kind }) => kind).sort()).toEqual(['open', 'poor']);
});

test('a loom that is plugged in, or wet, is told as one thing: nobody is asked for every two of its nets', () => {
  const chassis = ringOuts.get('chassis')!;
  const tester = createStandInTester(chassis, [], 1);
  const values = new Map(chassis.tests.map((test) => [test.id, test.kind === 'isolate' ? 0.2 : tester(test)]));
  const { faults, seeks } = examine(chassis, values);
  expect([faults.map(({ kind }) => kind), seeks]).toEqual([['many'], []]);
  expect(toFaultWords(chassis, faults[0]!).what).toBe(`${chassis.nets.length} nets are not isolated, all at once.`);
});

test('millivolts of no known current are refused, not taken as of one ampere', () => {
  expect(() => toOhm({ unit: 'mV', atA: null }, 20)).toThrow('prove: expected the current at which millivolts were read');
  expect([toOhm({ unit: 'mV', atA: 5 }, 20), toOhm({ unit: 'Ω', atA: null }, 20)]).toEqual([0.004, 20]);
});

test('a table that is half measured asks for nothing beside it and names nothing that it cannot know', () => {
  const tester = createStandInTester(inlet, [], 1);
  const half = new Map(inlet.tests.slice(0, 10).map((test) => [test.id, tester(test)]));
  expect(examine(inlet, half)).toMatchObject({ passed: 10, failed: [], faults: [], seeks: [] });
  expect(inlet.tests.slice(0, 10).every((test) => isPassing(test, half.get(test.id)!))).toBe(true);
});
