import { createDemoStart, CATALOGUE } from '../catalogue';
import {
  createCircuit,
  createDevice,
  createEnd,
  createJob,
  createLoom,
  createNode,
  createSegment,
  fromColourWords,
  type Decision,
  type End,
  type DonorDecision,
  type DonorWire,
  type CircuitKind,
  type Job,
} from '../model';
import { takeFixes } from './takeFixes';

/** What a wire was found to be, its length in mm; what is to become of it comes apart. */
type FoundRow = [number: string, from: string, to: string, functions: string, colour: string, size: string, lengthMm: number | null];

const wire = (
  [number, from, to, functions, colour, size, lengthMm]: FoundRow,
  decision: DonorDecision | null,
  newLengthMm: number | null = null,
  note = '',
): [string, DonorWire] => {
  const [fromName, fromPin] = from.split(':') as [string, string];
  const [toName, toPin] = to.split(':') as [string, string];
  return [
    `w${number}`,
    {
      number,
      from: fromName,
      fromPin,
      to: toName,
      toPin,
      functions: functions.split(', '),
      colour,
      size,
      lengthMm,
      decision,
      newLengthMm,
      newName: '',
      note,
    },
  ];
};

/** The Fen Ranger's worn loom as it was ringed out, with what is to become of each wire. */
const DONOR: [string, DonorWire][] = [
  wire(['1', 'battery:+', 'main fuse:1', 'battery feed', 'red', '6', 420], 'keep'),
  wire(['2', 'main fuse:2', 'ignition switch:B', 'switch feed', 'red/white', '2.5', 880], 'keep'),
  wire(['3', 'ignition switch:ON', 'fuse box:1', 'key-on supply', 'brown', '2.5', 760], 'shorten', 420),
  wire(['4', 'fuse box:2', 'controller:1', 'controller supply', 'brown/red', '1', 940], 'keep'),
  wire(['5', 'controller:5', 'injector:2', 'injector switch', 'blue', '0.75', 610], 'keep'),
  wire(['6', 'fuse box:3', 'injector:1', 'injector supply', 'red/blue', '0.75', 690], 'keep'),
  wire(['7', 'controller:7', 'coil:2', 'coil switch', 'black/white', '0.75', 560], 'extend', 720),
  wire(['8', 'fuse box:3', 'coil:1', 'coil supply', 'red/black', '1', 640], 'extend', 800),
  wire(['9', 'controller:9', 'crank sensor:1', 'crank +', 'white', '0.5', 830], 'keep'),
  wire(['10', 'controller:10', 'crank sensor:2', 'crank −', 'green', '0.5', 830], 'keep'),
  wire(['11', 'fuse box:4', 'head lamp:1', 'dip', 'blue/white', '1.5', 1180], 'keep'),
  wire(['12', 'fuse box:5', 'head lamp:2', 'main beam', 'blue/black', '1.5', 1180], 'keep'),
  wire(['13', 'fuse box:6', 'tail lamp:1', 'tail light, plate light', 'grey', '0.75', 1620], 'keep'),
  wire(['14', 'brake switch:2', 'tail lamp:2', 'brake light, start interlock', 'green/yellow', '0.75', 1480], 'keep'),
  wire(['15', 'flasher:L', 'turn signal front left:1', 'left turn', 'green/white', '0.75', 1240], 'remove', null, 'not on the road'),
  wire(['16', 'flasher:R', 'turn signal front right:1', 'right turn', 'green/red', '0.75', 1260], 'remove', null, 'not on the road'),
  wire(['17', 'fuse box:7', 'horn:1', 'horn supply', 'yellow', '1', 930], 'remove'),
  wire(['18', 'fuse box:7', 'accessory socket:1', 'socket supply', 'violet', '1.5', null], 'remove'),
  wire(['19', 'fuse box:8', 'fan:1', 'fan supply', 'red/green', '2.5', 1050], 'repurpose', 1350, 'becomes the feed of the new pump'),
  wire(['20', 'temperature switch:1', 'fan relay:86', 'fan switch', 'black/yellow', '0.75', 780], 'keep'),
  wire(['21', 'controller:12', 'throttle position:3', 'throttle signal', 'yellow/blue', '0.5', 720], 'keep'),
  wire(['22', 'controller:13', 'throttle position:1', '5 V supply', 'pink', '0.5', 720], 'keep'),
  wire(
    ['23', 'controller:14', 'throttle position:2', 'sensor ground, temperature ground', 'black/green', '0.5', 720],
    'remove',
    null,
    'taken for a spare ground',
  ),
  wire(['24', 'controller:15', 'coolant temperature:1', 'temperature signal', 'green/blue', '0.5', 650], 'keep'),
  wire(['25', 'frame ground:1', 'tail lamp:3', 'lamp ground', 'black', '1.5', 1390], 'keep'),
  wire(['26', 'frame ground:1', 'fuel pump:2', 'pump ground', 'black', '1.5', 870], 'keep'),
  wire(['27', 'pump relay:87', 'fuel pump:1', 'pump supply', 'violet/white', '1.5', 910], 'keep'),
  wire(['28', 'neutral switch:1', 'starter relay:85', 'start interlock', 'white/green', '0.75', 540], null),
];

/** The second demo job: a worn loom that is thinned, extended and re-fused in thin-wall wire, with braid and tape. */
export function createFenRanger(): Job {
  const job = createJob('Fen Ranger', 'Aldous Merrow', 'plain', createDemoStart());
  job.notes = 'The old loom stays where it is good. A new front run replaces what the crash took.';
  job.brief.vehicle = 'rally-raid quad, single cylinder';
  for (const [index, anchor] of Object.values(job.anchors).entries())
    Object.assign(anchor, index === 1 ? { state: 'not-here' } : { state: 'fixed', by: 'Jun Okafor' });
  const devices: [string, string, string | null, Decision, string][] = [
    ['controller', 'fuel', null, 'keep', ''],
    ['injector', 'fuel', 'injector', 'keep', ''],
    ['coil', 'ignition', 'coil-plain', 'keep', ''],
    ['crank sensor', 'engine sensors', 'crank-coil', 'keep', ''],
    ['throttle position', 'engine sensors', 'pos-throttle', 'keep', ''],
    ['coolant temperature', 'engine sensors', 'temp-coolant', 'keep', ''],
    ['head lamp', 'lights', 'lamp-head', 'keep', ''],
    ['tail lamp', 'lights', 'lamp-brake', 'keep', ''],
    ['fuel pump', 'fuel', 'pump-fuel', 'keep', ''],
    ['fan', 'cooling', 'fan', 'remove', 'the radiator sits in clear air now'],
    ['horn', 'driver', null, 'remove', 'not on the road'],
    ['flasher', 'lights', null, 'remove', 'not on the road'],
    ['accessory socket', 'driver', null, 'remove', ''],
    ['road book', 'data', 'display', 'fit', 'on the bars'],
    ['satellite receiver', 'data', 'positioning', 'later', 'the organiser brings it on the day'],
  ];
  devices.forEach(([name, system, templateId, decision, reason], index) => {
    job.devices[`d${index + 1}`] = createDevice(name, system, {
      templateId,
      decision,
      reason,
      decidedBy: reason ? 'Imke Dorsey' : '',
      unknownPolicy: decision === 'later' ? 'connector' : null,
    });
  });
  job.donors = { old: { name: 'old loom', wires: Object.fromEntries(structuredClone(DONOR)) } };
  job.looms = { front: createFront() };
  job.devices.d14!.at = { loomId: 'front', endId: 'roadbook' };
  job.devices.d7!.at = { loomId: 'front', endId: 'lamp' };
  // a stronger contact for the lamp, as the finding offers it
  return structuredClone(takeFixes(job, CATALOGUE, ['EN5']));
}

/** Number, name, kind, colour, pins as end-cavity, A. */
type CircuitRow = [number: string, name: string, kind: CircuitKind, look: string, places: string, currentA: number | null];

const FRONT: readonly CircuitRow[] = [
  ['11', 'dip', 'supply', 'blue/white', 'P1-1 lamp-1', 2.9],
  ['12', 'main beam', 'supply', 'blue/black', 'P1-2 lamp-2', 2.9],
  ['13', 'front ground', 'power-ground', 'black', 'P1-3 lamp-3 roadbook-2', null],
  ['14', 'road book supply', 'supply', 'red', 'P1-4 roadbook-1', 0.8],
  ['15', 'CAN high', 'data', 'white/red', 'P1-5 roadbook-3', null],
  ['16', 'CAN low', 'data', 'white/blue', 'P1-6 roadbook-4', null],
];

const toCircuit = ([number, name, kind, look, places, currentA]: CircuitRow) => {
  const terminations = places.split(' ').map((one) => {
    const [endId, cavity] = one.split('-') as [string, string];
    return { endId, cavity };
  });
  const twist = kind === 'data' ? { groupId: 'bus', pitchMm: 25 } : null;
  return createCircuit(number, name, terminations, { kind, colour: fromColourWords(look)!, wireTable: 'thinwall', currentA, twist });
};

function createFront() {
  const loom = createLoom('front', 'F');
  loom.clampedBy = 'Saoirse Vell';
  loom.nodes = {
    datum: createNode('datum', 'dash plate'),
    bars: createNode('breakout', 'bars', { onwardSegmentId: 's2' }),
    lamp: createNode('end', 'head lamp'),
    roadbook: createNode('end', 'road book'),
  };
  loom.segments = {
    s1: createSegment('datum', 'bars', 340, { method: 'rope', zoneId: 'flex' }),
    s2: createSegment('bars', 'lamp', 410, { method: 'rope', ticks: ['wet'] }),
    s3: createSegment('bars', 'roadbook', 260, { method: 'rope', ticks: ['moving'] }),
  };
  const pinsOf = (templateId: string): End['pins'] =>
    Object.fromEntries(Object.entries(CATALOGUE.devices[templateId]!.pins).map(([pin, need]) => [pin, { ...need, evidence: 'measured' }]));
  // thirty-five watts a filament
  const lamp = Object.fromEntries(
    Object.entries(pinsOf('lamp-head')).map(([pin, need]) => [
      pin,
      need.kind === 'supply' ? { ...need, currentA: 2.9, inrushA: 29 } : need,
    ]),
  );
  loom.ends = {
    P1: createEnd('datum', 'dash plug', 'pellow-8', { key: 'A' }),
    lamp: createEnd('lamp', 'head lamp', 'pellow-3', {
      key: 'A',
      pins: lamp,
    }),
    roadbook: createEnd('roadbook', 'road book', 'pellow-6', { key: 'A', pins: pinsOf('display') }),
  };
  loom.circuits = Object.fromEntries(FRONT.map((row, index) => [`c${index + 1}`, toCircuit(row)]));
  return loom;
}
