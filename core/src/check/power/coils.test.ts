import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { placeDevice } from '../../edit';
import { applyEdit, createCircuit, createDevice, createEnd, createNode, createPinOffer, createSegment, type Job } from '../../model';
import { plan } from '../../plan';
import { createVehicle } from '../../testing/createVehicle';
import { checkPlan } from '../index';

/** The least vehicle with its pump behind relay 1 of a panel. coil: what its switch pin is wired to; null: nothing. */
function createRelayed(coil: string | null, change: (job: Job) => void = () => undefined): Job {
  return createVehicle((job) => {
    const loom = job.looms.main!;
    loom.nodes['n-relays'] = createNode('end', 'relays');
    loom.segments['s-relays'] = createSegment('hub', 'n-relays', 400, { zoneId: 'cabin' });
    loom.ends.relays = createEnd('n-relays', 'relays', null);
    job.devices.relays = createDevice('relays', 'power', { templateId: 'relay-panel', zoneId: 'cabin' });
    placeDevice(job, CATALOGUE, 'relays', 'main', 'relays');
    loom.circuits.c4!.terminations[0] = { endId: 'relays', cavity: '7' };
    const join = (number: string, kind: 'supply' | 'power-ground' | 'output', from: string, to: string) => {
      const [a, b] = [from, to].map((place) => place.split(':') as [string, string]);
      loom.circuits[`c${number}`] = createCircuit(
        number,
        `relay ${number}`,
        [
          { endId: a![0], cavity: a![1] },
          { endId: b![0], cavity: b![1] },
        ],
        { kind, wireTable: 'etfe' },
      );
    };
    join('11', 'supply', 'box:4', 'relays:1');
    join('12', 'supply', 'box:5', 'relays:2');
    if (coil) join('13', coil.startsWith('stud') ? 'power-ground' : 'output', coil, 'relays:3');
    change(job);
  });
}

const find = (job: Job, code: string) => checkPlan(job, plan(job, CATALOGUE), CATALOGUE, null).filter((one) => one.code === code);
const pump = (job: Job) => plan(job, CATALOGUE).power.loads.find(({ name }) => name.startsWith('coolant pump') || name.startsWith('pump'))!;

describe('PO12: relays and their coils', () => {
  test('a coil that is fed and tied to ground holds its contact: nothing to say', () => {
    expect(find(createRelayed('stud:4'), 'PO12')).toEqual([]);
  });
  test('a contact that feeds a load with its coil switched by nothing never closes', () => {
    const [finding, ...others] = find(createRelayed(null), 'PO12');
    expect(others).toEqual([]);
    expect(finding).toMatchObject({ grade: 'stop' });
    expect(finding!.sentence).toMatch(/^relays relay 1 at relays feeds pump .*, and nothing switches its coil \(pin 3\)\.$/);
  });
  test('nor where its coil is not fed', () => {
    const [finding] = find(
      createRelayed('stud:4', (job) => void delete job.looms.main!.circuits.c12),
      'PO12',
    );
    expect(finding!.sentence).toContain('its coil is not fed (pin 2)');
  });
  test('contacts that feed nothing are nobody’s business', () => {
    expect(find(createRelayed('stud:4'), 'PO12')).toHaveLength(0);
    expect(plan(createRelayed('stud:4'), CATALOGUE).power.protections.filter(({ coil }) => coil !== null)).toHaveLength(4);
  });
});

describe('PO7: the kick of a coil', () => {
  const driven = (suppressed: boolean) =>
    createRelayed('lamp:2', (job) => {
      const loom = job.looms.main!;
      delete loom.circuits.c5;
      loom.ends.lamp!.pins = {};
      loom.ends.lamp!.offers['2'] = createPinOffer('driver', ['low-side'], { limitA: 1, suppressed });
    });
  test('goes by the coil pins of the relay, not by what they are called', () => {
    expect(find(driven(true), 'PO7')).toEqual([]);
    const job = driven(false);
    job.looms.main!.ends.relays!.pins['3']!.function = 'winding';
    const [finding] = find(job, 'PO7');
    expect(finding!.sentence).toBe('The coil of relays relay 1 kicks into lamp 2, which does not take it.');
    const mended = applyEdit(job, finding!.fix!.patch);
    if (!mended.ok) throw new Error(mended.problems[0]!.message);
    expect(Object.values(mended.value.parts)).toMatchObject([{ kind: 'suppressor', at: { endId: 'relays', cavities: ['2', '3'] } }]);
    expect(find(mended.value, 'PO7')).toEqual([]);
  });
});

describe('what switches a load', () => {
  test('the relay on the high side, and a load straight on a fuse nothing at all', () => {
    expect(pump(createRelayed('stud:4')).switches).toEqual([{ side: 'high', by: 'relays relay 1', linkId: 'relays.r1' }]);
    expect(pump(createVehicle()).switches).toEqual([]);
  });
  test('an injector of the demo: kill switch and channel on the high side, the controller on the low side', () => {
    const load = plan(createCleanSkerry(), CATALOGUE).power.loads.find(({ name }) => name.startsWith('injector 1'))!;
    expect(load.switches.map(({ side, by }) => `${side} ${by.replace(/\d+$/, 'n')}`)).toEqual([
      'high kill switch main pole',
      'high Sluice 24 channel n',
      expect.stringMatching(/^low controller plug/),
    ]);
  });
});
