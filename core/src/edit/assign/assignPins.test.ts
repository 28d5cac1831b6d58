import { CATALOGUE, createLookup, LARKHOLLOW } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { checkJob, type Job } from '../../model';
import { createVehicle } from '../../testing/createVehicle';
import { assignPins } from './assignPins';
import { listUnservedPins } from './listUnservedPins';
import { createNetMap } from '../../netlist';

const assign = (job: Job) => assignPins(job, CATALOGUE, LARKHOLLOW);
/** The demo with only its cables and what was wired in engine and inlet. */
function createBare(): Job {
  const job = createCleanSkerry();
  const { circuits } = job.looms.chassis!;
  for (const id of Object.keys(circuits)) if (!/^c10[1-6]$/.test(id)) delete circuits[id];
  job.looms.gearbox!.circuits = {};
  job.looms.chassis!.splicePins = {};
  return job;
}
const whole = assign(createBare());
const netAt = (job: Job, loomId: string, endId: string, cavity: string) => createNetMap(job).netOf.get(`${loomId}/${endId}/${cavity}`)!;
const hosts = (job: Job, loomId: string, endId: string, cavity: string) =>
  netAt(job, loomId, endId, cavity).pins.flatMap((pin) =>
    pin.offer ? [`${pin.endId} ${pin.cavity} ${pin.offer.group ?? ''}`.trim()] : [],
  );

describe('the whole vehicle at once', () => {
  test('everything finds a place, and the document passes the gate', () => {
    expect(whole.conflicts).toEqual([]);
    expect(whole.assigned.length).toBeGreaterThan(60);
    const checked = checkJob(JSON.parse(JSON.stringify(whole.next)), createLookup(CATALOGUE));
    expect(checked.ok ? [] : checked.problems).toEqual([]);
    expect(listUnservedPins(whole.next, LARKHOLLOW).needs).toEqual([]);
  });
  test('the same job comes out the same, byte for byte', () => expect(JSON.stringify(assign(createBare()))).toBe(JSON.stringify(whole)));
  test('the job given is not touched, and a second time there is nothing to do', () => {
    const job = createBare();
    const before = JSON.stringify(job);
    assign(job);
    expect(JSON.stringify(job)).toBe(before);
    const again = assign(whole.next);
    expect([again.assigned, again.conflicts, again.next === whole.next]).toEqual([[], [], true]);
    expect(again.kept).toBeGreaterThan(150);
  });
  test('every place says why', () => {
    for (const { because } of whole.assigned)
      expect(because).toMatch(/: (the only free pin that can|least cost of \d+ free pins that can)/);
  });
  test('a circuit runs device → sub-loom → bulkhead → chassis, in the same cavity of both faces', () => {
    const { circuits } = netAt(whole.next, 'inlet', 'thr', '5');
    expect(circuits.map(({ loomId }) => loomId)).toEqual(['chassis', 'engine', 'inlet']);
    const cavity = (loomId: string, endId: string) =>
      circuits
        .flatMap((one) => (one.loomId === loomId ? whole.next.looms[loomId]!.circuits[one.circuitId]!.terminations : []))
        .find((one) => one.endId === endId)!.cavity;
    expect(cavity('chassis', 'F1')).toBe(cavity('engine', 'E1'));
    expect(cavity('engine', 'm-inlet-plug')).toBe(cavity('inlet', 'B1'));
  });
  test('sensor grounds go by noise: throttle, crank and cam, each pedal track, and the rest', () => {
    const of = (loomId: string, endId: string, cavity: string) => hosts(whole.next, loomId, endId, cavity).join();
    const groups = [
      of('inlet', 'thr', '4'),
      of('engine', 'm-cam-sensor', '2'),
      of('chassis', 'm-pedal', '2'),
      of('chassis', 'm-pedal', '5'),
      of('inlet', 'map', '2'),
    ];
    expect(new Set(groups).size).toBe(5);
    expect(of('gearbox', 'm-gear-barrel-position', '2')).toBe(groups[4]);
  });
  test('the two tracks of the pedal hang on different rails', () => {
    const rail = (cavity: string) => hosts(whole.next, 'chassis', 'm-pedal', cavity)[0]!.slice(-1);
    expect(rail('1')).not.toBe(rail('4'));
  });
  test('pairs stay together: neighbouring pins, neighbouring cavities, one twist', () => {
    const { terminations, twist } = Object.values(whole.next.looms.chassis!.circuits).find(({ name }) => name === 'CAN high')!;
    const low = Object.values(whole.next.looms.chassis!.circuits).find(({ name }) => name === 'CAN low')!;
    expect(low.twist).toEqual(twist);
    expect(twist).not.toBeNull();
    expect(low.terminations.map(({ endId }) => endId)).toEqual(terminations.map(({ endId }) => endId));
  });
  test('no cavity and no pin of a box is used twice', () => {
    for (const { circuits } of Object.values(whole.next.looms)) {
      const all = Object.values(circuits).flatMap(({ terminations }) => terminations.map((one) => `${one.endId} ${one.cavity}`));
      expect(new Set(all).size).toBe(all.length);
    }
  });
});

test('what was set by hand stays: only what is open moves', () => {
  const job = structuredClone(whole.next);
  const { circuits } = job.looms.chassis!;
  const kept = Object.fromEntries(
    Object.entries(circuits).filter(([, { terminations }]) => !terminations.some(({ endId }) => endId === 'm-rain-light')),
  );
  job.looms.chassis!.circuits = kept;
  const { next, assigned } = assign(job);
  expect(assigned.map(({ need }) => need).sort()).toEqual(['rain light 12 V supply', 'shared ground']);
  for (const id of Object.keys(kept)) expect(next.looms.chassis!.circuits[id]).toBe(kept[id]);
});

describe('what cannot be placed', () => {
  test('more loads than ways: the least set that competes, and what it would take', () => {
    const job = createVehicle((one) => {
      const { looms } = one;
      for (const cavity of ['4', '5', '6', '7', '8', '9']) delete looms.main!.ends.box!.offers[cavity];
      delete looms.main!.circuits.c3;
      delete looms.main!.circuits.c4;
      delete looms.main!.ends.box!.offers['2'];
    });
    const { conflicts, assigned } = assign(job);
    expect(assigned).toHaveLength(1);
    expect(conflicts).toHaveLength(1);
    expect(conflicts[0]!.competing.sort()).toEqual(['lamp 12 V supply', 'pump 12 V supply']);
    expect(conflicts[0]!.wouldTake).toMatch(/^2 needs for 1 place: one more pin for feed \(.* A\), or one of these needs elsewhere$/);
  });
  test('a load above every limit says so', () => {
    const job = createVehicle((one) => {
      delete one.looms.main!.circuits.c4;
      one.looms.main!.ends.pump!.pins['1']!.currentA = 90;
    });
    expect(assign(job).conflicts).toEqual([
      {
        need: 'pump 12 V supply',
        competing: ['pump 12 V supply'],
        places: [],
        wouldTake: 'no free pin for feed (90 A) in reach: add a box that has one, or mate the looms',
      },
    ]);
  });
  test('a plug without a free cavity leaves the job alone and names who holds it', () => {
    const job = createBare();
    const { circuits } = job.looms.engine!;
    const plug = job.mates.gearbox!;
    job.looms.chassis!.ends[plug.a.endId]!.familyId = 'hollin-3';
    job.looms.gearbox!.ends[plug.b.endId]!.familyId = 'hollin-3';
    const { conflicts, next } = assign(job);
    expect(conflicts.length).toBeGreaterThan(3);
    for (const { wouldTake } of conflicts) expect(wouldTake).toBe('a plug with more ways between chassis and gearbox, or a second one');
    expect(checkJob(JSON.parse(JSON.stringify(next)), createLookup(CATALOGUE)).ok).toBe(true);
    expect(next.looms.engine!.circuits.c301).toBe(circuits.c301);
  });
  test('devices that go, or come later, need nothing', () => {
    const job = createVehicle((one) => {
      delete one.looms.main!.circuits.c3;
      one.devices.lamp!.decision = 'remove';
    });
    expect(assign(job)).toMatchObject({ assigned: [], conflicts: [] });
  });
});
