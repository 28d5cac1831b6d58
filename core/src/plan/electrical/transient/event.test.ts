import { CATALOGUE } from '../../../catalogue';
import { createCleanSkerry } from '../../../demo';
import type { Job } from '../../../model';
import { createVehicle } from '../../../testing/createVehicle';
import { findStandard, plan } from '../..';
import { createEvent, type EventKind, type LoadEvent } from './createEvent';
import { measureEvent } from './measureEvent';
import { measureHeat } from '../../heat/measureHeat';
import { measureTransient } from './measureTransient';

/** An event of the load whose name starts so. */
function happen(job: Job, name: string, kind: EventKind, crankS = 5): LoadEvent {
  const planned = plan(job, CATALOGUE);
  const load = planned.power.loads.find((one) => one.name.startsWith(name))!;
  const event = createEvent({ ...planned, job }, findStandard(job, CATALOGUE), load, kind, crankS);
  if (typeof event === 'string') throw new Error(event);
  return event;
}
const gap = (job: Job, name: string, kind: EventKind) => {
  const planned = plan(job, CATALOGUE);
  return createEvent(
    { ...planned, job },
    findStandard(job, CATALOGUE),
    planned.power.loads.find((one) => one.name.startsWith(name))!,
    kind,
    5,
  );
};

describe('what happens within seconds', () => {
  test('a start: the inrush for its time, from the temperature of the worst mode', () => {
    // the pump of 7 A draws 21 A for 200 ms (three times, as its kind has it)
    const event = happen(createVehicle(), 'pump', 'start');
    expect(event).toMatchObject({ currentA: 21, seconds: 4, guardId: 'box.f2' });
    expect(event.runs.map(({ segmentId }) => segmentId).sort()).toEqual(['s-box', 's-pump', 's-stud']);
    const { startC, stages, ambientC } = event.runs.find(({ segmentId }) => segmentId === 's-pump')!;
    expect(stages.map(({ untilS }) => untilS)).toEqual([0.2, Infinity]);
    // out and back in one bundle, 21 A against 7 A: nine times the heat
    expect(stages[0]!.wattsPerMAt20 / stages[1]!.wattsPerMAt20).toBeCloseTo(9, 9);
    expect(startC).toBeGreaterThan(ambientC);
    const heat = measureEvent(event)!;
    expect(heat.mostC).toBeGreaterThan(heat.run.startC);
    expect(heat.harmS).toBeNull();
  });
  test('a stuck pump draws its inrush until its fuse has opened at the latest, then cools', () => {
    const event = happen(createVehicle(), 'pump', 'stuck');
    expect(event.opens!.shortestS).toBeGreaterThan(0);
    const heat = measureEvent(event)!;
    expect(heat.mostS).toBeCloseTo(event.opens!.longestS, 9);
    expect(heat.earliestC!).toBeLessThan(heat.mostC);
    expect(heat.points.at(-1)!.middleC).toBeLessThan(heat.mostC);
    expect(heat.eachC).toHaveLength(event.runs.length);
  });
  test('where the fuse is far too large it does not open, and the wire goes to its steady temperature, whatever that does to it', () => {
    const job = createVehicle((one) => {
      one.devices.box!.ratings.f2 = { ratingA: 40, reason: 'to be found' };
      one.looms.main!.circuits.c4!.sizePin = { size: '22', reason: 'to be found' };
      one.looms.main!.circuits.c6!.sizePin = { size: '22', reason: 'to be found' };
    });
    const event = happen(job, 'pump', 'stuck');
    expect(event.opens).toBeNull();
    const heat = measureEvent(event)!;
    expect(heat.earliestC).toBeNull();
    expect(heat.harmS).toBeGreaterThan(0);
    expect(heat.mostC).toBeGreaterThan(heat.run.shortC);
  });
  test('a short is ended by the fuse before the wire is harmed, as the plan chose it to be', () => {
    const event = happen(createVehicle(), 'lamp', 'short');
    // 12.5 V through 8 mΩ of battery, wires, contacts and a 2 A fuse of 37.5 mΩ
    expect(event.currentA).toBeGreaterThan(30);
    const heat = measureEvent(event)!;
    expect(heat.harmS).toBeNull();
  });
  test('a short that nothing ends is followed until the wire is past what it stands', () => {
    const event = happen(createCleanSkerry(), 'starter motor main', 'short');
    expect(event).toMatchObject({ guardId: null, opens: null });
    const heat = measureEvent(event)!;
    expect(heat.harmS).toBeGreaterThan(1);
    expect(heat.harmS).toBeLessThan(120);
  });
  test('cranking: the starter of the demo for five seconds, and the lump goes where the steady state would in the end', () => {
    const job = createCleanSkerry();
    const event = happen(job, 'starter motor main', 'cranking');
    expect(event.seconds).toBe(15);
    const heat = measureEvent(event)!;
    expect(heat.mostC).toBeLessThan(heat.run.limitC);
    const { run } = heat;
    const steady = measureHeat({ ...run, hottest: [], wattsPerMAt20: run.stages[1]!.wattsPerMAt20 })?.middleC ?? Infinity;
    const { points } = measureTransient({ ...run, wattsPerMAt20: () => run.stages[1]!.wattsPerMAt20, seconds: 20_000 });
    if (Number.isFinite(steady)) expect(points.at(-1)!.middleC).toBeCloseTo(steady, 0);
    else expect(points.at(-1)!.middleC).toBeGreaterThan(600);
    expect(measureEvent(happen(job, 'starter motor main', 'cranking', 20))!.mostC).toBeGreaterThan(heat.mostC);
  });
  test('while it cranks the other wires carry what is on in cranking, not what the worst mode has', () => {
    const job = structuredClone(createCleanSkerry());
    const event = happen(job, 'starter motor main', 'cranking');
    const planned = plan(job, CATALOGUE);
    const crank = planned.power.modeIds.indexOf('crank');
    for (const run of event.runs) {
      const loom = planned.looms.find(({ loomId }) => loomId === run.loomId)!;
      const { sections } = loom.bundles.find(({ segmentId }) => segmentId === run.segmentId)!;
      const section = sections.filter(({ elements }) => elements.flat().includes(run.wireId)).reduce((a, b) => (b.odMm < a.odMm ? b : a));
      // by hand: I² R of every wire there, the starter's own at its full current
      const watts = section.elements.flat().reduce((sum, id) => {
        const at = loom.wires.findIndex((wire) => wire.id === id);
        const own = loom.currents[at]!.heatA[crank]!;
        const starter = planned.power.loads.find(({ load }) => load === 'starter')!;
        const carries = starter.steps.some(({ wireId, loomId, counts }) => counts && wireId === id && loomId === run.loomId);
        const amperes = carries ? own + starter.currentA - starter.heatA[crank]! : own;
        return sum + (amperes ** 2 * loom.wires[at]!.conductor.r20MilliohmPerM) / 1000;
      }, 0);
      expect(run.stages[1]!.wattsPerMAt20).toBeCloseTo(watts, 6);
    }
    expect(event.lacksInrush).toBe(planned.power.loads.find(({ load }) => load === 'starter')!.inrushA === null);
  });
  test('without a mode that cranks nothing is made up', () => {
    const job = structuredClone(createCleanSkerry());
    job.modes.crank!.engine = 'running';
    expect(gap(job, 'starter motor main', 'cranking')).toBe('no-mode');
  });
  test.each([
    ['a lamp is no motor', createVehicle(), 'lamp', 'stuck', 'no-motor'],
    ['a pump turns no engine', createVehicle(), 'pump', 'cranking', 'no-starter'],
    [
      'nobody gave the inrush',
      createVehicle((one) => void (one.looms.main!.ends.pump!.pins['1']!.inrushA = null)),
      'pump',
      'start',
      'inrush',
    ],
    ['nor for how long', createVehicle((one) => void (one.looms.main!.ends.pump!.pins['1']!.inrushMs = null)), 'pump', 'start', 'inrush'],
    [
      'nothing feeds it',
      createVehicle((one) => void (one.looms.main!.circuits.c4!.terminations[0] = { endId: 'main', cavity: '5' })),
      'pump',
      'short',
      'unfed',
    ],
  ] as const)('%s', (_, job, name, kind, why) => expect(gap(job, name, kind)).toBe(why));
  test('runs in no known zone are counted, not guessed', () => {
    const job = createVehicle((one) => void (one.looms.main!.segments['s-pump']!.zoneId = null));
    const event = happen(job, 'pump', 'start');
    expect(event.unknown).toBe(1);
    expect(event.runs.some(({ segmentId }) => segmentId === 's-pump')).toBe(false);
    expect(measureEvent({ ...event, runs: [] })).toBeNull();
  });
  test('each stretch is reported as it is done', () => {
    const event = happen(createVehicle(), 'pump', 'start');
    const done: number[] = [];
    measureEvent(event, (count) => done.push(count));
    expect(done).toEqual([1, 2, 3]);
  });
});

test('no step crosses a jump of the heat: a pulse lets in what it holds, to the joule', () => {
  const { points, inJ } = measureTransient({
    ...{ ambientC: 20, startC: 20, bundleMm: 3, outsideMm: 3, altitudeM: 0, copperGPerM: 1e6, insulationGPerM: 0 },
    ...{ wattsPerMAt20: (seconds: number) => (seconds < 0.0333 ? 100 : 0), seconds: 1, breaksS: [0.0333] },
  });
  expect(inJ).toBeCloseTo(3.33, 5);
  expect(points.some(({ seconds }) => seconds === 0.0333)).toBe(true);
});
