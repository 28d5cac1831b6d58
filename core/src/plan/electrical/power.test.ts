import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { createRandom } from '../../units/createRandom';
import { createRandomVehicle } from '../../demo/createRandomVehicle';
import { applyEdit, editDocument, type Job } from '../../model';
import { listFindings } from '../../make';
import { createVehicle } from '../../testing/createVehicle';
import { createPlanner, findStandard, measureModeHeats, plan } from '..';
import { listDevicePins } from './currents/listDevicePins';

const power = (job: Job) => plan(job, CATALOGUE).power;
const load = (job: Job, name: string) => power(job).loads.find((one) => one.name.startsWith(name))!;
const fuse = (job: Job, id: string) => power(job).protections.find((one) => one.id === id)!;
const wire = (job: Job, circuitId: string) => plan(job, CATALOGUE).looms[0]!.wires.find((one) => one.circuitId === circuitId)!;
const current = (job: Job, circuitId: string) => plan(job, CATALOGUE).looms[0]!.currents.find(({ wireId }) => wireId === `${circuitId}.1`)!;

describe('currents', () => {
  test('sum from the loads through their fuses to the battery: all of it while it is on, the mean by duty', () => {
    const { modeIds, sourceA } = power(createVehicle());
    expect(modeIds).toEqual(['bypass', 'crank', 'display', 'idle', 'isolated', 'key-off', 'key-on', 'night', 'wet']);
    // lamp 0.8 A, pump 7 A on a quarter of the time at idle; no switch is on the way, so that nothing cuts them off
    expect(sourceA!.on.map((one) => Number(one.toFixed(3)))).toEqual(modeIds.map(() => 7.8));
    const idle = modeIds.indexOf('idle');
    expect(sourceA!.mean[idle]).toBeCloseTo(0.8 + 7 / 4, 9);
    expect(current(createVehicle(), 'c2').onA[idle]).toBeCloseTo(7.8, 9);
    // the pump's cycle is not given: its bundle feels all of it
    expect(current(createVehicle(), 'c2').heatA[idle]).toBeCloseTo(7.8, 9);
    expect(current(createVehicle(), 'c2').designA).toBeCloseTo(7.8, 9);
  });
  test('what goes in comes back: the battery ground carries as much as the battery feed', () => {
    expect(current(createVehicle(), 'c7').onA).toEqual(current(createVehicle(), 'c1').onA);
  });
  test('a starter counts where it turns only, a device that says nothing counts as fully on', () => {
    const job = createVehicle((one) => {
      one.looms.main!.ends.lamp!.pins['1']!.load = 'starter';
    });
    const { modeIds } = power(job);
    expect(load(job, 'lamp').onA).toEqual(modeIds.map((id) => (id === 'crank' ? 0.8 : 0)));
    expect(load(createVehicle(), 'lamp').onA).toEqual(modeIds.map(() => 0.8));
  });
  test('a load whose current nobody gave is said, not counted as nothing known', () => {
    const job = createVehicle((one) => {
      one.looms.main!.ends.lamp!.pins['1']!.currentA = null;
    });
    expect(current(job, 'c3').designA).toBeNull();
    expect(power(job).nets.find(({ id }) => id === 'main/c3')!.unknown).toBe(1);
  });
  test('a circuit that gives its current speaks for pins that do not', () => {
    const job = createVehicle((one) => {
      one.looms.main!.ends.lamp!.pins['1']!.currentA = null;
      one.looms.main!.circuits.c3!.currentA = 2;
    });
    expect(current(job, 'c3').designA).toBe(2);
    expect(current(job, 'c2').designA).toBeCloseTo(9, 9);
  });
  test('a loop of links ends', () => {
    const job = createVehicle((one) => {
      one.looms.main!.circuits.c1!.terminations = [
        { endId: 'main', cavity: '1' },
        { endId: 'box', cavity: '9' },
      ];
    });
    expect(power(job).sourceA).toBeNull();
    expect(load(job, 'lamp').faultA).toBeNull();
  });
});

test('two grounds of a box that are spliced to one wire each keep their budget, beside those with wires of their own', () => {
  const job = createCleanSkerry();
  const { circuits, ends } = job.looms.chassis!;
  const [endId] = Object.entries(ends).find(([, { name }]) => name === 'controller plug B')!;
  const [kept, merged] = ['3', '4'].map((cavity) => {
    const at = ({ terminations }: (typeof circuits)[string]) => terminations.some((one) => one.endId === endId && one.cavity === cavity);
    return Object.entries(circuits).find(([, circuit]) => at(circuit))!;
  });
  delete circuits[merged![0]];
  kept![1].terminations.push({ endId, cavity: '4' });
  const planned = plan(job, CATALOGUE);
  expect(planned.power.settled).toBe(true);
  expect(planned.looms.find(({ loomId }) => loomId === 'chassis')!.wires.filter(({ circuitId }) => circuitId === kept![0])).toHaveLength(3);
  expect(planned.power.loads.filter(({ dropV, budgetV }) => dropV > budgetV + 1e-9)).toEqual([]);
});

test.each([
  ['no mode at all', () => ({})],
  ['the starter turning in every one', () => ({ running: { name: 'all', engine: 'cranking' } })],
])('with %s nothing is summed, which stops the build; the fix adds a mode in which the engine runs', (_, modes) => {
  const job = createVehicle((one) => {
    one.modes = modes();
    for (const device of Object.values(one.devices)) device.duty = {};
  });
  const find = (now: Job) => listFindings(now, plan(now, CATALOGUE), CATALOGUE, null).filter(({ code }) => code === 'PO14');
  const [finding] = find(job);
  expect(finding).toMatchObject({ grade: 'stop', fix: { label: 'Add the mode “running”' } });
  const mended = applyEdit(job, finding!.fix!.patch);
  if (!mended.ok) throw new Error(mended.problems[0]!.message);
  expect(find(mended.value)).toEqual([]);
  expect(load(mended.value, 'lamp').dropV).toBeGreaterThan(0.01);
});

describe('a bundle that would run away', () => {
  const job = createVehicle((one) => {
    one.looms.main!.ends.pump!.pins['1']!.currentA = 400;
    one.looms.main!.circuits.c4!.sizePin = { size: '20', reason: 'to see it burn' };
  });
  test('still gives figures: its wires count as warm as their insulation stands for a moment', () => {
    const { loads } = power(job);
    for (const { dropV, dropByModeV, totalByModeV, steps } of loads)
      expect(
        [dropV, ...totalByModeV, ...dropByModeV, ...steps.map((step) => step.dropV)].filter((value) => !Number.isFinite(value)),
      ).toEqual([]);
    expect(load(job, 'pump').dropV).toBeGreaterThan(load(job, 'pump').budgetV);
  });
  test('is a finding, and so is what is lost on the way', () => {
    const codes = listFindings(job, plan(job, CATALOGUE), CATALOGUE, null).map(({ code }) => code);
    expect(codes).toEqual(expect.arrayContaining(['BU3', 'PO4']));
  });
});

describe('the way out and back', () => {
  test('is told step by step, and its drop is the sum of what counts', () => {
    const { steps, dropV, totalByModeV, linkIds } = load(createVehicle(), 'lamp');
    expect(linkIds).toEqual(['main.main', 'box.f1']);
    expect(steps.map(({ way, kind }) => `${way} ${kind}`).join(', ')).toBe(
      'out contact, out wire, out contact, out link, out contact, out wire, out contact, out link, out contact, out wire, out contact, back contact, back wire, back contact, back contact, back wire, back contact',
    );
    expect(dropV).toBeCloseTo(
      steps.filter(({ counts }) => counts).reduce((sum, step) => sum + step.dropV, 0),
      12,
    );
    expect(Math.max(...totalByModeV)).toBeCloseTo(
      steps.reduce((sum, step) => sum + step.dropV, 0),
      12,
    );
    // the lamp's own: fuse, two contacts and wire out, two contacts and wire back; the feed of the box has a budget of its own
    expect(steps.filter(({ counts }) => counts)).toHaveLength(7);
  });
  test('a wire drops I · R(T) · L at the temperature of its bundle', () => {
    const job = createVehicle();
    const step = load(job, 'lamp').steps.find(({ wireId }) => wireId === 'c3.1')!;
    const { lengthMm, conductor } = wire(job, 'c3');
    const { runningC } = current(job, 'c3');
    expect(runningC).toBeGreaterThanOrEqual(50);
    expect(step.dropV).toBeCloseTo((0.8 * conductor.r20MilliohmPerM * lengthMm * (1 + 0.00393 * (runningC! - 20))) / 1e6, 9);
  });
  test('no ground: no way back, and no fault current', () => {
    const job = createVehicle((one) => {
      delete one.looms.main!.circuits.c5;
    });
    expect(load(job, 'lamp')).toMatchObject({ returns: false, faultA: null });
  });
  test('a short draws what battery and way let through', () => {
    const { faultA, steps } = load(createVehicle(), 'lamp');
    const milliohm = steps.reduce((sum, step) => sum + step.milliohm, 0);
    expect(faultA).toBeCloseTo(12.5 / ((8 + milliohm) / 1000), 9);
  });
});

describe('fuses', () => {
  test('are the smallest that carry the load and stay whole when it starts', () => {
    // lamp 0.8 A / (0.75 · 0.95 at 50 °C) = 1.1 A; a cold filament draws 8 A for 30 ms: the next that bears it
    expect(fuse(createVehicle(), 'box.f1')).toMatchObject({ ratingA: 2, pinned: false, problems: [] });
    // pump 7 A; 21 A for 0.2 s: 10 A would open at 2.1 × in 0.15 s, 15 A holds 1.4 × for 0.6 s
    expect(fuse(createVehicle(), 'box.f2')).toMatchObject({ ratingA: 15, loadIds: ['main/pump/1'] });
  });
  test('none is chosen while a load behind it gives no current, and that is a problem, up to the main fuse', () => {
    const job = createVehicle((one) => {
      one.looms.main!.ends.lamp!.pins['1']!.currentA = null;
    });
    for (const id of ['box.f1', 'main.main'])
      expect(fuse(job, id)).toMatchObject({
        ratingA: null,
        problems: ['no-rating'],
        because: '1 load behind it gives no current: nothing is chosen before it is known',
      });
    expect(fuse(job, 'box.f2').problems).toEqual([]);
  });
  test('a way behind which nothing is wired has no net and no problem', () =>
    expect(fuse(createVehicle(), 'box.f8')).toMatchObject({ netId: null, problems: [] }));
  test('a pinned one is kept, with its reason and what is wrong with it', () => {
    const job = createVehicle((one) => {
      one.devices.box!.ratings = { f2: { ratingA: 7.5, reason: 'what was there' } };
    });
    expect(fuse(job, 'box.f2')).toMatchObject({
      ratingA: 7.5,
      pinned: true,
      because: 'what was there',
      problems: expect.arrayContaining(['over-load', 'inrush']),
    });
  });
});

describe('conductors', () => {
  test('are ruled by what asks for most', () => {
    const job = createVehicle();
    // a second contact, no drop: the lamp's 1.6 m of AWG 22 lose little of 5 %
    expect(wire(job, 'c3')).toMatchObject({ ruledBy: 'minimum' });
    // the Brack blade takes no less than 1.9 mm²
    expect(wire(job, 'c4')).toMatchObject({ ruledBy: 'contact', conductor: { size: '14' } });
    // 2 % of 12.5 V for all that the box feeds: no thinner than this
    expect(['drop', 'fuse']).toContain(wire(job, 'c2').ruledBy);
  });
  test('a longer way takes a thicker wire, and says drop', () => {
    const job = createVehicle((one) => {
      one.looms.main!.segments['s-lamp']!.lengthMm = 15_000;
    });
    expect(wire(job, 'c3').ruledBy).toBe('drop');
    expect(wire(job, 'c3').conductor.areaMm2).toBeGreaterThan(0.38);
    expect(load(job, 'lamp').dropV).toBeLessThanOrEqual(load(job, 'lamp').budgetV);
  });
  test('a raised fuse takes a thicker wire where the wire may be thicker, and says fuse', () => {
    const job = createVehicle((one) => {
      one.devices.box!.ratings = { f1: { ratingA: 20, reason: 'spare lamps' } };
    });
    expect(wire(job, 'c3').ruledBy).toBe('fuse');
    expect(fuse(job, 'box.f1').problems).toEqual([]);
  });
  test('a pinned size stays, and the fuse over it is a problem', () => {
    const job = createVehicle((one) => {
      one.devices.box!.ratings = { f1: { ratingA: 20, reason: 'spare lamps' } };
      one.looms.main!.circuits.c3!.sizePin = { size: '24', reason: 'light' };
    });
    expect(wire(job, 'c3')).toMatchObject({ ruledBy: 'pinned', because: 'light' });
    expect(fuse(job, 'box.f1').problems).toContain('over-wire');
  });
  test('every load of the demo is within its budget, for less copper than with one size throughout', () => {
    const { loads, copper, settled, rounds } = power(createCleanSkerry());
    expect(settled).toBe(true);
    expect(rounds).toBeLessThanOrEqual(8);
    expect(loads.length).toBeGreaterThan(45);
    for (const one of loads) expect([one.name, one.dropV <= one.budgetV * 1.0005]).toEqual([one.name, true]);
    expect(copper.massG).toBeLessThan(copper.oneSizeMassG);
  });
});

describe('in each mode', () => {
  test('the drop of the worst mode is the drop that counts against the budget', () => {
    const { loads, modeIds: all } = power(createCleanSkerry());
    for (const { load: kind, onA, dropV, dropByModeV } of loads) {
      // cranking has no budget but the starter's
      const on = dropByModeV.filter((_, mode) => onA[mode]! > 0 && (all[mode] === 'crank') === (kind === 'starter'));
      if (on.length) expect(Math.max(...on)).toBeLessThanOrEqual(dropV + 1e-9);
    }
    // a pump that is on a quarter of the time at idle loses as much there while it is on
    const { dropByModeV } = load(createVehicle(), 'pump');
    const { modeIds } = power(createVehicle());
    expect(dropByModeV[modeIds.indexOf('idle')]!).toBeCloseTo(dropByModeV[modeIds.indexOf('night')]!, 9);
  });
  test('the worst mode of a run is the warmest of all, and a mode in which nothing flows is as warm as its zone', () => {
    const job = createCleanSkerry();
    const planned = plan(job, CATALOGUE);
    const standard = findStandard(job, CATALOGUE);
    for (const loom of planned.looms) {
      const modes = planned.power.modeIds.map((_, mode) => measureModeHeats(job, loom, planned.power.modeIds, mode, standard));
      loom.heats.forEach(({ segmentId, middleC, modeId }, index) => {
        const each = modes.map((heats) => heats[index]!);
        for (const one of each) expect(one.segmentId).toBe(segmentId);
        expect(Math.max(...each.map((one) => one.middleC!))).toBeCloseTo(middleC!, 9);
        if (modeId !== null) expect(each[planned.power.modeIds.indexOf(modeId)]!.middleC).toBeCloseTo(middleC!, 9);
      });
    }
    const silent = structuredClone(job);
    for (const device of Object.values(silent.devices)) device.duty = { ...device.duty, wet: 0 };
    const again = plan(silent, CATALOGUE);
    const wet = again.power.modeIds.indexOf('wet');
    for (const loom of again.looms)
      for (const { middleC, ambientC, modeId } of measureModeHeats(silent, loom, again.power.modeIds, wet, standard)) {
        expect(middleC).toBe(ambientC);
        expect(modeId).toBeNull();
      }
  });
});

test('a planner that remembers says the same as a new one, edit after edit, whatever is edited', () => {
  const planner = createPlanner(CATALOGUE);
  const edits: ((one: Job) => void)[] = [
    (one) => void (one.looms.chassis!.segments['r-radiator-fan']!.lengthMm += 300),
    (one) => void (one.looms.chassis!.ends['m-fuel-pump']!.pins['1']!.currentA = 11),
    (one) => void (one.looms.chassis!.segments['r-radiator-fan']!.lengthMm += 5),
    (one) => void (one.devices.fan!.duty = { idle: 1 }),
    (one) => void (one.source.volts = 13),
    (one) => void (one.looms.chassis!.ends['m-fuel-pump']!.name = 'lift pump'),
    (one) => void (Object.values(one.zones)[0]!.ambientC += 25),
    (one) => void delete one.mates[Object.keys(one.mates)[0]!],
    (one) => void delete one.looms.chassis!.circuits[Object.keys(one.looms.chassis!.circuits).at(-1)!],
    (one) => void (one.standardId = 'plain'),
    (one) => void (one.looms.inlet!.segments['s-inj1']!.lengthMm = 640),
  ];
  let now = createCleanSkerry();
  planner(now);
  for (const edit of edits) {
    // parts that an edit leaves alone stay what they are: what is remembered goes by that
    now = editDocument(now, edit).next;
    expect(JSON.stringify(planner(now))).toBe(JSON.stringify(plan(now, CATALOGUE)));
  }
});

test('nor does it over two dozen random edits of lengths, zones, ticks, covers and sizes of a made-up vehicle', () => {
  const random = createRandom(7);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const planner = createPlanner(CATALOGUE);
  let now = createRandomVehicle(2, 90);
  planner(now);
  for (let round = 0; round < 24; round += 1) {
    now = editDocument(now, (draft) => {
      const loom = pick(Object.values(draft.looms));
      const segment = pick(Object.values(loom.segments));
      const circuit = pick(Object.values(loom.circuits));
      const edits = [
        () => void (segment.lengthMm = 40 + Math.floor(random() * 900)),
        () => void (segment.lengthMm += 5),
        () => void (segment.zoneId = pick([...Object.keys(draft.zones), null])),
        () => void (segment.ticks = pick([[], ['hot'], ['wet', 'moving']])),
        () => void (segment.coveringPin = pick([null, { kind: 'braid' as const, itemId: null, reason: 'to see' }])),
        () => void (circuit.sizePin = pick([null, { size: '16', reason: 'to see' }])),
        () => void (circuit.wireTable = 'etfe'),
      ];
      pick(edits)();
    }).next;
    expect(JSON.stringify(planner(now))).toBe(JSON.stringify(plan(now, CATALOGUE)));
  }
});

test('pins stand as they are: served, waiting, open or free', () => {
  const job = createVehicle((one) => {
    delete one.looms.main!.circuits.c5;
    one.looms.main!.ends.pump!.pins['9'] = { ...one.looms.main!.ends.pump!.pins['2']!, required: false };
    one.looms.main!.circuits.c4!.terminations[0] = { endId: 'main', cavity: '5' };
  });
  const line = (endId: string) =>
    listDevicePins(job, power(job).nets)
      .find((one) => one.endId === endId)!
      .pins.map(({ cavity, state }) => `${cavity} ${state}`);
  expect(line('lamp')).toEqual(['1 served', '2 open']);
  expect(line('pump')).toEqual(['1 waiting', '2 served', '9 free']);
});
