import { CATALOGUE, findDeviceTemplate } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { createDevice, DEVICE_HAZARDS, type DeviceHazard, type Job, type LinkState } from '../../model';
import { findStandard, plan, type JobPlan } from '../../plan';
import { createVehicle } from '../../testing/createVehicle';
import { runs } from '../../testing/runs';
import { solveNodal } from '../../testing/solveCopper';
import { createBuild } from '../createBuild';
import {
  createFirstPower,
  createStandInVehicle,
  explainPower,
  judgePower,
  listPowerProofs,
  measureModeVolts,
  plantPowerFault,
  POWER_FAULTS,
  POWER_STEP,
  toCurrentLimits,
  toSupplyLimit,
  toWokenId,
  type FirstPower,
  type PowerEvent,
  type PowerFault,
  type PowerTest,
} from './index';

const job = createCleanSkerry();
const planned = plan(job, CATALOGUE);
const sheet = createFirstPower(job, planned, CATALOGUE)!;
const standard = findStandard(job, CATALOGUE);
const of = (part: PowerTest['part'], from: FirstPower = sheet) => from.tests.filter((test) => test.part === part);
const readAll = (fault: PowerFault | null, seed = 1, from: FirstPower = sheet) => {
  const vehicle = createStandInVehicle(from, fault ? [fault] : [], seed);
  const values = new Map(from.tests.map((test) => [test.id, vehicle.read(test)]));
  for (const test of from.tests) for (const id of vehicle.listWoken(test)) values.set(toWokenId(test, id), 1);
  return values;
};
const explain = (values: ReadonlyMap<string, number>) => {
  const judged = judgePower(sheet, values);
  return judged.failed.flatMap((one) => explainPower(sheet, judged, one, values));
};

describe('limits', () => {
  test('expected 3.4 A: the supply is limited to 4.45 A', () => expect(toSupplyLimit(3.4, standard)).toBeCloseTo(4.45, 9));
  test.each([
    [3.4, 2.72, 4.08],
    [0.5, 0.3, 0.7],
    [0, 0, 0.2],
  ])('a current of %f A is right from %f to %f', (expected, least, most) => {
    const limits = toCurrentLimits(expected, standard);
    expect([limits.least, limits.most].map((one) => Number(one.toFixed(9)))).toEqual([least, most]);
  });
});

/** The feed side read off the document alone: where copper and closed links lead from the battery, and what is drawn there. */
function solveFeeds(one: Job, plans: JobPlan, modeId: string): Map<string, number> {
  const points = new Map<string, number>();
  const point = (key: string) => points.get(key) ?? (points.set(key, points.size), points.size - 1);
  const resistors: { a: string; b: string; ohm: number; isLink: boolean }[] = [];
  const mated = new Set(Object.values(one.mates).flatMap(({ a, b }) => [`${a.loomId}/${a.endId}`, `${b.loomId}/${b.endId}`]));
  const wired = new Set<string>();
  for (const { loomId, wires } of plans.looms)
    for (const { from, to, conductor, lengthMm } of wires) {
      const toEnd = (end: typeof from, isFirst: boolean) => {
        if (end.kind === 'splice') return { key: `${loomId}/splice ${end.spliceId}`, milliohm: isFirst ? standard.spliceMilliohm : 0 };
        const { kind } = one.looms[loomId]!.ends[end.endId]!;
        const key = kind === 'ring' ? `${loomId}/${end.endId}` : `${loomId}/${end.endId}/${end.cavity}`;
        wired.add(key);
        if (mated.has(`${loomId}/${end.endId}`)) return { key, milliohm: 0 };
        return { key, milliohm: kind === 'connector' ? standard.contactMilliohm : standard.ringMilliohm };
      };
      const [a, b] = [toEnd(from, true), toEnd(to, false)];
      const copper = (conductor.r20MilliohmPerM * lengthMm * (1 + 0.00393 * (standard.workshopC - 20))) / 1e6;
      resistors.push({ a: a.key, b: b.key, ohm: copper + (a.milliohm + b.milliohm) / 1000, isLink: false });
    }
  for (const { a, b } of Object.values(one.mates))
    for (const key of wired)
      if (key.startsWith(`${a.loomId}/${a.endId}/`)) {
        const other = `${b.loomId}/${b.endId}/${key.split('/')[2]}`;
        if (wired.has(other)) resistors.push({ a: key, b: other, ohm: standard.contactMilliohm / 1000, isLink: false });
      }
  const keyOf = (at: { loomId: string; endId: string }, cavity: string) =>
    one.looms[at.loomId]!.ends[at.endId]!.kind === 'ring' ? `${at.loomId}/${at.endId}` : `${at.loomId}/${at.endId}/${cavity}`;
  for (const { deviceId, linkId, kind, ratingA, maxA, loadA } of plans.power.protections) {
    const device = one.devices[deviceId]!;
    const link = findDeviceTemplate(one, CATALOGUE, device.templateId)!.links[linkId]!;
    const state: LinkState | undefined = device.states[linkId]?.[modeId];
    if (kind !== 'fuse' && state !== 'closed') continue;
    const side =
      link.a.part === null
        ? device.at!
        : Object.values(one.devices).find(({ unit, templateId }) => unit === device.unit && templateId === link.a.part)!.at!;
    const ohm = kind === 'fuse' ? standard.fuseFullV / (ratingA ?? Math.max(maxA!, loadA)) : standard.linkFullV / maxA!;
    resistors.push({ a: keyOf(side, link.a.cavity), b: keyOf(device.at!, link.b.cavity), ohm, isLink: true });
  }
  // outwards from the battery; a link leads from its supply side on
  const plus = Object.entries(one.devices).find(([, { templateId }]) => templateId === 'battery-positive')![1].at!;
  const fed = new Set([keyOf(plus, '1')]);
  for (const key of fed)
    for (const { a, b, isLink } of resistors) {
      if (a === key) fed.add(b);
      if (b === key && !isLink) fed.add(a);
    }
  const draws: { from: string; currentA: number }[] = [];
  for (const { at, duty, decision } of Object.values(one.devices)) {
    if (!at || decision === 'remove') continue;
    for (const [cavity, need] of Object.entries(one.looms[at.loomId]!.ends[at.endId]!.pins)) {
      const isOn = Object.hasOwn(duty, modeId) ? duty[modeId]! > 0 : need.load !== 'starter' || one.modes[modeId]!.engine === 'cranking';
      const from = keyOf(at, cavity);
      if (need.kind === 'supply' && need.currentA !== null && isOn && fed.has(from)) draws.push({ from, currentA: need.currentA });
    }
  }
  const inside = resistors.filter(({ a, b }) => fed.has(a) && fed.has(b));
  for (const { a, b } of inside) void [point(a), point(b)];
  const zero = point(keyOf(plus, '1'));
  const lost = solveNodal(
    inside.map(({ a, b, ohm }) => ({ a: point(a), b: point(b), ohm })),
    draws.map(({ from, currentA }) => ({ from: point(from), to: zero, currentA })),
    [zero],
    points.size,
  );
  const sag = (draws.reduce((sum, { currentA }) => sum + currentA, 0) * one.source.milliohm) / 1000;
  return new Map([...points].map(([key, at]) => [key, one.source.volts - sag + lost[at]!]));
}

test('expected volts equal a nodal solution of the copper graph within 1 %, in every mode and switch state of the demo', () => {
  let compared = 0;
  const wrong: unknown[] = [];
  for (const modeId of Object.keys(job.modes)) {
    const told = measureModeVolts(job, planned, CATALOGUE, modeId);
    const solved = solveFeeds(job, planned, modeId);
    for (const [key, volts] of told) {
      const [loomId, endId] = key.split('/');
      const other = solved.get(key) ?? solved.get(`${loomId}/${endId}`);
      // every pin that is told is fed in the other solution too, and the other way round
      if (other === undefined || Math.abs(other - volts) > 0.01 * volts) wrong.push([modeId, key, volts, other]);
      compared += 1;
    }
    const pins = [...solved.keys()].filter((key) => !key.includes('splice'));
    expect(pins.filter((key) => ![...told.keys()].some((one) => one === key || one.startsWith(`${key}/`)))).toEqual([]);
  }
  expect(wrong.slice(0, 5)).toEqual([]);
  expect(compared).toBeGreaterThan(300);
});

describe('the sheet', () => {
  test('goes from no power to the first start, boxes out before they go in', () => {
    expect([...new Set(sheet.tests.map(({ part }) => part))]).toEqual([
      ...['bare', 'grounds', 'buses', 'unplugged', 'modules', 'boxes', 'feeds', 'coding', 'lamps', 'inputs', 'actuators'],
      ...['cranking', 'start', 'later'],
    ]);
    expect(new Set(sheet.tests.map(({ id }) => id)).size).toBe(sheet.tests.length);
  });
  test('reads every wired cavity of a box in every state, or says that nothing can be told of it', () => {
    const ends = Object.entries(job.devices).filter(([, { unit }]) => unit === 'Orrery E4');
    let cavities = 0;
    for (const [, { at }] of ends)
      cavities += planned.looms.find(({ loomId }) => loomId === at!.loomId)!.terminations.filter(({ endId }) => endId === at!.endId).length;
    const states = sheet.states.filter(({ id }) => id.startsWith('unplugged'));
    // with every box out nothing but the feed of the module is live, and only while the isolator is closed
    for (const { id } of states) {
      const there = of('unplugged').filter(
        ({ stateId, endIds }) => stateId === id && ends.some(([, { at }]) => endIds.includes(`${at!.loomId}/${at!.endId}`)),
      );
      const told = there.reduce((sum, { words, expected }) => sum + (expected === 0 ? Number(/any of (\d+)/.exec(words)?.[1] ?? 1) : 1), 0);
      expect(told).toBe(cavities);
    }
    expect(
      of('unplugged')
        .filter(({ expected }) => expected !== 0)
        .map(({ words }) => words),
    ).toEqual(['red on module feed, black on battery negative']);
  });
  test('buses read 60 Ω between their terminators with the looms mated, by the shop’s share; one of which a terminator is not reached reads 120', () => {
    const [bus] = of('buses');
    expect(of('buses')).toHaveLength(1);
    expect(bus).toMatchObject({ unit: 'Ω', expected: 60, least: 48, most: 72 });
    expect(bus!.note).toBe('2 terminators, at wideband probe and logger');
    // worked on anywhere along it, in either loom, it is read again
    expect(new Set(bus!.endIds.map((id) => id.split('/')[0]))).toEqual(new Set(['chassis', 'engine']));
    const say = (ohms: number) => explain(new Map([...readAll(null), [bus!.id, ohms]]));
    expect(say(61)).toEqual([]);
    expect(say(120)).toEqual([expect.stringMatching(/^A terminator is not reached .* 2 terminators, at wideband probe and logger\.$/)]);
    expect(say(40)).toEqual([expect.stringContaining('one terminator too many')]);
    expect(say(0.3)).toEqual([expect.stringContaining('lines of the bus touch')]);
  });
  test('a terminator inside a box is out with it, and a bus of which a value is not known is not read', () => {
    const boxed = structuredClone(job);
    boxed.parts['term-logger']!.inside = true;
    const other = createFirstPower(boxed, plan(boxed, CATALOGUE), CATALOGUE)!;
    expect(of('buses', other)).toMatchObject([{ expected: 120, note: '1 terminator, at wideband probe; out with its box: logger' }]);
    boxed.parts['term-probe']!.ohms = null;
    expect(of('buses', createFirstPower(boxed, plan(boxed, CATALOGUE), CATALOGUE)!)).toEqual([]);
  });
  test('an injector hands its supply on while its driver is unplugged, and is dead with the key off', () => {
    const cavityTests = (modeId: string) => {
      const state = sheet.states.find(({ id, modeIds }) => id.startsWith('modules') && modeIds.includes(modeId))!;
      return of('modules').filter(({ stateId, note }) => stateId === state.id && note.includes('injector'));
    };
    expect(cavityTests('idle')).toHaveLength(6);
    for (const { expected, least, most } of cavityTests('idle')) {
      expect(expected!).toBeGreaterThan(11.5);
      expect(least!).toBeCloseTo(0.95 * expected!, 9);
      expect(most).toBeCloseTo(1.05 * job.source.volts, 9);
    }
    expect(cavityTests('key-off')).toEqual([]);
  });
  test('what a switch that is not said feeds is not told', () => {
    const unsaid = structuredClone(job);
    delete unsaid.devices.kill!.states.main;
    const other = createFirstPower(unsaid, plan(unsaid, CATALOGUE), CATALOGUE)!;
    expect(other.untold).toBeGreaterThan(sheet.untold);
    expect(of('unplugged', other).some(({ expected }) => expected !== 0)).toBe(false);
  });
  test('what is not there yet is said, with what is left for it: not what goes, stays or is placed', () => {
    const some = structuredClone(job);
    const place = (id: string, rest: Partial<Job['devices'][string]>) =>
      void (some.devices[id] = { ...createDevice(id, 'data', {}), ...rest });
    place('telemetry', { decision: 'later', unknownPolicy: 'coil' });
    place('camera', { decision: 'later', unknownPolicy: 'connector', at: Object.values(job.devices).find(({ at }) => at)!.at });
    place('horn', { decision: 'remove' });
    place('clock', { decision: 'keep' });
    place('lamp', { decision: 'fit' });
    const before = new Set(sheet.absent.map(({ deviceId }) => deviceId));
    const { absent } = createFirstPower(some, plan(some, CATALOGUE), CATALOGUE)!;
    expect(absent.filter(({ deviceId }) => !before.has(deviceId)).map(({ words }) => words)).toEqual([
      'camera, comes later, a plug is left for it',
      'lamp, on no loom yet',
      'telemetry, comes later, its leads are coiled',
    ]);
    for (const id of before) expect(job.devices[id]!.at === null || job.devices[id]!.decision === 'later').toBe(true);
  });
  test('feeds one by one: what wakes, and what sleeps until it is driven', () => {
    const fan = of('feeds').find(({ wakes }) => wakes.includes('fan'))!;
    expect(fan).toMatchObject({ unit: 'A', expected: 14, wakes: ['fan'] });
    expect(sheet.limitA[fan.id]).toBeCloseTo(1.25 * 14 + 0.2, 9);
    const injectors = of('feeds').find(({ note }) => note.includes('sleeps until it is driven: injector 3'))!;
    expect(injectors).toMatchObject({ expected: 0, least: 0, most: 0.2, wakes: [] });
  });
  test('a box that states what it uses at its ground is read by that; of one that nobody gave a figure nothing is told', () => {
    const boxOf = (from: FirstPower, id: string) => of('boxes', from).find((test) => test.id === `box ${id}`)!;
    expect(boxOf(sheet, 'Sluice 24')).toMatchObject({ expected: 0.3, note: 'as its ground says' });
    const silent = structuredClone(job);
    silent.looms.chassis!.ends['m-display']!.pins['1']!.currentA = null;
    const other = createFirstPower(silent, plan(silent, CATALOGUE), CATALOGUE)!;
    expect(boxOf(other, 'display')).toMatchObject({ expected: null, least: null, most: null });
    expect(other.limitA).not.toHaveProperty('box display');
  });
  test('every actuator has the line that keeps people whole', () => {
    expect(of('actuators').every(({ hazard }) => hazard !== '')).toBe(true);
    const line = (name: string) => of('actuators').find(({ words }) => words.startsWith(name))!.hazard;
    expect(line('fuel pump')).toMatch(/no longer than a second/);
    expect(line('radiator fan')).toMatch(/Guard/);
    expect(line('throttle')).toMatch(/Fingers/);
    expect(line('starter motor')).toMatch(/neutral/);
    expect(line('injector 1')).toMatch(/Fuel pressure off/);
  });
  test('what can hurt is what the template says, whatever the device is called; what nobody said anything of may do all of it', () => {
    const { id: test } = of('actuators').find(({ words }) => words.startsWith('radiator fan'))!;
    const { templateId } = job.devices[test.replace('actuators ', '')]!;
    const lineWith = (hazard: DeviceHazard | null) => {
      const shop = { ...CATALOGUE, devices: { ...CATALOGUE.devices, [templateId!]: { ...CATALOGUE.devices[templateId!]!, hazard } } };
      return createFirstPower(job, planned, shop)!.tests.find(({ id }) => id === test)!.hazard;
    };
    expect(new Set([...DEVICE_HAZARDS, null].map(lineWith)).size).toBe(DEVICE_HAZARDS.length + 1);
    expect(lineWith('moves-fuel')).toMatch(/no longer than a second/);
    expect(lineWith(null)).toBe('Keep clear of what it moves, and of what it may let out.');
  });
  test('what has no template is told what its pins say for certain: an injector shares the budget of a coil, not its hazard', () => {
    const { id: test, endIds } = of('actuators').find(({ words }) => words.startsWith('injector 1'))!;
    const [loomId, endId] = endIds[0]!.split('/') as [string, string];
    const lineOf = (change: (one: Job) => void) => {
      const one = structuredClone(job);
      one.devices[test.replace('actuators ', '')]!.templateId = null;
      change(one);
      return createFirstPower(one, planned, CATALOGUE)!.tests.find(({ id }) => id === test)!.hazard;
    };
    const pins = (one: Job) => Object.values(one.looms[loomId]!.ends[endId]!.pins);
    expect(pins(job).some(({ load }) => load === 'ignition')).toBe(true);
    expect(lineOf(() => undefined)).toMatch(/^What it does is not known: fuel and pressure off/);
    expect(lineOf((one) => void (pins(one)[0]!.wants = 'ignition'))).toMatch(/^High voltage and spark/);
  });
  test('a vehicle without a battery has none; one without boxes is read at its feeds', () => {
    const bare = createVehicle((one) => void (one.looms.main!.ends.plus!.offers = {}));
    expect(createFirstPower(bare, plan(bare, CATALOGUE), CATALOGUE)).toBeNull();
    const small = createVehicle();
    const own = createFirstPower(small, plan(small, CATALOGUE), CATALOGUE)!;
    expect(of('unplugged', own)).toEqual([]);
    expect(of('feeds', own).map(({ wakes }) => wakes)).toEqual([['lamp'], ['pump']]);
  });
});

test.each([
  ['supplyFactor', 2],
  ['supplyExtraA', 0.5],
  ['currentBandShare', 0.5],
  ['currentBandA', 1],
  ['voltBandShare', 0.1],
  ['deadMostV', 1],
  ['feedLeastOhm', 50],
  ['groundMostMilliohm', 4],
  ['crankLeastV', 8],
  ['restApartK', 6],
  ['workshopC', 40],
] as const)('what the shop says of %s acts on the sheet', (field, value) => {
  const standards = { ...CATALOGUE.standards, [job.standardId]: { ...standard, [field]: value } };
  const turned = createFirstPower(job, planned, { ...CATALOGUE, standards })!;
  expect(turned).not.toEqual(sheet);
  // and on nothing but limits and expected figures: what is read, and in which order, stays
  expect(turned.tests.map(({ id }) => id)).toEqual(sheet.tests.map(({ id }) => id));
});

describe('a surprise stops the sheet and says where to look', () => {
  test('a sound vehicle passes all, whatever the meter’s noise', () => {
    for (let seed = 1; seed <= runs(20, 200); seed += 1) {
      const { failed, next, parts } = judgePower(sheet, readAll(null, seed));
      expect([failed.map(({ test }) => test.id), next]).toEqual([[], null]);
      expect(parts.every(({ passed, total }) => passed === total)).toBe(true);
    }
  });
  test.each(POWER_FAULTS)('%s: found, and something is said of each that failed', (kind) => {
    for (let seed = 1; seed <= runs(20, 200); seed += 1) {
      const fault = plantPowerFault(sheet, kind, seed)!;
      const values = readAll(fault, seed);
      const judged = judgePower(sheet, values);
      expect(judged.failed.length).toBeGreaterThan(0);
      expect(judged.next).toBeNull();
      const words = judged.failed.flatMap((one) => explainPower(sheet, judged, one, values));
      expect(words.length).toBeGreaterThan(0);
      if (fault.kind === 'open' || fault.kind === 'weak') {
        const name = sheet.elements.find(({ id }) => id === fault.elementId)!.words;
        expect(words.every((one) => one.includes(name))).toBe(true);
      }
    }
  });
  test('channel 10 alone wakes injectors and the fan: two nets are joined behind it', () => {
    const injectors = of('feeds').find(({ note }) => note.includes('injector 3'))!;
    const fan = of('feeds').find(({ wakes }) => wakes.includes('fan'))!;
    const values = new Map([
      [injectors.id, 0.05],
      [toWokenId(injectors, 'fan'), 1],
    ]);
    const by = (test: PowerTest) => test.words.replace(/ alone.*/, '');
    expect(explain(values)).toEqual([`Two nets are joined behind ${by(injectors)}: radiator fan hangs on ${by(fan)}.`]);
    // taken back, it is as it should be
    expect(judgePower(sheet, new Map([...values, [toWokenId(injectors, 'fan'), 0]])).failed).toEqual([]);
  });
  test('temperatures at rest agree with the air, not with a figure', () => {
    const [ambient, one] = of('inputs').filter(({ unit }) => unit === '°C');
    const judge = (air: number, read: number) =>
      judgePower(
        sheet,
        new Map([
          [ambient!.id, air],
          [one!.id, read],
        ]),
      ).failed.length;
    // before the air is read there is nothing to compare with
    expect(judgePower(sheet, new Map([[one!.id, 80]])).tests.find(({ test }) => test.id === one!.id)!.verdict).toBe('unread');
    expect([judge(21, 23.9), judge(21, 24.1), judge(35, 23.9), judge(-4, -6)]).toEqual([0, 1, 1, 0]);
  });
});

test('work on what a reading went through voids it; work elsewhere does not', () => {
  const live = of('modules').find(({ note }) => note.includes('injector 1'))!;
  const wire = sheet.elements.find(({ id, wire: one }) => one !== null && live.path.includes(id))!.wire!;
  const looms = planned.looms.map((one) => ({ loomId: one.loomId, steps: createBuild(job, one, CATALOGUE).steps }));
  const ends = new Map(
    planned.looms.flatMap(({ loomId, wires }) =>
      wires.map(
        ({ id, from, to }) =>
          [`${loomId}/${id}`, [from, to].flatMap((end) => (end.kind === 'cavity' ? [`${loomId}/${end.endId}`] : []))] as const,
      ),
    ),
  );
  const event = (rest: Partial<PowerEvent>, minute: number): PowerEvent => ({
    ...{
      loomId: '',
      stepId: POWER_STEP,
      itemId: live.part,
      kind: 'reading',
      author: 'Jun',
      readId: live.id,
      value: 12.4,
      instrument: 'meter',
    },
    ...{ happenedAt: `2026-11-28T10:${minute}:00.000Z`, serial: minute, device: null, after: null },
    ...rest,
  });
  const crimpOf = (loomId: string, wireId: string) => {
    const step = looms
      .find((one) => one.loomId === loomId)!
      .steps.find(({ operation, items }) => operation === 'crimp' && items.some(({ wireIds }) => wireIds.includes(wireId)))!;
    return { loomId, stepId: step.id, itemId: step.items.find(({ wireIds }) => wireIds.includes(wireId))!.id };
  };
  const redone = (place: object) => event({ ...place, kind: 'tick', readId: null, value: null, instrument: null }, 20);
  const proofOf = (events: PowerEvent[]) => listPowerProofs(sheet, looms, ends, events).get(live.id)!;
  expect(proofOf([event({}, 10)])).toMatchObject({ value: 12.4, voidBecause: null });
  expect(proofOf([event({}, 10), redone(crimpOf(wire.loomId, wire.wireId))]).voidBecause).toMatch(/done after it, by Jun/);
  expect(proofOf([redone(crimpOf(wire.loomId, wire.wireId)), event({}, 30)]).voidBecause).toBeNull();
  const elsewhere = planned.looms.find(({ loomId }) => loomId === 'gearbox')!.wires[0]!;
  expect(proofOf([event({}, 10), redone(crimpOf('gearbox', elsewhere.id))]).voidBecause).toBeNull();
});
