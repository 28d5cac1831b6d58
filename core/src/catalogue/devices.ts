import { createPinNeed, createPinOffer, type DeviceTemplate, type PinNeed } from '../model';
import { HOSTS } from './hosts';

const supply = (currentA: number | null, name = '12 V supply', rest: Partial<PinNeed> = {}) =>
  createPinNeed(name, 'supply', { volts: 12, currentA, load: 'electronics', ...rest });
const five = (name = '5 V supply', currentA = 0.01) => createPinNeed(name, 'sensor-supply', { volts: 5, currentA });
const reference = (name = 'sensor ground', noise: string | null = null) => createPinNeed(name, 'sensor-ground', { noise });
/** What the supplies of its device draw comes home by it. */
const ground = (name = 'ground') => createPinNeed(name, 'power-ground');
const signal = (name = 'signal', rest: Partial<PinNeed> = {}) => createPinNeed(name, 'signal', rest);
const output = (name: string, currentA: number | null, wants: PinNeed['wants'] = 'low-side', pwmHz: number | null = null) =>
  createPinNeed(name, 'output', { currentA, wants, pwmHz });
const optional = (need: PinNeed): PinNeed => ({ ...need, required: false });
const bus = (high: string, low: string): Record<string, PinNeed> => ({
  [high]: createPinNeed('CAN high', 'data', { twistWith: low }),
  [low]: createPinNeed('CAN low', 'data', { twistWith: high }),
});
const pair = (
  one: string,
  other: string,
  name: string,
  screened: boolean,
  wants: PinNeed['wants'] = 'coil-pair',
): Record<string, PinNeed> => ({
  [one]: signal(`${name} +`, { twistWith: other, screened, wants }),
  [other]: signal(`${name} −`, { twistWith: one, screened, wants }),
});
/** Pins in their order with the leads that the maker has on them. */
const leads = (needs: readonly PinNeed[], looks: readonly string[]): PinNeed[] =>
  needs.map((need, index) => ({ ...need, lead: looks[index] ?? null }));
const numbered = (needs: readonly PinNeed[]): Record<string, PinNeed> =>
  Object.fromEntries(needs.map((need, index) => [String(index + 1), need]));

const template = (
  id: string,
  name: string,
  system: string,
  familyId: string | null,
  pins: readonly PinNeed[] | Record<string, PinNeed>,
  rest: Partial<DeviceTemplate> = {},
): [string, DeviceTemplate] => [
  id,
  {
    name,
    system,
    familyId,
    pins: Array.isArray(pins) ? numbered(pins as PinNeed[]) : (pins as Record<string, PinNeed>),
    offers: {},
    links: {},
    hazard: null,
    note: '',
    ...rest,
  },
];

const hot = (name = 'temperature signal') => signal(name, { wants: 'temperature' });
const level = (name = 'signal') => signal(name, { wants: 'analogue' });
const pulses = (name: string, rest: Partial<PinNeed> = {}) => signal(name, { wants: 'frequency', ...rest });
const contact = (name = 'switched') => signal(name, { wants: 'digital' });
const thermistor = [hot('signal'), reference()];
const analogue = [five(), reference(), level()];
/** Switched faster than a bundle can feel: at its own frequency, or so many times a second as an engine turns. */
const solenoid = (currentA: number, pwmHz: number | null = null, load: PinNeed['load'] = 'motor') => {
  const cycleS = pwmHz !== null ? 1 / pwmHz : load === 'ignition' ? 0.1 : null;
  return [supply(currentA, '12 V supply', { load, cycleS }), { ...output('switch', currentA, 'low-side', pwmHz), cycleS }];
};
/** A motor draws three times its current for a fifth of a second when it starts; usual figure. */
const motor = (currentA: number) => [supply(currentA, '12 V supply', { load: 'motor', inrushA: 3 * currentA, inrushMs: 200 }), ground()];
/** A cold filament draws ten times its current and is warm within about 30 ms; usual figure. */
const filament = (currentA: number, name = '12 V supply') => supply(currentA, name, { load: 'lamp', inrushA: 10 * currentA, inrushMs: 30 });
const lamp = (currentA: number) => [filament(currentA), ground()];

/**
 * Kinds of device that a job picks from: generic, with usual values. Pin order is ours, currents are usual ones:
 * a real device's own sheet comes first, which is why a picked pin carries no evidence until somebody gives it.
 */
export const DEVICES: Readonly<Record<string, DeviceTemplate>> = Object.fromEntries([
  // temperatures: two wires
  template('temp-air', 'air temperature', 'engine sensors', 'tarn-2', thermistor),
  template('temp-coolant', 'coolant temperature', 'engine sensors', 'tarn-2', thermistor),
  template('temp-oil', 'oil temperature', 'engine sensors', 'tarn-2', thermistor),
  template('temp-fuel', 'fuel temperature', 'fuel', 'tarn-2', thermistor),
  template('temp-gearbox', 'gearbox oil temperature', 'gearbox', 'tarn-2', thermistor),
  template('temp-exhaust', 'exhaust temperature amplifier', 'engine sensors', 'pellow-4', [supply(0.05), ground(), level(), reference()]),
  // pressures and positions: three wires
  template('press-manifold', 'manifold pressure', 'engine sensors', 'tarn-3', analogue),
  template('press-charge', 'charge pressure', 'engine sensors', 'tarn-3', analogue),
  template('press-oil', 'oil pressure', 'engine sensors', 'tarn-3', analogue),
  template('press-fuel', 'fuel pressure', 'fuel', 'tarn-3', analogue),
  template('press-coolant', 'coolant pressure', 'engine sensors', 'tarn-3', analogue),
  template('press-brake', 'brake pressure', 'chassis', 'tarn-3', analogue),
  template('pos-throttle', 'throttle position, single track', 'engine sensors', 'tarn-3', analogue, {
    note: 'not for an electronic throttle: that wants two tracks',
  }),
  template('pos-damper', 'damper travel', 'chassis', 'tarn-3', analogue),
  template('pos-steering', 'steering angle', 'chassis', 'tarn-3', analogue),
  template('pos-barrel', 'gear barrel position', 'gearbox', 'tarn-3', analogue),
  // combined sensors
  template('press-temp', 'pressure and temperature, one return', 'engine sensors', 'tarn-4', [
    five(),
    reference(),
    level('pressure signal'),
    hot(),
  ]),
  template(
    'press-temp-2',
    'pressure and temperature, two returns',
    'engine sensors',
    'pellow-6',
    [five(), reference('pressure ground'), level('pressure signal'), reference('temperature ground'), hot()],
    { note: 'both returns go to sensor ground: the second is the one that is forgotten' },
  ),
  template('flow-temp', 'air flow and temperature', 'engine sensors', 'pellow-6', [
    supply(0.5),
    ground(),
    reference(),
    level('flow signal'),
    hot(),
  ]),
  // speed: both principles
  template(
    'crank-coil',
    'crank sensor, coil',
    'engine sensors',
    'tarn-3',
    { ...pair('1', '2', 'crank', true), '3': createPinNeed('screen', 'screen', { required: false }) },
    { note: 'screened pair, drained at the controller end only' },
  ),
  template('crank-hall', 'crank sensor, Hall', 'engine sensors', 'tarn-3', [
    five('5 V supply', 0.02),
    reference('sensor ground', 'crank and cam'),
    pulses('crank signal', { screened: true }),
  ]),
  template('cam-coil', 'cam sensor, coil', 'engine sensors', 'tarn-2', pair('1', '2', 'cam', true)),
  template('cam-hall', 'cam sensor, Hall', 'engine sensors', 'tarn-3', [
    five('5 V supply', 0.02),
    reference('sensor ground', 'crank and cam'),
    pulses('cam signal'),
  ]),
  template('speed-coil', 'wheel speed, coil', 'chassis', 'tarn-2', pair('1', '2', 'speed', true)),
  template('speed-loop', 'wheel speed, current loop', 'chassis', 'tarn-2', [supply(0.02), pulses('speed signal')]),
  template('speed-hall', 'gear or shaft speed, Hall', 'gearbox', 'tarn-3', [supply(0.02), reference(), pulses('speed signal')], {
    note: 'twelve volts: not on the 5 V rail',
  }),
  template('knock', 'knock sensor', 'engine sensors', 'tarn-2', pair('1', '2', 'knock', true, 'knock-pair'), {
    note: 'screened pair, drained at the controller end only',
  }),
  template('probe-wide', 'wideband probe controller', 'engine sensors', 'pellow-6', {
    '1': supply(3, 'heater supply', { load: 'heater' }),
    '2': ground(),
    ...bus('3', '4'),
    '5': optional(signal('analogue out')),
    '6': optional(reference('analogue return')),
  }),
  template('probe-direct', 'wideband probe, direct', 'engine sensors', 'pellow-6', [
    supply(3, 'heater supply', { load: 'heater' }),
    output('heater switch', 3, 'low-side', 100),
    signal('pump current'),
    signal('pump voltage'),
    signal('cell voltage'),
    signal('trim resistor'),
  ]),
  // throttle and pedal
  template(
    'throttle',
    'electronic throttle, two tracks',
    'actuators',
    'pellow-6',
    {
      '1': { ...output('motor +', 3.5, 'half-bridge', 1000), twistWith: '2' },
      '2': { ...output('motor −', 3.5, 'half-bridge', 1000), twistWith: '1' },
      '3': five(),
      '4': reference('sensor ground', 'throttle'),
      '5': level('track 1'),
      '6': level('track 2'),
    },
    { note: 'both tracks to the controller, fingers out when it is powered' },
  ),
  template(
    'pedal',
    'pedal, two tracks',
    'driver',
    'pellow-6',
    [
      { ...five('5 V supply A'), noise: 'pedal A' },
      reference('ground A', 'pedal A'),
      level('track 1'),
      { ...five('5 V supply B'), noise: 'pedal B' },
      reference('ground B', 'pedal B'),
      level('track 2'),
    ],
    { note: 'each track on a supply and a ground of its own' },
  ),
  template(
    'idle-stepper',
    'idle stepper',
    'actuators',
    'pellow-4',
    ['A +', 'A −', 'B +', 'B −'].map((name) => output(name, 0.5, 'half-bridge')),
  ),
  // fuel and spark
  template('injector', 'injector, high impedance', 'fuel', 'tarn-2', solenoid(1, null, 'ignition'), { hazard: 'injects-fuel' }),
  template('injector-low', 'injector, low impedance', 'fuel', 'tarn-2', solenoid(4, null, 'ignition'), {
    hazard: 'injects-fuel',
    note: 'wants a peak-and-hold driver',
  }),
  template('coil-driver', 'coil with driver', 'ignition', 'pellow-4', [
    supply(4, '12 V supply', { load: 'ignition', cycleS: 0.1 }),
    ground(),
    signal('trigger', { wants: 'ignition' }),
    reference('trigger return'),
  ]),
  template(
    'coil-plain',
    'coil without driver',
    'ignition',
    'pellow-2',
    [supply(1, '12 V supply', { load: 'ignition', cycleS: 0.1 }), { ...output('switch', 1, 'ignition'), cycleS: 0.1 }],
    { note: 'wants an ignition driver, not a low-side output; 7 A at its peak, 1 A r.m.s. at full speed' },
  ),
  template('coil-pack', 'coil pack, two outputs', 'ignition', 'pellow-3', [
    supply(6, '12 V supply', { load: 'ignition', cycleS: 0.1 }),
    { ...output('switch 1', 3, 'ignition'), cycleS: 0.1 },
    { ...output('switch 2', 3, 'ignition'), cycleS: 0.1 },
  ]),
  template('pump-fuel', 'fuel pump', 'fuel', 'brack-2', motor(9), { hazard: 'moves-fuel' }),
  // solenoids, pumps, fans
  template('valve-charge', 'charge control valve', 'actuators', 'pellow-2', solenoid(1, 300), { hazard: 'pressure' }),
  template('valve-bypass', 'bypass valve', 'actuators', 'pellow-2', solenoid(1.5), { hazard: 'pressure' }),
  template('valve-purge', 'purge valve', 'fuel', 'pellow-2', solenoid(0.6), { hazard: 'moves-fuel' }),
  template('valve-cam', 'cam timing valve', 'actuators', 'pellow-2', solenoid(1.2, 300), { hazard: 'pressure' }),
  template('valve-shift', 'shift valve', 'gearbox', 'pellow-2', solenoid(2), { hazard: 'pressure' }),
  template('clutch-magnet', 'compressor clutch', 'actuators', 'pellow-2', solenoid(2)),
  template('pump-coolant', 'coolant pump', 'cooling', 'brack-2', motor(7)),
  template('pump-speed', 'coolant pump, speed controlled', 'cooling', 'pellow-4', [
    supply(8, '12 V supply', { load: 'motor' }),
    ground(),
    signal('speed demand', { wants: 'low-side' }),
    optional(signal('speed reply')),
  ]),
  template('fan', 'radiator fan', 'cooling', 'brack-2', leads(motor(14), ['blue/red', 'brown']), {
    hazard: 'blades',
    note: 'starts by itself: fingers out',
  }),
  template(
    'fan-speed',
    'radiator fan, speed controlled',
    'cooling',
    'pellow-4',
    [supply(13, '12 V supply', { load: 'motor' }), ground(), signal('speed demand', { wants: 'low-side' }), optional(signal('fault'))],
    { hazard: 'blades' },
  ),
  template(
    'wiper',
    'wiper motor',
    'chassis',
    'pellow-4',
    leads(
      [
        supply(5, 'run supply', { load: 'motor', inrushA: 15, inrushMs: 200 }),
        ground(),
        supply(5, 'park supply', { load: 'motor' }),
        contact('park switch'),
      ],
      ['green', 'brown', 'green/black', 'green/white'],
    ),
  ),
  // power
  template(
    'relay',
    'relay',
    'power',
    'pellow-4',
    [supply(0.16, 'coil supply'), output('coil switch', 0.16), supply(null, 'contact feed')],
    {
      note: 'coil suppressed where the driver needs it',
      offers: { '4': createPinOffer('contact load', ['feed', 'high-side'], { volts: 12, limitA: 25, pwmHz: 0 }) },
      links: {
        contact: {
          name: 'contact',
          kind: 'relay',
          a: { part: null, cavity: '3' },
          b: { part: null, cavity: '4' },
          maxA: 25,
          peakA: 90,
          coil: { feed: '1', switch: '2' },
          closedIn: [],
        },
      },
    },
  ),
  template(
    'battery',
    'battery',
    'power',
    null,
    {},
    {
      note: 'negative off before work, main fuse at the battery',
      offers: {
        '1': createPinOffer('positive', ['battery-positive'], { volts: 12 }),
        '2': createPinOffer('negative', ['battery-negative']),
      },
    },
  ),
  template(
    'starter',
    'starter motor',
    'power',
    null,
    {
      '1': supply(180, 'main feed', { load: 'starter', inrushA: 450, inrushMs: 80, cycleS: 50, returnBy: 'engine-case' }),
      '2': supply(8, 'solenoid', { load: 'starter', inrushA: 40, inrushMs: 50, cycleS: 50, returnBy: 'engine-case' }),
    },
    { note: 'five seconds of cranking, then a rest; its current comes home by its case: an engine strap is part of its circuit' },
  ),
  template('alternator', 'alternator', 'power', null, {
    '1': supply(null, 'output', { returnBy: 'engine-case' }),
    '2': optional(signal('charge lamp', { wants: 'digital' })),
    '3': optional(signal('sense')),
  }),
  template(
    'kill',
    'kill switch, six pole',
    'safety',
    null,
    {
      '1': supply(null, 'battery'),
      '2': supply(null, 'feed'),
      '3': signal('ignition cut in'),
      '4': signal('ignition cut out'),
      '5': optional(signal('alternator resistor in')),
      '6': optional(ground('alternator resistor out')),
    },
    {
      note: 'everything but the starter lead dies with it',
      links: {
        main: {
          name: 'main pole',
          kind: 'switch',
          a: { part: null, cavity: '1' },
          b: { part: null, cavity: '2' },
          maxA: 250,
          peakA: 1000,
          coil: null,
          closedIn: [],
        },
      },
    },
  ),
  template('power-module', 'power module on the bus', 'power', 'quill-26', {
    '1': createPinNeed('ground', 'power-ground', { currentA: 0.2 }),
    ...bus('2', '3'),
    '4': signal('wake'),
  }),
  // lamps
  template('lamp-rain', 'rain light', 'lights', 'pellow-2', lamp(0.8)),
  template('lamp-brake', 'brake light', 'lights', 'pellow-2', lamp(1.8)),
  template('lamp-head', 'head lamp', 'lights', 'pellow-3', [filament(5, 'dip'), filament(5, 'main'), ground()]),
  template('lamp-turn', 'turn signal', 'lights', 'pellow-2', lamp(1.8)),
  template('lamp-warn', 'warning lamp', 'driver', 'pellow-2', [supply(0.1, '12 V supply', { load: 'lamp' }), output('switch', 0.1)]),
  // bus devices
  template('bus-node', 'CAN device', 'data', 'pellow-4', { '1': supply(0.3), '2': ground(), ...bus('3', '4') }),
  template('display', 'display', 'driver', 'pellow-6', {
    '1': supply(0.8),
    '2': ground(),
    ...bus('3', '4'),
    '5': optional(signal('dim')),
    '6': optional(signal('page')),
  }),
  template('keypad', 'keypad on the bus', 'driver', 'pellow-4', { '1': supply(0.2), '2': ground(), ...bus('3', '4') }),
  template('logger', 'data logger', 'data', 'hollin-10m', {
    A: supply(0.5),
    B: ground(),
    ...bus('C', 'D'),
    E: optional(signal('beacon')),
    F: optional(reference()),
  }),
  template('positioning', 'satellite receiver', 'data', 'pellow-4', { '1': supply(0.15), '2': ground(), ...bus('3', '4') }),
  template('radio', 'radio', 'driver', 'pellow-4', [supply(2), ground(), contact('talk switch'), reference('talk return')]),
  template('tyre', 'tyre receiver', 'data', 'pellow-4', { '1': supply(0.1), '2': ground(), ...bus('3', '4') }),
  // switches
  template('switch', 'switch, on and off', 'driver', 'pellow-2', [contact(), reference('return')]),
  template(
    'switch-lit',
    'switch with lamp',
    'driver',
    'pellow-4',
    [contact(), reference('return'), supply(0.02, 'lamp supply', { load: 'lamp' }), ground('lamp ground')],
    { note: 'four functions: a three-core cable is one short' },
  ),
  template('switch-rotary', 'rotary switch with resistors', 'driver', 'tarn-3', analogue),
  template('button', 'push button', 'driver', 'pellow-2', [contact(), reference('return')]),
  template('paddles', 'shift paddles', 'driver', 'pellow-3', [contact('up'), contact('down'), reference('return')]),
  template('switch-brake', 'brake switch', 'driver', 'pellow-2', [supply(0.1), contact()]),
  ...Object.entries(HOSTS),
]);
