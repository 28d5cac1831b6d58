import type { Catalogue } from '../catalogue';
import { assignPins, placeDevice } from '../edit';
import {
  createCircuit,
  createDevice,
  createEnd,
  createLoom,
  createProving,
  createTask,
  fromColourWords,
  type Circuit,
  type Device,
  type InlinePart,
  type Job,
} from '../model';
import { findStandard } from '../plan';
import { CHASSIS_SURVEY, GEARBOX_SURVEY } from './chassisSurvey';
import { writeSurvey } from './writeSurvey';

const device = (
  id: string,
  name: string,
  system: string,
  templateId: string,
  zoneId: string,
  rest: Partial<Device> = {},
): [string, Device] => [id, createDevice(name, system, { templateId, zoneId, decidedBy: 'Imke Dorsey', ...rest })];
const box = (id: string, name: string, templateId: string, unit: string) => device(id, name, 'boxes', templateId, 'cabin', { unit });
/** on in full power at night and in the wet, off while cranking, at idle as given */
const duty = (idle: number, crank = 0) => ({ duty: { idle, crank } });

const CHASSIS_DEVICES = [
  box('ecu-a', 'controller plug A', 'orrery-a', 'Orrery E4'),
  box('ecu-b', 'controller plug B', 'orrery-b', 'Orrery E4'),
  box('ecu-c', 'controller plug C', 'orrery-c', 'Orrery E4'),
  box('pdm-p', 'module power plug', 'sluice-p', 'Sluice 24'),
  box('pdm-s', 'module signal plug', 'sluice-s', 'Sluice 24'),
  box('pdm-f', 'module feed', 'sluice-feed', 'Sluice 24'),
  box('gnd-l', 'ground stud left', 'ground-stud', ''),
  box('gnd-r', 'ground stud right', 'ground-stud', ''),
  box('gnd-d', 'ground stud lower', 'ground-stud', ''),
  box('block', 'engine block stud', 'engine-block', ''),
  box('bat-p', 'battery positive', 'battery-positive', ''),
  box('bat-n', 'battery negative', 'battery-negative', ''),
  device('fuse', 'main fuse', 'power', 'main-fuse', 'cabin'),
  device('kill', 'kill switch', 'safety', 'kill', 'cabin'),
  device('starter-motor', 'starter motor', 'power', 'starter', 'cabin', { duty: { crank: 0.1 } }),
  device('fuelpump', 'fuel pump', 'fuel', 'pump-fuel', 'cabin', duty(1)),
  device('fan', 'radiator fan', 'cooling', 'fan', 'wet', { duty: { idle: 0.4, crank: 0, wet: 0.6 } }),
  device('icpump', 'intercooler pump', 'cooling', 'pump-coolant', 'wet', duty(0.5)),
  device('rain', 'rain light', 'lights', 'lamp-rain', 'wet', duty(0)),
  device('brakelight', 'brake light', 'lights', 'lamp-brake', 'wet', { duty: { idle: 0.1, night: 0.3, wet: 0.3, crank: 0 } }),
  device('keypad', 'keypad', 'driver', 'keypad', 'cabin'),
  device('display', 'display', 'driver', 'display', 'cabin', { reason: 'Lantern, in the wheel' }),
  device('paddles', 'shift paddles', 'driver', 'paddles', 'cabin'),
  device('shiftlamp', 'shift lamp', 'driver', 'lamp-warn', 'cabin', duty(0)),
  device('neutral', 'neutral button', 'driver', 'button', 'cabin'),
  device('steering', 'steering angle', 'chassis', 'pos-steering', 'cabin'),
  device('pedal', 'pedal', 'driver', 'pedal', 'cabin'),
  device('brakef', 'brake pressure front', 'chassis', 'press-brake', 'cabin'),
  device('braker', 'brake pressure rear', 'chassis', 'press-brake', 'cabin'),
  device('brakesw', 'brake switch', 'driver', 'switch-brake', 'cabin'),
  ...(['front left', 'front right', 'rear left', 'rear right'] as const).flatMap((corner) => {
    const id = corner.replace(' ', '-');
    return [
      device(`speed-${id}`, `wheel speed ${corner}`, 'chassis', 'speed-hall', 'wet'),
      device(`damper-${id}`, `damper ${corner}`, 'chassis', 'pos-damper', 'wet'),
    ];
  }),
  device('logger', 'logger', 'data', 'logger', 'cabin'),
];
const GEARBOX_DEVICES = [
  device('shift1', 'shift valve up', 'gearbox', 'valve-shift', 'engine', { duty: { idle: 0, night: 0.1, wet: 0.1, crank: 0 } }),
  device('shift2', 'shift valve down', 'gearbox', 'valve-shift', 'engine', { duty: { idle: 0, night: 0.1, wet: 0.1, crank: 0 } }),
  device('barrel', 'gear barrel position', 'gearbox', 'pos-barrel', 'engine'),
  device('gearspeed', 'gear speed', 'gearbox', 'speed-hall', 'hot'),
  device('geartemp', 'gearbox oil temperature', 'gearbox', 'temp-gearbox', 'hot'),
  device('gearpress', 'gearbox oil pressure', 'gearbox', 'press-oil', 'hot'),
];

const terminator = (loomId: string, endId: string, high: string, low: string): InlinePart => ({
  kind: 'terminator',
  ohms: 120,
  watts: 0.25,
  at: { loomId, endId, cavities: [high, low] },
  inside: false,
  reason: 'far end of the bus',
});

const STUDS: Record<string, number> = {
  'm-module-feed': 8,
  'm-ground-stud-left': 6,
  'm-ground-stud-right': 6,
  'm-ground-stud-lower': 8,
  'm-engine-block-stud': 8,
  'm-battery-positive': 8,
  'm-battery-negative': 8,
};
const KEYS: Record<string, string> = { 'm-controller-plug-C': 'C', 'm-controller-plug-c': 'C' };

/** Cables laid by hand, before anything is assigned: thin-wall, the starter's own, all else behind the main fuse and the kill switch. */
const CABLES: [string, Circuit][] = (
  [
    ['101', 'battery to main fuse', 'red', 'battery-positive:1 main-fuse:1'],
    ['102', 'main fuse to kill switch', 'red/black', 'main-fuse:2 kill-switch:1'],
    ['103', 'kill switch to power module', 'red/white', 'kill-switch:2 module-feed:1'],
    ['104', 'battery to starter', 'red/yellow', 'battery-positive:2 starter-motor:1'],
    ['105', 'battery negative to chassis', 'black', 'battery-negative:1 ground-stud-lower:1'],
    ['106', 'plenum ground', 'black/white', 'ground-stud-right:1 F1:60'],
    ['107', 'engine strap', 'black/red', 'ground-stud-lower:2 engine-block-stud:1'],
  ] as const
).map(([number, name, look, places]) => [
  `c${number}`,
  createCircuit(
    number,
    name,
    places.split(' ').map((place) => {
      const [end, cavity] = place.split(':') as [string, string];
      return { endId: end === 'F1' ? end : `m-${end}`, cavity };
    }),
    {
      kind: number > '104' ? 'power-ground' : 'supply',
      wireTable: number === '106' ? 'etfe' : 'thinwall',
      colour: fromColourWords(look)!,
    },
  ),
]);

const PROVINGS: Job['provings'] = {
  p1: createProving('coding', 'channel list of this car loaded, clock set', { deviceId: 'logger' }),
  p2: createProving('value', 'released, first track', { deviceId: 'pedal' }),
  p3: createProving('value', 'pressed to its stop, first track', { deviceId: 'pedal' }),
  p4: createProving('later', 'wheel speeds agree with each other and with the road', { when: 'driven straight at 30 km/h' }),
};

/** Chassis and gearbox looms: placed by hand as surveyed, led to controller, module and grounds by the assignment. */
export function addChassis(job: Job, catalogue: Catalogue): Job {
  const known = Object.fromEntries([...CHASSIS_DEVICES, ...GEARBOX_DEVICES]);
  const bare: Job = {
    ...job,
    devices: { ...Object.fromEntries(Object.entries(job.devices).filter(([id]) => !Object.hasOwn(known, id))), ...known },
    looms: {
      ...job.looms,
      chassis: {
        ...createLoom('chassis', 'C'),
        ends: { F1: createEnd('datum', 'firewall F1', 'hollin-66', { key: 'A', serviceLoopMm: 40 }) },
      },
      gearbox: {
        ...createLoom('gearbox', 'G'),
        ends: { G1: createEnd('datum', 'gearbox G1', 'hollin-22', { key: 'A', serviceLoopMm: 30 }) },
      },
    },
  };
  bare.looms.chassis!.nodes.datum!.name = 'firewall';
  bare.looms.gearbox!.nodes.datum!.name = 'gearbox';
  const surveyed = writeSurvey(writeSurvey(bare, 'chassis', CHASSIS_SURVEY, catalogue), 'gearbox', GEARBOX_SURVEY, catalogue);
  const made = structuredClone(surveyed);
  const { chassis, gearbox } = made.looms as { chassis: Job['looms'][string]; gearbox: Job['looms'][string] };
  chassis.clampedBy = 'Jun Okafor';
  gearbox.clampedBy = 'Jun Okafor';
  const wetIds = new Set(['r-rain-light', 'r-brake-light', 'r-radiator-duct', 'r-radiator-fan', 'r-intercooler-pump']);
  for (const [id, segment] of Object.entries(chassis.segments)) segment.zoneId = wetIds.has(id) ? 'wet' : 'cabin';
  for (const segment of Object.values(gearbox.segments)) segment.zoneId = 'engine';
  for (const [id, deviceId] of Object.values(made.devices).flatMap(({ at }, index) =>
    at && (at.loomId === 'chassis' || at.loomId === 'gearbox') ? [[at, Object.keys(made.devices)[index]!] as const] : [],
  ))
    placeDevice(made, catalogue, deviceId, id.loomId, id.endId);
  for (const [endId, studMm] of Object.entries(STUDS)) chassis.ends[endId] = { ...chassis.ends[endId]!, kind: 'ring', studMm };
  for (const [endId, key] of Object.entries(KEYS)) if (chassis.ends[endId]) chassis.ends[endId].key = key;
  const plug = chassis.ends['m-gearbox-plug']!;
  chassis.ends['m-gearbox-plug'] = { ...plug, kind: 'connector', familyId: 'hollin-22', key: 'A' };
  gearbox.ends['m-gear-barrel-position']!.key = 'black';
  gearbox.ends['m-gearbox-oil-pressure']!.key = 'grey';
  gearbox.ends['m-gear-speed']!.key = 'grey';
  gearbox.ends['m-shift-valve-down']!.key = 'B';
  gearbox.ends['m-shift-valve-up']!.key = 'A';
  made.mates.firewall = { a: { loomId: 'chassis', endId: 'F1' }, b: { loomId: 'engine', endId: 'E1' } };
  made.mates.gearbox = { a: { loomId: 'chassis', endId: 'm-gearbox-plug' }, b: { loomId: 'gearbox', endId: 'G1' } };
  made.parts = {
    'term-probe': terminator('engine', 'm-wideband-probe', '3', '4'),
    'term-logger': terminator('chassis', 'm-logger', 'C', 'D'),
  };
  made.tasks = {
    t1: createTask('fabricate', 'Plate with two studs for the clips of the loom', 45, {
      where: 'selector housing, upper left cover bolts',
      places: [{ loomId: 'gearbox', kind: 'segment', id: 'r-selector' }],
      hazards: ['weld', 'grind'],
      owner: 'Jun Okafor',
      due: '2027-01-15',
    }),
    t2: createTask('yes', 'Legs of the shift valves on the outside of the casing, where they are seen', 10, {
      places: [
        { loomId: 'gearbox', kind: 'segment', id: 'r-shift-valve-up' },
        { loomId: 'gearbox', kind: 'segment', id: 'r-shift-valve-down' },
      ],
      owner: 'Penhallow Hillclimb',
      due: '2027-01-12',
    }),
  };
  made.provings = structuredClone(PROVINGS);
  for (const [id, circuit] of CABLES) chassis.circuits[id] = circuit;
  const done = structuredClone(assignPins(made, catalogue, findStandard(made, catalogue)).next);
  // the bus leaves its line close by the controller: other splices make room
  Object.entries(done.looms.chassis!.circuits)
    .filter(([, { kind, terminations }]) => kind === 'data' && terminations.some(({ endId }) => endId === 'm-keypad'))
    .forEach(([id], index) => {
      done.looms.chassis!.splicePins[`${id}@m-controller-shelf`] = {
        segmentId: 'r-controller-shelf',
        offsetMm: 415 - 60 * index,
        reason: 'short stubs to the controller',
      };
    });
  return done;
}
