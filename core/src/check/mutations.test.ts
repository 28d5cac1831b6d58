import { CATALOGUE } from '../catalogue';
import { createCleanSkerry, createSkerry } from '../demo';
import { createRandom } from '../units/createRandom';
import { listFindings } from '../make';
import { applyEdit, checkJob, type Circuit, type Job, type PinNeed } from '../model';
import { createPlanner } from '../plan';
import { createLookup } from '../catalogue';
import type { Finding } from './types';
import { runs } from '../testing/runs';

const planner = createPlanner(CATALOGUE);
const findings = (job: Job): Finding[] => listFindings(job, planner(job), CATALOGUE, '2026-11-25');
const grave = (job: Job) => findings(job).filter(({ grade }) => grade !== 'note');

type Random = () => number;
interface Pin {
  loomId: string;
  endId: string;
  cavity: string;
  need: PinNeed;
  circuit: Circuit;
}

/** Wired device pins that fit, in a fixed order. */
function listPins(job: Job, fits: (pin: Pin) => boolean): Pin[] {
  return Object.keys(job.looms)
    .sort()
    .flatMap((loomId) =>
      Object.values(job.looms[loomId]!.circuits).flatMap((circuit) =>
        circuit.terminations.flatMap(({ endId, cavity }) => {
          const need = job.looms[loomId]!.ends[endId]!.pins[cavity];
          const pin = need && { loomId, endId, cavity, need, circuit };
          return pin && fits(pin) ? [pin] : [];
        }),
      ),
    );
}
function pick<T>(list: readonly T[], random: Random): T {
  if (list.length === 0) throw new Error('expected something to spoil');
  return list[Math.floor(random() * list.length)]!;
}
const isDevice = ({ endId }: Pin) => !/controller|module|battery|fuse|kill/.test(endId);
const cut = ({ circuit, endId, cavity }: Pin) =>
  (circuit.terminations = circuit.terminations.filter((one) => one.endId !== endId || one.cavity !== cavity));
const onRail = (job: Job, random: Random) =>
  pick(
    listPins(job, (pin) => pin.need.kind === 'sensor-supply' && !/pedal/.test(pin.endId)),
    random,
  );
const chassis = (job: Job) => job.looms.chassis!;

/** One fault each: what it does, and the rule that is meant to find it. */
const FAULTS: Record<string, { code: string; spoil: (job: Job, random: Random) => void }> = {
  'a required pin is dropped': {
    code: 'CI1',
    spoil: (job, random) =>
      void cut(
        pick(
          listPins(job, (pin) => pin.need.required && isDevice(pin)),
          random,
        ),
      ),
  },
  'a 12 V device turns out to want 5 V': {
    code: 'CI3',
    spoil: (job, random) =>
      (pick(
        listPins(job, (pin) => pin.need.volts === 12 && isDevice(pin)),
        random,
      ).need.volts = 5),
  },
  'a 12 V sensor is put on the 5 V rail': { code: 'CI3', spoil: (job, random) => (onRail(job, random).need.volts = 12) },
  'a second channel feeds a load': {
    code: 'CI4',
    spoil: (job, random) => {
      const supplies = Object.values(chassis(job).circuits).filter(
        ({ kind, terminations }) => kind === 'supply' && terminations.some(({ endId }) => /module-power/.test(endId)),
      );
      const one = pick(supplies, random);
      const other = pick(
        supplies.filter((circuit) => circuit !== one),
        random,
      );
      const at = other.terminations.findIndex(({ endId }) => /module-power/.test(endId));
      one.terminations.push(...other.terminations.splice(at, 1));
    },
  },
  'a sensor ground is joined to power ground': {
    code: 'CI5',
    spoil: (job, random) => {
      const pin = pick(
        listPins(job, ({ loomId, need }) => loomId === 'chassis' && need.kind === 'sensor-ground'),
        random,
      );
      cut(pin);
      const ground = Object.values(chassis(job).circuits).find(
        ({ kind, terminations }) => kind === 'power-ground' && terminations.length > 3,
      )!;
      ground.terminations.push({ endId: pin.endId, cavity: pin.cavity });
    },
  },
  'a frequency sensor is read by an analogue pin': {
    code: 'CI6',
    spoil: (job, random) =>
      (pick(
        listPins(job, ({ need }) => need.wants === 'analogue'),
        random,
      ).need.wants = 'frequency'),
  },
  'a valve is switched faster than its driver': {
    code: 'CI6',
    spoil: (job, random) =>
      (pick(
        listPins(job, ({ need }) => need.wants === 'low-side'),
        random,
      ).need.pwmHz = 30_000),
  },
  'a sensor draws too much for the rail': { code: 'CI8', spoil: (job, random) => (onRail(job, random).need.currentA = 0.2) },
  'a noisy ground shares with the quiet ones': {
    code: 'CI9',
    spoil: (job, random) =>
      (pick(
        listPins(job, ({ need }) => need.kind === 'sensor-ground' && need.noise === null),
        random,
      ).need.noise = 'ignition'),
  },
  'both tracks of the pedal on one supply': {
    code: 'CI10',
    spoil: (job) => {
      const [a, b] = listPins(job, ({ endId, need }) => endId === 'm-pedal' && need.kind === 'sensor-supply');
      cut(b!);
      a!.circuit.terminations.push({ endId: b!.endId, cavity: b!.cavity });
    },
  },
  'a throttle track is lost': {
    code: 'CI11',
    spoil: (job, random) =>
      void cut(
        pick(
          listPins(job, ({ endId, need }) => endId === 'thr' && need.wants === 'analogue'),
          random,
        ),
      ),
  },
  'a terminator is taken out': { code: 'CI12', spoil: (job, random) => delete job.parts[pick(Object.keys(job.parts), random)] },
  'a bus node moves away from the line': {
    code: 'CI12',
    spoil: (job, random) =>
      (chassis(job).segments[`r-${pick(['keypad', 'display', 'module-signal-plug', 'controller-plug-b'], random)}`]!.lengthMm += 900),
  },
  'a screen is tied at both ends': {
    code: 'CI13',
    spoil: (job, random) => {
      const screen = Object.values(chassis(job).circuits).find(({ kind }) => kind === 'screen')!;
      screen.terminations.push({ endId: pick(['m-ground-stud-left', 'm-ground-stud-right'], random), cavity: '9' });
    },
  },
  'a supply loses its channel': {
    code: 'CI15',
    spoil: (job, random) => {
      const feeds = Object.values(chassis(job).circuits).filter(
        ({ terminations }) =>
          terminations.length > 2 &&
          terminations.some(({ endId }) => /module-(power|signal)/.test(endId)) &&
          terminations.some(({ endId }) => !/module|controller/.test(endId)),
      );
      const one = pick(
        feeds.filter(({ kind }) => kind === 'supply'),
        random,
      );
      one.terminations = one.terminations.filter(({ endId }) => !/module/.test(endId));
    },
  },
  'the main fuse is raised': {
    code: 'PO2',
    spoil: (job, random) => (job.devices.fuse!.ratings = { main: { ratingA: pick([200, 250], random), reason: 'kept blowing' } }),
  },
  'a thin wire is pinned behind a strong channel': {
    code: 'PO2',
    spoil: (job, random) => {
      const pin = pick(
        listPins(job, ({ need }) => need.kind === 'supply' && (need.currentA ?? 0) >= 9 && (need.currentA ?? 0) < 100),
        random,
      );
      pin.circuit.sizePin = { size: '26', reason: 'what was on the reel' };
    },
  },
  'a fuse or setting is below its load': {
    code: 'PO3',
    spoil: (job, random) => {
      const loaded = planner(job).power.protections.filter(({ kind, loadA }) => kind === 'channel' && loadA >= 2);
      const { deviceId, linkId } = pick(loaded, random);
      job.devices[deviceId]!.ratings = { [linkId]: { ratingA: 1, reason: 'careful' } };
    },
  },
  'a thin wire is pinned on a long way': {
    code: 'PO4',
    spoil: (job, random) => {
      const pin = pick(
        listPins(
          job,
          ({ need, loomId }) => loomId === 'chassis' && need.kind === 'supply' && (need.currentA ?? 0) >= 4 && (need.currentA ?? 0) < 100,
        ),
        random,
      );
      pin.circuit.sizePin = { size: '24', reason: 'what was on the reel' };
    },
  },
  'a battery too weak to open anything': { code: 'PO5', spoil: (job, random) => (job.source.milliohm = 900 + Math.floor(random() * 100)) },
  'a generator too small': { code: 'PO6', spoil: (job, random) => (job.source.continuousA = 10 + Math.floor(random() * 20)) },
  'a driver that does not take the kick of a coil': {
    code: 'PO7',
    spoil: (job) => {
      const coil = listPins(job, ({ endId, need }) => endId === 'm-starter-relay' && need.kind === 'output')[0]!;
      const net = planner(job).power.nets.find(({ circuits }) =>
        circuits.some(({ loomId, circuitId }) => job.looms[loomId]!.circuits[circuitId] === coil.circuit),
      )!;
      chassis(job).ends[net.root!.endId]!.offers[net.root!.cavity]!.suppressed = false;
    },
  },
  'the main fuse is bridged': {
    code: 'PO8',
    spoil: (job) => {
      chassis(job).circuits.c101!.terminations[1] = { endId: 'm-kill-switch', cavity: '1' };
      delete chassis(job).circuits.c102;
    },
  },
  'an inrush that opens the fuse': {
    code: 'PO9',
    spoil: (job, random) => {
      const pin = pick(
        listPins(job, ({ need }) => need.load === 'motor' && need.inrushA !== null),
        random,
      );
      pin.need.inrushA = 900;
      pin.need.inrushMs = 400;
      job.devices.fuse!.ratings = { main: { ratingA: 100, reason: 'fitted last year' } };
    },
  },
  'a contact carries too much': {
    code: 'EN5',
    spoil: (job, random) =>
      (pick(
        listPins(job, ({ loomId, need }) => loomId === 'engine' && need.kind === 'supply' && (need.currentA ?? 0) >= 1),
        random,
      ).need.currentA = 12),
  },
  'a cavity is wired on one side of a plug only': {
    code: 'MT2',
    spoil: (job, random) => {
      const led = Object.values(chassis(job).circuits).filter(
        ({ terminations }) => terminations.length > 2 && terminations.some(({ endId }) => endId === 'm-gearbox-plug'),
      );
      const one = pick(led, random);
      one.terminations = one.terminations.filter(({ endId }) => endId !== 'm-gearbox-plug');
    },
  },
  'a splice is put on a breakout': {
    code: 'BU1',
    spoil: (job, random) => {
      const plan = planner(job).looms.find(({ loomId }) => loomId === 'inlet')!;
      const { id, place } = pick(plan.splices, random);
      job.looms.inlet!.splicePins[id] = { segmentId: place.segmentId, offsetMm: 2, reason: 'as it was' };
    },
  },
  'a length is only guessed': {
    code: 'SC1',
    spoil: (job, random) => (pick(Object.values(chassis(job).segments), random).status = 'guessed'),
  },
  'a sleeve comes after its end': {
    code: 'DR1',
    spoil: (job, random) => (job.looms.inlet!.segments[`s-${pick(['inj1', 'inj2', 'inj3'], random)}`]!.slideOn = 'after-ends'),
  },
  'a plug of another key': { code: 'MT1', spoil: (job, random) => (job.looms.inlet!.ends.B1!.key = pick(['B', 'C', 'D'], random)) },
};

test('the clean Skerry has nothing to stop or check', () =>
  expect(grave(createCleanSkerry()).map(({ code, sentence }) => `${code} ${sentence}`)).toEqual([]));

test('there are sixty faults of thirty kinds', () => expect(Object.keys(FAULTS)).toHaveLength(30));

test.each(
  Object.keys(FAULTS).flatMap((name, index) =>
    Array.from({ length: runs(1, 6) }, (_, at) => at + 1).map((seed) => [name, 1000 * seed + index] as const),
  ),
)('%s (seed %i)', (name, seed) => {
  const { code, spoil } = FAULTS[name]!;
  const job = createCleanSkerry();
  spoil(job, createRandom(seed));
  // the planner may have seen the job before it was spoilt: what it remembers goes by identity
  expect(grave(structuredClone(job)).map((one) => one.code)).toContain(code);
});

describe('traps of the demo', () => {
  const job = createSkerry();
  const all = grave(job);
  test('are what the demo opens with', () =>
    expect(all.map(({ code }) => code).sort()).toEqual(['BU1', 'CI1', 'CI8', 'DR1', 'EN3', 'EN5', 'EN5', 'PO2', 'PO4', 'SC1', 'SC3']));
  test.each(['CI1', 'EN5', 'CI8', 'PO2', 'PO4', 'DR1', 'BU1', 'EN3'])('%s has a fix that mends it and breaks nothing', (code) => {
    const finding = all.find((one) => one.code === code)!;
    const mended = applyEdit(job, finding.fix!.patch);
    if (!mended.ok) throw new Error(mended.problems.map(({ message }) => message).join());
    expect(checkJob(JSON.parse(JSON.stringify(mended.value)), createLookup(CATALOGUE)).ok).toBe(true);
    const now = grave(mended.value);
    expect(now.map(({ key }) => key)).not.toContain(finding.key);
    expect(now.filter(({ key }) => !all.some((one) => one.key === key)).map(({ code: one, sentence }) => `${one} ${sentence}`)).toEqual([]);
  });
});
