import type { Catalogue } from '../catalogue';
import {
  createCircuit,
  createDevice,
  createEnd,
  createLoom,
  createPinNeed,
  createPinOffer,
  createOpenItem,
  fromColourWords,
  type Circuit,
  type Device,
  type Job,
  type Loom,
} from '../model';
import { ENGINE_SURVEY } from './engineSurvey';
import { writeSurvey } from './writeSurvey';

const device = (id: string, name: string, system: string, templateId: string | null, rest: Partial<Device> = {}): [string, Device] => [
  id,
  createDevice(name, system, { templateId, decidedBy: 'Imke Dorsey', ...rest }),
];

const ENGINE_DEVICES = [
  device('crank', 'crank sensor', 'engine sensors', 'crank-coil', { zoneId: 'engine' }),
  device('starter', 'starter relay', 'power', 'relay', { decision: 'keep', reason: 'on the bracket since the first season' }),
  device('alt', 'alternator', 'power', null, { decision: 'keep', reason: 'charge lamp wire only; the main lead is chassis work' }),
  device('oilpt', 'oil pressure and temperature', 'engine sensors', 'press-temp', { zoneId: 'engine' }),
  device('oillevel', 'oil level switch', 'engine sensors', 'switch', { zoneId: 'wet' }),
  device('sump', 'sump temperature', 'engine sensors', 'temp-oil', { zoneId: 'wet' }),
  device('coil1', 'coil 1', 'ignition', 'coil-plain'),
  device('coil2', 'coil 2', 'ignition', 'coil-plain'),
  device('coil3', 'coil 3', 'ignition', 'coil-plain'),
  device('cam', 'cam sensor', 'engine sensors', 'cam-hall', { zoneId: 'engine' }),
  device('egt', 'exhaust temperature', 'engine sensors', 'temp-exhaust', { zoneId: 'hot' }),
  device('probe', 'wideband probe', 'engine sensors', 'probe-wide', { zoneId: 'hot' }),
  device('coolant', 'coolant temperature', 'engine sensors', 'temp-coolant', { zoneId: 'engine' }),
  device('pump', 'coolant pump', 'cooling', 'valve-charge', {
    reason: 'its driver is in the pump: two wires, four amperes',
    zoneId: 'wet',
  }),
  device('chargetemp', 'charge temperature', 'engine sensors', 'temp-air', { zoneId: 'engine' }),
  device('chargevalve', 'charge control valve', 'actuators', 'valve-charge', {
    zoneId: 'engine',
    duty: { idle: 0, night: 0.5, wet: 0.5, crank: 0 },
  }),
];

/** On the list and on no loom yet: the chassis and the gearbox are measured later. */
const LATER_DEVICES = [
  device('display', 'display', 'driver', 'display', { reason: 'Lantern, in the wheel', zoneId: 'cabin' }),
  device('keypad', 'keypad', 'driver', 'keypad', { zoneId: 'cabin' }),
  device('paddles', 'shift paddles', 'driver', 'paddles', { zoneId: 'cabin' }),
  device('pedal', 'pedal', 'driver', 'pedal', { zoneId: 'cabin' }),
  device('rain', 'rain light', 'lights', 'lamp-rain', { zoneId: 'wet' }),
  device('shift1', 'shift valve up', 'gearbox', 'valve-shift', { zoneId: 'engine' }),
  device('shift2', 'shift valve down', 'gearbox', 'valve-shift', { zoneId: 'engine' }),
  device('barrel', 'gear barrel position', 'gearbox', 'pos-barrel', { zoneId: 'engine' }),
  device('receiver', 'satellite receiver', 'data', 'positioning', {
    decision: 'later',
    reason: 'place on the nose not agreed',
    unknownPolicy: 'connector',
  }),
  device('radio', 'radio', 'driver', 'radio', { decision: 'later', reason: 'the team brings its own', unknownPolicy: 'coil' }),
  device('oldidle', 'idle stepper', 'actuators', 'idle-stepper', { decision: 'remove', reason: 'the throttle does it' }),
];

const at = (place: string) => {
  const [end, cavity] = place.split(':') as [string, string];
  return { endId: end === 'E1' ? 'E1' : `m-${end}`, cavity };
};
const circuit = (
  number: number,
  name: string,
  kind: Circuit['kind'],
  look: string,
  places: string,
  rest: Partial<Circuit> = {},
): [string, Circuit] => [
  `c${number}`,
  createCircuit(String(number), name, places.split(' ').map(at), { kind, colour: fromColourWords(look)!, wireTable: 'etfe', ...rest }),
];

/** The crank sensor hangs on a screened pair as it is bought. */
const CRANK: Circuit['cable'] = { groupId: 'crank', itemId: 'etfe-2x22s' };

/** Engine circuits of its own: E1 cavities 1 to 31. */
const OWN = [
  circuit(301, 'crank +', 'signal', 'white', 'E1:1 crank-sensor:1', { twist: { groupId: 'crank', pitchMm: 25 }, cable: CRANK }),
  circuit(302, 'crank −', 'signal', 'white/black', 'E1:2 crank-sensor:2', { twist: { groupId: 'crank', pitchMm: 25 }, cable: CRANK }),
  circuit(303, 'starter relay coil supply', 'supply', 'red', 'E1:3 starter-relay:1', { currentA: 0.2 }),
  circuit(304, 'starter relay coil switch', 'output', 'brown', 'E1:4 starter-relay:2', { currentA: 0.2 }),
  circuit(305, 'starter relay feed sense', 'signal', 'red/green', 'E1:5 starter-relay:3', { currentA: 0.2 }),
  circuit(306, 'starter relay load sense', 'signal', 'red/brown', 'E1:6 starter-relay:4', { currentA: 0.2 }),
  circuit(307, 'charge lamp', 'signal', 'pink', 'E1:7 alternator:1'),
  circuit(308, 'engine 5 V', 'sensor-supply', 'orange', 'E1:8 oil-pressure-and-temperature:1 cam-sensor:1', { currentA: 0.03 }),
  circuit(
    309,
    'engine sensor ground',
    'sensor-ground',
    'black/white',
    'E1:9 oil-pressure-and-temperature:2 oil-level-switch:2 sump-temperature:2 coolant-temperature:2 charge-temperature:2',
  ),
  circuit(310, 'oil pressure signal', 'signal', 'yellow', 'E1:10 oil-pressure-and-temperature:3'),
  circuit(311, 'oil temperature signal', 'signal', 'yellow/red', 'E1:11 oil-pressure-and-temperature:4'),
  circuit(312, 'oil level', 'signal', 'yellow/blue', 'E1:12 oil-level-switch:1'),
  circuit(313, 'sump temperature signal', 'signal', 'yellow/green', 'E1:13 sump-temperature:1'),
  circuit(314, 'coil supply', 'supply', 'red/white', 'E1:14 coil-1:1 coil-2:1 coil-3:1', {
    currentA: 4.5,
  }),
  circuit(315, 'coil 1 switch', 'output', 'blue', 'E1:15 coil-1:2', { currentA: 3 }),
  circuit(316, 'coil 2 switch', 'output', 'blue/red', 'E1:16 coil-2:2', { currentA: 3 }),
  circuit(317, 'coil 3 switch', 'output', 'blue/white', 'E1:17 coil-3:2', { currentA: 3 }),
  circuit(318, 'cam ground', 'sensor-ground', 'black/yellow', 'E1:18 cam-sensor:2'),
  circuit(319, 'cam signal', 'signal', 'green', 'E1:19 cam-sensor:3'),
  circuit(320, 'probe supply', 'supply', 'red/yellow', 'E1:20 wideband-probe:1', { currentA: 3 }),
  circuit(321, 'probe ground', 'power-ground', 'black/green', 'engine-ground-stud:1 wideband-probe:2'),
  circuit(332, 'exhaust amplifier supply', 'supply', 'red/grey', 'E1:21 exhaust-temperature:1', { currentA: 0.05 }),
  circuit(334, 'crank screen', 'screen', 'white/grey', 'E1:32 crank-sensor:3', { cable: CRANK }),
  circuit(333, 'exhaust amplifier ground', 'power-ground', 'black/blue', 'engine-ground-stud:2 exhaust-temperature:2'),
  circuit(322, 'exhaust temperature signal', 'signal', 'grey', 'E1:22 exhaust-temperature:3'),
  circuit(323, 'exhaust temperature ground', 'sensor-ground', 'black/grey', 'E1:23 exhaust-temperature:4'),
  circuit(324, 'CAN high', 'data', 'white/red', 'E1:24 wideband-probe:3', { twist: { groupId: 'bus', pitchMm: 25 } }),
  circuit(325, 'CAN low', 'data', 'white/blue', 'E1:25 wideband-probe:4', { twist: { groupId: 'bus', pitchMm: 25 } }),
  circuit(326, 'coolant temperature signal', 'signal', 'grey/red', 'E1:26 coolant-temperature:1'),
  circuit(327, 'coolant pump supply', 'supply', 'red/black', 'E1:27 coolant-pump:1', {
    currentA: 4,
  }),
  circuit(328, 'coolant pump switch', 'output', 'brown/white', 'E1:28 coolant-pump:2', {
    currentA: 4,
  }),
  circuit(329, 'charge temperature signal', 'signal', 'grey/blue', 'E1:29 charge-temperature:1'),
  circuit(330, 'charge valve supply', 'supply', 'red/blue', 'E1:30 charge-control-valve:1', { currentA: 1 }),
  circuit(331, 'charge valve switch', 'output', 'brown/yellow', 'E1:31 charge-control-valve:2', { currentA: 1 }),
];

/** The engine loom, made from the survey as it was taped, with the inlet's circuits led through to its plug. */
export function addEngine(job: Job, catalogue: Catalogue): Job {
  const started: Job = {
    ...job,
    devices: { ...job.devices, ...Object.fromEntries([...ENGINE_DEVICES, ...LATER_DEVICES]) },
    looms: {
      ...job.looms,
      engine: {
        ...createLoom('engine', 'E'),
        dressing: 'boots',
        ends: { E1: createEnd('datum', 'engine bulkhead E1', 'hollin-66', { key: 'A', serviceLoopMm: 30 }) },
      },
    },
  };
  started.looms.engine!.nodes.datum!.name = 'firewall';
  const made = structuredClone(writeSurvey(started, 'engine', ENGINE_SURVEY, catalogue));
  const engine = made.looms.engine!;
  engine.clampedBy = 'Jun Okafor';
  for (const segment of Object.values(engine.segments)) segment.zoneId = 'engine';
  const plug = engine.ends['m-inlet-plug']!;
  engine.ends['m-inlet-plug'] = { ...plug, kind: 'connector', familyId: 'hollin-37', key: 'A' };
  engine.ends['m-engine-ground-stud'] = { ...engine.ends['m-engine-ground-stud']!, kind: 'ring', studMm: 6 };
  engine.ends['m-coil-2']!.key = 'B';
  // the relay's contacts are joined by the starter's own cable; this loom only looks whether they are live
  const relay = engine.ends['m-starter-relay']!.pins;
  for (const [pin, what] of [
    ['3', 'contact feed'],
    ['4', 'contact load'],
  ] as const)
    relay[pin] = createPinNeed(`${what} sense`, 'signal', { wants: 'digital' });
  engine.ends['m-starter-relay']!.offers = {};
  const pump = engine.ends['m-coolant-pump']!.pins;
  for (const [pin, need] of Object.entries(pump)) pump[pin] = { ...need, currentA: 1.8 };
  engine.ends['m-alternator']!.pins = { '1': createPinNeed('charge lamp', 'signal', { wants: 'digital' }) };
  engine.ends['m-engine-ground-stud']!.offers = { '1': createPinOffer('engine block', ['engine-block']) };
  engine.circuits = { ...Object.fromEntries(OWN), ...Object.fromEntries(listThrough(made.looms.inlet!)) };
  // wet and hot at once: no lined sleeve of the shop stands it
  const outlet = engine.nodes['m-water-outlet']!;
  engine.nodes['m-water-outlet'] = {
    ...outlet,
    transitionPin: { itemId: null, reason: 'hot and wet at once: wrapped by hand at the car' },
  };
  for (const id of ['r-alternator', 'r-engine-ground-stud'])
    engine.segments[id] = { ...engine.segments[id]!, coveringPin: { kind: 'none', itemId: null, reason: 'one wire, its label is enough' } };
  // a probe that is sold with open blades
  engine.ends['m-charge-temperature']!.potting = {
    ...{ resinId: 'resin-soft', lengthMm: 16, widthMm: 10, depthMm: 9, contactsMm3: 24, changesPerYear: 0.5 },
  };
  // readings that a second person took, and one that does not agree
  engine.segments['r-oil-gallery'] = { ...engine.segments['r-oil-gallery']!, secondLengthMm: 131 };
  engine.segments['r-water-outlet'] = { ...engine.segments['r-water-outlet']!, secondLengthMm: 123 };
  made.mates.inlet = { a: { loomId: 'engine', endId: 'm-inlet-plug' }, b: { loomId: 'inlet', endId: 'B1' } };
  made.openItems = {
    q1: createOpenItem('Does the alternator want its lamp wire fused?', { owner: 'Jun Okafor', blocks: [] }),
    q2: createOpenItem('Thread of the ground stud on the inlet side', {
      owner: 'Jun Okafor',
      answer: 'M6, 14 mm free',
      evidence: 'measured',
      answeredBy: 'Jun Okafor',
      blocks: [{ loomId: 'engine', kind: 'end', id: 'm-engine-ground-stud' }],
    }),
    q3: createOpenItem('Coils share one fuse until the power module is fitted', {
      kind: 'concession',
      owner: 'Imke Dorsey',
      due: '2027-03-01',
      atVisit: false,
    }),
    q4: createOpenItem('Which side of the hoop shall the pull for the battery isolator come out?', {
      owner: 'Penhallow Hillclimb',
      atVisit: false,
    }),
  };
  return made;
}

/** Circuits of the engine loom that lead those of the inlet on to the firewall. */
const listThrough = (inlet: Loom) =>
  Object.values(inlet.circuits).flatMap((one) =>
    one.terminations
      .filter(({ endId }) => endId === 'B1')
      .map(({ cavity }) => {
        const number = 400 + Number(cavity);
        return [
          `c${number}`,
          createCircuit(
            String(number),
            `${one.name}, to the inlet${one.number === '230' ? ` (${cavity})` : ''}`,
            [
              { endId: 'E1', cavity: toBulkhead(cavity) },
              { endId: 'm-inlet-plug', cavity },
            ],
            {
              kind: one.kind,
              wireTable: 'etfe',
              colour: one.colour,
              currentA: one.currentA,
              twist: one.twist,
            },
          ),
        ] as const;
      }),
  );

/** E1 cavities 33 to 66 carry what goes on to the inlet, in its order. */
const toBulkhead = (cavity: string) => String(Number(cavity) <= 29 ? 33 + Number(cavity) - 1 : 26 + Number(cavity));
