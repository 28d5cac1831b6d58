import { CATALOGUE, LARKHOLLOW } from '../../catalogue';
import { placeDevice } from '../../edit';
import { listFindings } from '../../make';
import {
  applyEdit,
  createCircuit,
  createDevice,
  createEnd,
  createNode,
  createPinNeed,
  createSegment,
  type Circuit,
  type Job,
  type PinNeed,
} from '../../model';
import { createBench, join } from '../../testing/createBench';
import { createVehicle } from '../../testing/createVehicle';
import { plan } from '..';

const power = (job: Job) => plan(job, CATALOGUE).power;
const load = (job: Job, name: string) => power(job).loads.find((one) => one.name.startsWith(name))!;
const guard = (job: Job, id: string) => power(job).protections.find((one) => one.id === id)!;
const wireOf = (job: Job, circuitId: string) => plan(job, CATALOGUE).looms[0]!.wires.find((one) => one.circuitId === circuitId)!;
const currentOf = (job: Job, circuitId: string) =>
  plan(job, CATALOGUE).looms[0]!.currents.find(({ wireId }) => wireId === `${circuitId}.1`)!;
const find = (job: Job, code: string) => listFindings(job, plan(job, CATALOGUE), CATALOGUE, null).filter((one) => one.code === code);

/** Put a device on a leg of its own at the hub. */
function add(job: Job, endId: string, templateId: string, lengthMm: number, studMm: number | null = null): void {
  const loom = job.looms.main!;
  loom.nodes[`n-${endId}`] = createNode('end', endId);
  loom.segments[`s-${endId}`] = createSegment('hub', `n-${endId}`, lengthMm, { zoneId: 'cabin' });
  loom.ends[endId] = createEnd(`n-${endId}`, endId, null);
  job.devices[endId] = createDevice(endId, 'x', { templateId, zoneId: 'cabin' });
  placeDevice(job, CATALOGUE, endId, 'main', endId);
  if (studMm !== null) loom.ends[endId] = { ...loom.ends[endId]!, kind: 'ring', studMm };
}
function wire(job: Job, id: string, kind: Circuit['kind'], places: string, rest: Partial<Circuit> = {}): void {
  const terminations = places.split(' ').map((place) => {
    const [endId, cavity] = place.split(':') as [string, string];
    return { endId, cavity };
  });
  job.looms.main!.circuits[id] = createCircuit(id.slice(1), id, terminations, { kind, wireTable: 'etfe', ...rest });
}
const HEAVY = { wireTable: 'thinwall' } as const;

/** The least vehicle with a starter of 150 A bolted to the engine, turning a fifth of the time; the strap is left out on minimum. */
const withStarter = (strap: boolean) =>
  createVehicle((job) => {
    add(job, 'starter', 'starter', 600);
    job.looms.main!.ends.starter!.pins['1']!.currentA = 150;
    job.devices.starter!.duty = { crank: 0.2 };
    add(job, 'block', 'engine-block', 500, 8);
    wire(job, 'c21', 'supply', 'plus:2 starter:1', HEAVY);
    job.looms.main!.circuits.c7!.wireTable = 'thinwall';
    if (strap) wire(job, 'c22', 'power-ground', 'stud:4 block:1', HEAVY);
  });

describe('return by the case', () => {
  test('without an engine strap a starter stops the build; with one it is the end of that', () => {
    const [finding] = find(withStarter(false), 'PO15');
    expect(finding).toMatchObject({ grade: 'stop', measured: 150 });
    expect(finding!.sentence).toContain('no strap bolted at both ends');
    expect(find(withStarter(true), 'PO15')).toEqual([]);
  });
  test('battery minus and strap carry all of it: on-current whole, heat by the root of the duty', () => {
    const job = withStarter(true);
    const crank = power(job).modeIds.indexOf('crank');
    // lamp 0.8 A and pump 7 A beside it; heat 150 · √0.2 = 67.1
    expect(currentOf(job, 'c7').onA[crank]).toBeCloseTo(157.8, 9);
    expect(currentOf(job, 'c7').heatA[crank]).toBeCloseTo(150 * Math.sqrt(0.2) + 7.8, 9);
    expect(currentOf(job, 'c22').onA[crank]).toBeCloseTo(150, 9);
    expect(wireOf(job, 'c7').conductor.areaMm2).toBeGreaterThan(6);
  });
  test('the starter’s budget is positive cable, strap, chassis between and negative cable, worked step by step', () => {
    const { steps, dropV, budgetV } = load(withStarter(true), 'starter');
    expect(budgetV).toBeCloseTo(0.06 * 12.5, 9);
    expect(steps.filter(({ kind, counts }) => kind === 'wire' && counts).map(({ wireId }) => wireId)).toEqual(['c21.1', 'c22.1', 'c7.1']);
    const byHand = steps.reduce((sum, { milliohm, currentA }) => sum + (milliohm * currentA) / 1000, 0);
    expect(dropV).toBeCloseTo(byHand, 9);
    expect(dropV).toBeLessThanOrEqual(budgetV);
    // by wire and rings alone a negative cable of AWG 14, as thin as its rings take, would lose 150 A · 10 mΩ/m
    expect(steps.every(({ currentA }) => currentA >= 150)).toBe(true);
  });
  test('while cranking what is left at a load is the source less its sag less the way there and back', () => {
    const job = withStarter(true);
    const { modeIds, sourceA } = power(job);
    const crank = modeIds.indexOf('crank');
    const { voltsByMode, totalByModeV } = load(job, 'lamp');
    expect(voltsByMode[crank]).toBeCloseTo(12.5 - (sourceA!.on[crank]! * 8) / 1000 - totalByModeV[crank]!, 9);
    expect(voltsByMode[crank]).toBeLessThan(12.5 - 1.2);
  });
  test('a lamp by its case goes through the chassis at the resistance of the source; a composite tub stops it', () => {
    const caseLamp = (chassisMilliohm: number | null) =>
      createVehicle((job) => {
        job.source.chassisMilliohm = chassisMilliohm;
        job.looms.main!.ends.lamp!.pins = { '1': { ...job.looms.main!.ends.lamp!.pins['1']!, returnBy: 'chassis-case' } };
        delete job.looms.main!.circuits.c5;
      });
    const step = load(caseLamp(3), 'lamp').steps.find(({ kind }) => kind === 'chassis')!;
    expect(step).toMatchObject({ milliohm: 3, currentA: 0.8 });
    expect(find(caseLamp(null), 'PO15')[0]!.sentence).toContain('composite tub: it needs a wire');
  });
  test('chassis drop is by what each stud carries, at its own resistance; a stud on a composite tub leads nowhere', () => {
    const studs = (own: number | 'none' | null) =>
      createVehicle((job) => {
        add(job, 'front', 'ground-stud', 300, 8);
        job.looms.main!.ends.front!.offers['1']!.chassisMilliohm = own;
        job.looms.main!.circuits.c6!.terminations[0] = { endId: 'front', cavity: '1' };
      });
    const through = (job: Job, name: string) => load(job, name).steps.find(({ kind }) => kind === 'chassis');
    // the pump's stud carries its 7 A alone; the lamp stands on the stud that battery minus is tied to
    expect(through(studs(4), 'pump')).toMatchObject({ milliohm: 4, currentA: 7 });
    expect(through(studs(null), 'pump')).toMatchObject({ milliohm: 1, currentA: 7 });
    expect(through(studs(4), 'lamp')).toBeUndefined();
    expect(load(studs('none'), 'pump').returns).toBe(false);
    expect(find(studs('none'), 'PO15')).toHaveLength(1);
  });
});

describe('three currents, never one for another', () => {
  const drawing = (currentA: number, duty: number, rest: Partial<PinNeed> = {}) =>
    createVehicle((job) => {
      job.looms.main!.ends.lamp!.pins['1'] = { ...job.looms.main!.ends.lamp!.pins['1']!, currentA, inrushA: null, inrushMs: null, ...rest };
      job.devices.lamp!.duty = Object.fromEntries(Object.keys(job.modes).map((id) => [id, duty]));
    });
  test('a horn of 6 A that sounds 4 % of the time has a 10 A fuse and loses what 6 A lose', () => {
    // 0.75 · 0.95 at 50 °C: 6 A need 8.4
    expect(guard(drawing(6, 0.04), 'box.f1')).toMatchObject({ ratingA: 10, loadA: 6 });
    const { steps, dropV } = load(drawing(6, 0.04), 'lamp');
    expect(steps.filter(({ counts }) => counts).every(({ currentA }) => currentA === 6)).toBe(true);
    expect(dropV).toBeCloseTo(load(drawing(6, 1), 'lamp').dropV, 1);
  });
  test.each([
    [14, 16],
    [6, 7],
    [2.2, 3],
  ])('a channel for %f A is set to %i A, whatever the share of the time', (currentA, ratingA) => {
    const job = drawing(currentA, 0.2);
    job.deviceTemplates.module = {
      ...structuredClone(CATALOGUE.devices['fuse-box']!),
      links: {
        f1: {
          name: 'channel 1',
          kind: 'channel',
          a: { part: null, cavity: '1' },
          b: { part: null, cavity: '2' },
          maxA: 20,
          peakA: null,
          coil: null,
          closedIn: [],
        },
      },
    };
    job.devices.box!.templateId = 'module';
    expect(guard(job, 'box.f1')).toMatchObject({ ratingA, loadA: currentA });
  });
  test('only a cycle that is short against its bundle is felt as r.m.s.; an unset one counts whole', () => {
    const heat = (cycleS: number | null) => load(drawing(6, 0.25, { cycleS }), 'lamp').heatA[0];
    expect(heat(null)).toBe(6);
    expect(heat(LARKHOLLOW.shortCycleS)).toBe(3);
    expect(heat(LARKHOLLOW.shortCycleS + 1)).toBe(6);
  });
  test('a circuit of known current and unknown pins: every wire carries all of it once, what feeds it too', () => {
    const job = createVehicle((one) => {
      add(one, 'left', 'ground-stud', 300);
      add(one, 'right', 'ground-stud', 350);
      for (const id of ['left', 'right']) {
        delete one.devices[id];
        one.looms.main!.ends[id] = { ...one.looms.main!.ends[id]!, kind: 'tail', offers: {}, pins: {} };
      }
      wire(one, 'c30', 'supply', 'box:4 left:1 right:1', { currentA: 6 });
    });
    const { wires, currents } = plan(job, CATALOGUE).looms[0]!;
    const own = wires.flatMap((one, index) => (one.circuitId === 'c30' ? [currents[index]!.designA] : []));
    expect(own.length).toBeGreaterThan(1);
    expect(own.every((amperes) => amperes === 6)).toBe(true);
    expect(guard(job, 'box.f3').loadA).toBe(6);
    expect(currentOf(job, 'c2').designA).toBeCloseTo(7.8 + 6, 9);
  });
});

describe('inrush', () => {
  const motors = (change: (job: Job) => void) =>
    createVehicle((job) => {
      add(job, 'second', 'pump-coolant', 700);
      wire(job, 'c31', 'power-ground', 'stud:5 second:2');
      change(job);
    });
  test('loads that nothing switches behind one branch fuse wake together; those of different branches do not', () => {
    const together = motors((job) => wire(job, 'c4', 'supply', 'box:3 pump:1 second:1'));
    // 2 × 21 A for 0.2 s; the main fuse besides them sees the lamp that is on
    expect(guard(together, 'box.f2')).toMatchObject({ inrushA: 42, inrushMs: 200, loadA: 14 });
    expect(guard(together, 'main.main').inrushA).toBeCloseTo(42.8, 9);
    const apart = motors((job) => wire(job, 'c32', 'supply', 'box:4 second:1'));
    expect(guard(apart, 'box.f2').inrushA).toBe(21);
    // one starts while the other runs
    expect(guard(apart, 'main.main').inrushA).toBeCloseTo(0.8 + 7 + 21, 9);
  });
  test('what one relay wakes adds up through different fuses, and passes a contact that bears less', () => {
    const relayed = (peakA: number | null) =>
      motors((job) => {
        add(job, 'relay', 'relay', 200);
        job.deviceTemplates.own = structuredClone(CATALOGUE.devices.relay!);
        job.deviceTemplates.own.links.contact!.peakA = peakA;
        job.devices.relay!.templateId = 'own';
        wire(job, 'c33', 'supply', 'box:4 relay:3');
        wire(job, 'c34', 'supply', 'relay:4 pump:1 second:1');
        delete job.looms.main!.circuits.c4;
      });
    expect(guard(relayed(40), 'relay.contact')).toMatchObject({ inrushA: 42, peakA: 40, problems: ['over-peak'] });
    expect(find(relayed(40), 'PO9')[0]!.sentence).toContain('42 A flow as what it switches starts together');
    // not stated: three times its 25 A
    expect(guard(relayed(null), 'relay.contact')).toMatchObject({ peakA: 75, problems: [] });
  });
});

test('a pump’s ground stands behind its fuse: a short in the pump sends the fault home that way', () => {
  const job = createVehicle((one) => {
    one.looms.main!.circuits.c6!.sizePin = { size: '24', reason: 'to see' };
    one.devices.box!.ratings = { f2: { ratingA: 30, reason: 'what was there' } };
  });
  expect(guard(job, 'box.f2')).toMatchObject({ weakest: { circuitId: 'c6' }, problems: expect.arrayContaining(['over-wire']) });
  expect(currentOf(job, 'c6').guardIds).toEqual(['box.f2']);
  // battery minus is judged with the largest fuse whose load comes home by it
  expect(currentOf(job, 'c7').guardIds).toEqual(['box.f1', 'box.f2']);
});

describe('a loom planned alone', () => {
  const alone = (lengthMm: number) =>
    createBench((loom, job) => {
      loom.segments.s3 = { ...loom.segments.s3!, lengthMm };
      loom.ends.R = createEnd('n2', 'pump', 'brack-2', {
        pins: {
          '1': createPinNeed('supply', 'supply', { volts: 12, currentA: 7, load: 'motor' }),
          '2': createPinNeed('ground', 'power-ground'),
        },
      });
      loom.ends.A = createEnd('datum', 'plug', 'quill-12p', { key: 'A' });
      loom.circuits = { c1: join('1', 'A-1 R-1', { kind: 'supply' }), c2: join('2', 'A-2 R-2', { kind: 'power-ground' }) };
      job.devices = {};
    });
  test('has drop and fuse from its plug on, and says so', () => {
    const pump = load(alone(800), 'pump');
    expect(pump).toMatchObject({ isOutside: true, returns: true, budgetV: 0.5 });
    expect(pump.dropV).toBeGreaterThan(0.05);
    // 10 A carries 6.98 A at 60 °C: one more
    expect(power(alone(800)).outside).toMatchObject([{ ratingA: 15, loadA: 7, loadIds: ['bench/R/1'] }]);
    expect(find(alone(800), 'PO18')[0]!.sentence).toContain('100 % of each drop budget counts from there on');
    expect(wireOf(alone(800), 'c1').conductor.areaMm2).toBeGreaterThan(0);
  });
  test('over its budget it is a finding, never a silent zero', () => {
    const far = alone(30_000);
    expect(load(far, 'pump').dropV).toBeGreaterThan(0.5);
    expect(find(far, 'PO4')).toHaveLength(1);
  });
  test('a load that nothing feeds, or that gives no current, says that nothing is computed', () => {
    const silent = alone(800);
    silent.looms.bench!.ends.R!.pins['1']!.currentA = null;
    expect(find(silent, 'PO17')[0]!.sentence).toContain('gives no current: neither drop nor fuse nor size can be computed');
    // the fix takes what its circuit says
    expect(find(silent, 'PO17')[0]!.fix).toBeNull();
    silent.looms.bench!.circuits.c1!.currentA = 7;
    const mended = applyEdit(silent, find(silent, 'PO17')[0]!.fix!.patch);
    if (!mended.ok) throw new Error('refused');
    expect(find(mended.value, 'PO17')).toEqual([]);
    expect(load(mended.value, 'pump').currentA).toBe(7);
    const nameless = alone(800);
    nameless.looms.bench!.ends.R!.pins = {};
    nameless.looms.bench!.circuits.c1!.currentA = 7;
    expect(find(nameless, 'PO17')[0]!.sentence).toContain('nothing says what takes it');
  });
});

describe('the whole way from the battery and back', () => {
  const job = createVehicle();
  const planned = plan(job, CATALOGUE);
  const pump = planned.power.loads.find(({ name }) => name.startsWith('pump'))!;
  const at = (totalV: number) => {
    const loads = planned.power.loads.map((one) => (one === pump ? { ...one, totalByModeV: one.totalByModeV.map(() => totalV) } : one));
    return listFindings(job, { ...planned, power: { ...planned.power, loads } }, CATALOGUE, null).filter(({ code }) => code === 'PO20');
  };
  test('may lose what its feed and itself may together, 2 % and 4 % of 12.5 V', () => {
    expect(pump.totalBudgetV).toBeCloseTo(0.75, 9);
    expect(at(0.75)).toEqual([]);
    const [finding] = at(0.76);
    expect(finding).toMatchObject({ grade: 'check', measured: 0.76, limit: pump.totalBudgetV });
    expect(finding!.sentence).toMatch(/^pump.* and the feed of its box together lose 0\.76 V/);
  });
  test('is never over both while each is within its own, two boxes in a row included', () => {
    const far = createVehicle((chained) => {
      add(chained, 'second', 'fuse-box', 350);
      chained.looms.main!.circuits.c4!.terminations = [
        { endId: 'box', cavity: '3' },
        { endId: 'second', cavity: '1' },
      ];
      wire(chained, 'c20', 'supply', 'second:2 pump:1');
    });
    const { totalByModeV, totalBudgetV, dropV } = load(far, 'pump');
    expect(Math.max(...totalByModeV)).toBeGreaterThan(dropV);
    expect(Math.max(...totalByModeV)).toBeLessThan(totalBudgetV);
  });
});

describe('a zone hotter than an insulation', () => {
  const hot = (ambientC: number) =>
    createVehicle((job) => {
      job.zones.oven = { ...job.zones.hot!, name: 'oven', ambientC };
      job.looms.main!.segments['s-lamp']!.zoneId = 'oven';
    });
  test('is a stop that names what would do, and no size is asked for what no size cures', () => {
    expect(find(hot(130), 'PO16')).toEqual([]);
    const [finding] = find(hot(150), 'PO16');
    expect(finding).toMatchObject({ grade: 'stop', measured: 150, limit: 130 });
    expect(finding!.sentence).toContain('ETFE plated (200 °C) would do');
    expect(wireOf(hot(150), 'c3').conductor.size).toBe(wireOf(createVehicle(), 'c3').conductor.size);
    expect(find(hot(150), 'BU3')).toEqual([]);
    expect(find(hot(190), 'PO16')[0]!.sentence).toContain('no insulation of this shop would do');
  });
});

test('more than 200 mm of wire between the battery and its first fuse is told, starters apart', () => {
  const { unfused } = power(createVehicle());
  expect(unfused!.wireIds).toEqual(['c1.1']);
  expect(unfused!.lengthMm).toBeCloseTo(wireOf(createVehicle(), 'c1').lengthMm, 9);
  expect(find(createVehicle(), 'PO19')[0]).toMatchObject({ grade: 'check', limit: 200 });
});

test('a fuse drops 75 mV at its rating: a 2 A fuse 37.5 mΩ, a 15 A fuse 5', () => {
  const ohm = (name: string, id: string) => load(createVehicle(), name).steps.find(({ words }) => words === id)!.milliohm;
  expect(ohm('lamp', 'box fuse 1')).toBeCloseTo(37.5, 9);
  expect(ohm('pump', 'box fuse 2')).toBeCloseTo(5, 9);
});
