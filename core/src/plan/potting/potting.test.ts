import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { createBuild, type Step } from '../../make';
import { checkPlan } from '../../check';
import type { Job, Potting } from '../../model';
import { createBench } from '../../testing/createBench';
import { playShop } from '../../testing/playShop';
import { measureCure, measurePottingFill, measurePottingLoop, plan, planPottings } from '../index';

const SOFT = CATALOGUE.resins.find(({ id }) => id === 'resin-soft')!;
const CAVITY = { lengthMm: 18, widthMm: 12, depthMm: 9, contactsMm3: 36 };
const POTTING: Potting = { resinId: 'resin-soft', ...CAVITY, changesPerYear: null };
const AWG22 = CATALOGUE.wires.etfe!.find(({ size }) => size === '22')!.odMm;

describe('resin for one cavity (craft A4)', () => {
  test('18 × 12 × 9 mm, three AWG 22, contacts of 36 mm³: 1.88 ml, 2.26 with waste, 2.5 g, 2.22 + 0.27', () => {
    // 1944 − 3 · π/4 · 1.09² · 9 − 36 = 1882.8 mm³
    expect(AWG22).toBeCloseTo(1.09, 2);
    const fill = measurePottingFill(CAVITY, [AWG22, AWG22, AWG22], SOFT, 0.2);
    expect(Object.values(fill).map((value) => Number(value.toFixed(2)))).toEqual([1.88, 2.26, 2.49, 2.22, 0.27]);
    expect(fill.partAG + fill.partBG).toBeCloseTo(fill.massG, 12);
  });
  test('a cavity that its wires fill takes none', () =>
    expect(measurePottingFill({ ...CAVITY, depthMm: 0.1 }, [1.09], SOFT, 0.2).volumeMl).toBe(0));
  test('16 h at 23 °C are 32 h at 13 °C and 8 h at 33 °C', () =>
    expect([23, 13, 33].map((workshopC) => measureCure(SOFT, workshopC))).toEqual([16, 32, 8]));
  test('three quarters of a turn, six diameters wide', () =>
    expect(measurePottingLoop(3, 6)).toEqual({ radiusMm: 18, lengthMm: 27 * Math.PI }));
});

const potted = (
  ids: readonly string[],
  change: (potting: Potting) => void = () => undefined,
  more: (job: Job) => void = () => undefined,
) => {
  const job = createBench((loom, whole) => {
    for (const id of ids) {
      const potting = { ...POTTING };
      change(potting);
      loom.ends[id] = { ...loom.ends[id]!, potting };
    }
    more(whole);
  });
  return job;
};
const loomOf = (job: Job) => plan(job, CATALOGUE).looms[0]!;
const codes = (job: Job) =>
  checkPlan(job, plan(job, CATALOGUE), CATALOGUE, null).flatMap(({ code, grade }) => (/^EN1\d/.test(code) ? [`${code} ${grade}`] : []));

test('wires of a potted end are longer by its loop and the straight lead before it', () => {
  const [bare, with_] = [loomOf(createBench()), loomOf(potted(['L']))];
  const leg = with_.bundles.find(({ segmentId }) => segmentId === 's2')!.odMm;
  const wire = (one: typeof bare) =>
    one.wires.find(({ to, from }) => [to, from].some((end) => end.kind === 'cavity' && end.endId === 'L'))!;
  expect(wire(with_).lengthMm - wire(bare).lengthMm).toBeCloseTo(10 + 2 * Math.PI * 6 * leg * 0.75, 6);
  expect(wire(with_).addends.map(({ kind }) => kind)).toContain('potting');
});

test('an anchor has its loop too: as wide as the run that leaves it is thick', () => {
  const [bare, anchored] = [loomOf(createBench()), loomOf(potted(['A']))];
  const trunk = anchored.bundles.find(({ segmentId }) => segmentId === 's1')!.odMm;
  expect(trunk).toBeGreaterThan(0);
  expect(anchored.wires[0]!.lengthMm - bare.wires[0]!.lengthMm).toBeCloseTo(10 + 2 * Math.PI * 6 * trunk * 0.75, 6);
});

describe('steps of a potted end', () => {
  const job = potted(['L']);
  const loom = loomOf(job);
  const { steps, parts } = createBuild(job, loom, CATALOGUE);
  const place = (id: string) => steps.findIndex((step: Step) => step.id === id);
  test('the device is rung, contacts go on, all is rung, then poured; it waits, and is rung, marked and looped', () => {
    const order = ['device.L', 'seat.L', 'contacts.L', 'pot.L', 'cure.L', 'hard.L', 'shrink.L', 'test'].map(place);
    expect(order).not.toContain(-1);
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(place('trial.resin-soft')).toBeLessThan(place('pot.L'));
    expect(playShop(job, loom, CATALOGUE, steps)).toEqual([]);
  });
  test('the mix and the hours are asked for by the temperature of the workshop', () => {
    const [only] = planPottings(job, loom, CATALOGUE);
    expect(only!.cureH).toBeCloseTo(16 * 2 ** ((23 - 18) / 10), 9);
    expect(steps[place('cure.L')]!.items[0]!.asks).toEqual([{ what: 'hours of cure', value: 22.6 }]);
    expect(steps[place('pot.L')]!.items[0]!.words).toContain(`${only!.partAG.toFixed(2)} g + ${only!.partBG.toFixed(2)} g`);
    expect(parts.find(({ group }) => group === 'resin')).toMatchObject({ id: 'resin-soft', pieces: Math.ceil(only!.massG) });
  });
  test('an end that is not potted has none of them', () =>
    expect(steps.filter(({ id }) => /^(device|pot|cure|hard)\.R$/.test(id))).toEqual([]));
});

describe('findings of potted ends', () => {
  test('none where it is right', () => expect(codes(potted(['L']))).toEqual([]));
  test('a device that is changed twice a year wants a connector; once a year may be potted', () => {
    expect(codes(potted(['L'], (one) => void (one.changesPerYear = 2)))).toEqual(['EN11 check']);
    expect(codes(potted(['L'], (one) => void (one.changesPerYear = 1)))).toEqual([]);
  });
  test('a zone hotter than the resin, and a resin that the shop does not have', () => {
    const hot = potted(['L'], undefined, (job) => {
      job.zones.kiln = { ...Object.values(createCleanSkerry().zones)[0]!, name: 'kiln', ambientC: 131 };
      job.looms.bench!.segments.s2 = { ...job.looms.bench!.segments.s2!, zoneId: 'kiln' };
    });
    expect(codes(hot)).toEqual(['EN12 check']);
    expect(codes(potted(['L'], (one) => void (one.resinId = 'none')))).toEqual(['EN10 stop']);
  });
  test('two that are potted alike are named once', () => {
    const job = potted(['L', 'R'], undefined, ({ looms }) => {
      const rows = looms.bench!.circuits;
      // as many wires in one as in the other
      for (const circuit of Object.values(rows))
        circuit.terminations = circuit.terminations.filter(({ endId, cavity }) => endId === 'A' || Number(cavity) <= 1);
    });
    const counts = ['L', 'R'].map((id) => loomOf(job).terminations.filter(({ endId }) => endId === id).length);
    expect(codes(job)).toEqual(counts[0] === counts[1] && counts[0]! > 0 ? ['EN13 note'] : []);
    expect(counts[0]).toBe(counts[1]);
  });
});
