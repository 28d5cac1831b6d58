import { createDemoStart, CATALOGUE } from '../catalogue';
import {
  createBoardSpread,
  createCircuit,
  createDevice,
  createEnd,
  createJob,
  createNode,
  createPinNeed,
  fromColourWords,
  createSegment,
  type Circuit,
  type End,
  type Job,
  type Loom,
  type Segment,
} from '../model';
import { addChassis } from './addChassis';
import { addEngine } from './addEngine';
import { addTraps } from './addTraps';
import { sayStates } from './sayStates';
import { takeFixes } from './takeFixes';

const at = (place: string) => {
  const [endId, cavity] = place.split('-') as [string, string];
  return { endId, cavity };
};
const circuit = (
  number: string,
  name: string,
  kind: Circuit['kind'],
  look: string,
  places: string,
  rest: Partial<Circuit> = {},
): [string, Circuit] => [
  `c${number}`,
  createCircuit(number, name, places.split(' ').map(at), { kind, colour: fromColourWords(look)!, wireTable: 'etfe', ...rest }),
];
const pin = (name: string, kind: Circuit['kind']) => createPinNeed(name, kind, { evidence: 'read' });
const sensor: End['pins'] = { '1': pin('5 V supply', 'sensor-supply'), '2': pin('ground', 'sensor-ground'), '3': pin('signal', 'signal') };
const switched = (currentA: number): End['pins'] => ({
  '1': { ...pin('12 V supply', 'supply'), currentA, load: 'ignition' },
  '2': { ...pin('switch', 'output'), currentA },
});

let made: Job | null = null;

/** The Skerry 12 with nothing wrong with it: brief, four looms, everything led to controller, module and grounds. */
export function createCleanSkerry(): Job {
  made ??= makeSkerry();
  return structuredClone(made);
}

/** The Skerry 12 as the demo opens it, with traps that its findings show. */
export function createSkerry(): Job {
  return addTraps(createCleanSkerry());
}

function makeSkerry(): Job {
  const led = addChassis(addEngine(addInletNeeds(mendInlet(createInlet())), CATALOGUE), CATALOGUE);
  // plated wire where it is hot, screened pairs into cables: as a planner takes the fixes that the findings offer
  const job = structuredClone(takeFixes(led, CATALOGUE, ['PO16', 'CI18']));
  job.brief = {
    ...job.brief,
    vehicle: 'Carrow & Finch Skerry 12, rear-mid three-cylinder with a belt-driven compressor',
  };
  for (const [id, places] of Object.entries(ANCHORED)) job.anchors[id]!.nodes = places.map(([loomId, nodeId]) => ({ loomId, nodeId }));
  return sayStates(job, CATALOGUE);
}

/** Where its anchors lie on the looms. */
const ANCHORED: Record<string, [string, string][]> = {
  controller: [['chassis', 'm-controller-shelf']],
  power: [['chassis', 'm-power-shelf']],
  firewall: [
    ['chassis', 'datum'],
    ['engine', 'datum'],
    ['inlet', 'datum'],
  ],
  battery: [['chassis', 'm-battery-tray']],
};

/** The inlet loom without its traps, and with every size left to be computed. */
function mendInlet(job: Job): Job {
  const inlet = job.looms.inlet!;
  inlet.splicePins = {};
  inlet.segments['s-knk'] = { ...inlet.segments['s-knk']!, method: 'tape', status: 'roped' };
  inlet.segments['s-inj5']!.slideOn = 'before-ends';
  inlet.ends.chg!.key = 'black';
  inlet.circuits.c216!.terminations.push(at('chg-2'));
  inlet.segments['s-gnd']!.coveringPin = { kind: 'none', itemId: null, reason: 'one wire, its label is enough' };
  for (const id of ['c229', 'c230']) delete inlet.circuits[id];
  for (const circuit of Object.values(inlet.circuits)) circuit.sizePin = null;
  for (const id of ['inj1', 'inj2', 'inj3', 'inj4', 'inj5', 'inj6'])
    job.devices[id]!.duty = { idle: 0.05, night: id < 'inj4' ? 0.8 : 0.5, wet: 0.5, crank: 0.1 };
  for (const id of ['byp', 'clu']) job.devices[id]!.duty = { idle: 0, night: 0.5, wet: 0.5, crank: 0 };
  return job;
}

/** What the inlet's devices need, as their sheets say. */
function addInletNeeds(job: Job): Job {
  for (const [endId, templateId] of Object.entries(INLET_TEMPLATES)) {
    const { pins } = CATALOGUE.devices[templateId]!;
    job.looms.inlet!.ends[endId]!.pins = Object.fromEntries(
      Object.entries(pins).map(([pin, need]) => [pin, { ...need, evidence: 'read' }]),
    );
  }
  return job;
}

let inletMade: string | null = null;

/** The inlet loom of the Skerry 12: a removable sub-loom on the plenum, with a few traps that its findings show. */
export function createInlet(): Job {
  inletMade ??= JSON.stringify(takeFixes(makeInlet(), CATALOGUE, ['PO16']));
  return JSON.parse(inletMade) as Job;
}

const primary = { reason: 'three injectors share this wire', size: '20' };

const listInletNodes = (): Loom['nodes'] => ({
  datum: createNode('datum', 'firewall bulkhead'),
  hole: createNode('pass', 'plenum bracket hole', { holeMm: 32 }),
  bk1: createNode('breakout', 'primary rail', { onwardSegmentId: 't3' }),
  bk2: createNode('breakout', 'throttle body', { onwardSegmentId: 't4' }),
  bk3: createNode('breakout', 'secondary rail', { onwardSegmentId: 't5' }),
  bk4: createNode('breakout', 'plenum end', { onwardSegmentId: 't6' }),
  ...Object.fromEntries(
    ['inj1', 'inj2', 'inj3', 'inj4', 'inj5', 'inj6', 'thr', 'map', 'chg', 'fpt', 'byp', 'clu', 'knk', 'air', 'gnd'].map((id) => [
      `n-${id}`,
      createNode('end', ENDS[id]!),
    ]),
  ),
});

const listInletSegments = (): Loom['segments'] => ({
  t1: createSegment('datum', 'hole', 60, { status: 'fitted', method: 'fitted', zoneId: 'engine' }),
  t2: createSegment('hole', 'bk1', 150, { zoneId: 'engine', secondLengthMm: 152 }),
  t3: createSegment('bk1', 'bk2', 205, { zoneId: 'engine' }),
  t4: createSegment('bk2', 'bk3', 195, { zoneId: 'engine', secondLengthMm: 196 }),
  t5: createSegment('bk3', 'bk4', 205, { zoneId: 'hot' }),
  t6: createSegment('bk4', 'n-air', 300, { method: 'rope', zoneId: 'engine' }),
  ...legs('bk1', { inj1: [130], inj2: [165], inj3: [240] }),
  ...legs('bk2', { thr: [180, { zoneId: 'flex' }], map: [80], chg: [100] }),
  ...legs('bk3', { inj4: [130], inj5: [165, { slideOn: 'after-ends' }], inj6: [240] }),
  ...legs('bk4', {
    byp: [140],
    clu: [210],
    fpt: [170],
    gnd: [90],
    knk: [160, { zoneId: 'wet', method: 'estimate', status: 'guessed' }],
  }),
});

const listInletEnds = (): Loom['ends'] => ({
  B1: createEnd('datum', 'inlet bulkhead B1', 'hollin-37', { key: 'A', serviceLoopMm: 30, reterminations: 3 }),
  ...Object.fromEntries(
    ['inj1', 'inj2', 'inj3', 'inj4', 'inj5', 'inj6'].map((id) => [
      id,
      createEnd(`n-${id}`, ENDS[id]!, 'tarn-2', { key: 'grey', pins: switched(1) }),
    ]),
  ),
  thr: createEnd('n-thr', ENDS.thr!, 'pellow-6', { key: 'A', clocking: { radiusMm: 30, angleDeg: 90 } }),
  map: createEnd('n-map', ENDS.map!, 'tarn-3', { key: 'grey', pins: sensor }),
  chg: createEnd('n-chg', ENDS.chg!, 'tarn-3', { key: 'grey', pins: sensor }),
  fpt: createEnd('n-fpt', ENDS.fpt!, 'tarn-4', { key: 'grey', pins: { ...sensor, '4': pin('temperature signal', 'signal') } }),
  byp: createEnd('n-byp', ENDS.byp!, 'pellow-2', { key: 'A', pins: switched(1.5) }),
  clu: createEnd('n-clu', ENDS.clu!, 'pellow-2', { key: 'B', pins: switched(2) }),
  knk: createEnd('n-knk', ENDS.knk!, 'tarn-2', { key: 'black' }),
  air: createEnd('n-air', ENDS.air!, 'tarn-2', { key: 'grey', serviceLoopMm: 20 }),
  gnd: createEnd('n-gnd', ENDS.gnd!, null, { kind: 'ring', studMm: 6 }),
});

const listInletCircuits = (): Loom['circuits'] =>
  Object.fromEntries([
    circuit('201', 'primary injector supply', 'supply', 'red', 'B1-1 inj1-1 inj2-1 inj3-1', { sizePin: primary, currentA: 3 }),
    circuit('202', 'secondary injector supply', 'supply', 'red/white', 'B1-2 inj4-1 inj5-1 inj6-1', { sizePin: primary, currentA: 3 }),
    circuit('203', 'injector 1 switch', 'output', 'blue', 'B1-3 inj1-2', { currentA: 1 }),
    circuit('204', 'injector 2 switch', 'output', 'blue/red', 'B1-4 inj2-2', { currentA: 1 }),
    circuit('205', 'injector 3 switch', 'output', 'blue/white', 'B1-5 inj3-2', { currentA: 1 }),
    circuit('206', 'injector 4 switch', 'output', 'blue/yellow', 'B1-6 inj4-2', { currentA: 1 }),
    circuit('207', 'injector 5 switch', 'output', 'blue/green', 'B1-7 inj5-2', { currentA: 1 }),
    circuit('208', 'injector 6 switch', 'output', 'blue/black', 'B1-8 inj6-2', { currentA: 1 }),
    circuit('209', 'throttle motor +', 'output', 'violet', 'B1-9 thr-1', {
      currentA: 3.5,
      twist: { groupId: 'motor', pitchMm: 25 },
      sizePin: { size: '20', reason: 'motor stalls at 6 A' },
    }),
    circuit('210', 'throttle motor −', 'output', 'violet/white', 'B1-10 thr-2', {
      currentA: 3.5,
      twist: { groupId: 'motor', pitchMm: 25 },
      sizePin: { size: '20', reason: 'motor stalls at 6 A' },
    }),
    circuit('211', 'throttle 5 V', 'sensor-supply', 'orange', 'B1-11 thr-3', { currentA: 0.02 }),
    circuit('212', 'throttle ground', 'sensor-ground', 'black/white', 'B1-12 thr-4'),
    circuit('213', 'throttle track 1', 'signal', 'green', 'B1-13 thr-5'),
    circuit('214', 'throttle track 2', 'signal', 'green/yellow', 'B1-14 thr-6'),
    circuit('215', 'sensor 5 V', 'sensor-supply', 'orange/white', 'B1-15 map-1 chg-1 fpt-1', { currentA: 0.03 }),
    circuit('216', 'sensor ground', 'sensor-ground', 'black/yellow', 'B1-16 map-2 fpt-2 air-2'),
    circuit('217', 'manifold pressure signal', 'signal', 'yellow', 'B1-17 map-3'),
    circuit('218', 'charge pressure signal', 'signal', 'yellow/blue', 'B1-18 chg-3'),
    circuit('219', 'fuel pressure signal', 'signal', 'grey', 'B1-19 fpt-3'),
    circuit('220', 'fuel temperature signal', 'signal', 'grey/red', 'B1-20 fpt-4'),
    circuit('221', 'air temperature signal', 'signal', 'pink', 'B1-21 air-1'),
    circuit('222', 'knock +', 'signal', 'white', 'B1-22 knk-1', { twist: { groupId: 'knock', pitchMm: 25 } }),
    circuit('223', 'knock −', 'signal', 'white/black', 'B1-23 knk-2', { twist: { groupId: 'knock', pitchMm: 25 } }),
    circuit('224', 'bypass valve supply', 'supply', 'red/yellow', 'B1-24 byp-1', { currentA: 1.5 }),
    circuit('225', 'bypass valve switch', 'output', 'brown', 'B1-25 byp-2', { currentA: 1.5 }),
    circuit('226', 'compressor clutch supply', 'supply', 'red/black', 'B1-26 clu-1', {
      currentA: 2,
      sizePin: { size: '20', reason: '2 A over 1 m' },
    }),
    circuit('227', 'compressor clutch switch', 'output', 'brown/white', 'B1-27 clu-2', {
      currentA: 2,
      sizePin: { size: '20', reason: '2 A over 1 m' },
    }),
    circuit('228', 'plenum ground', 'power-ground', 'black', 'gnd-1 B1-28'),
    circuit('229', 'rail drain', 'power-ground', 'black/green', 'gnd-2 B1-29'),
    circuit('230', 'loom present link', 'data', 'white/green', 'B1-36 B1-37'),
  ]);

function makeInlet(): Job {
  const job = createJob('Skerry 12', 'Penhallow Hillclimb', 'larkhollow', createDemoStart());
  for (const anchor of Object.values(job.anchors)) Object.assign(anchor, { state: 'fixed', by: 'Jun Okafor' });
  job.notes = 'Inlet loom: lifts off with the plenum. Anchors frozen at the first visit; knock leg still to be measured.';
  job.looms = {
    inlet: {
      name: 'inlet',
      prefix: 'N',
      nodes: listInletNodes(),
      segments: listInletSegments(),
      ends: listInletEnds(),
      circuits: listInletCircuits(),
      clampedBy: 'Jun Okafor',
      splicePins: { 'c215@bk2': { segmentId: 't3', offsetMm: 187, reason: 'kept where the old loom had it' } },
      bundling: null,
      dressing: null,
      laidUp: {},
      layerPins: {},
      board: createBoardSpread(),
      hasReusedWire: false,
    },
  };
  for (const [endId, templateId] of Object.entries(INLET_TEMPLATES))
    job.devices[endId] = createDevice(ENDS[endId]!, 'inlet', { templateId, decidedBy: 'Imke Dorsey', at: { loomId: 'inlet', endId } });
  return job;
}

const INLET_TEMPLATES: Record<string, string> = {
  inj1: 'injector',
  inj2: 'injector',
  inj3: 'injector',
  inj4: 'injector',
  inj5: 'injector',
  inj6: 'injector',
  thr: 'throttle',
  map: 'press-manifold',
  chg: 'press-charge',
  fpt: 'press-temp',
  byp: 'valve-bypass',
  clu: 'clutch-magnet',
  knk: 'knock',
  air: 'temp-air',
};

const ENDS: Record<string, string> = {
  inj1: 'injector 1',
  inj2: 'injector 2',
  inj3: 'injector 3',
  inj4: 'injector 4',
  inj5: 'injector 5',
  inj6: 'injector 6',
  thr: 'throttle',
  map: 'manifold pressure',
  chg: 'charge pressure',
  fpt: 'fuel pressure and temp',
  byp: 'bypass valve',
  clu: 'compressor clutch',
  knk: 'knock sensor',
  air: 'air temp',
  gnd: 'plenum ground stud',
};

function legs(nodeId: string, ends: Record<string, [number, Partial<Segment>?]>): Record<string, Segment> {
  return Object.fromEntries(
    Object.entries(ends).map(([id, [lengthMm, rest]]) => [
      `s-${id}`,
      createSegment(nodeId, `n-${id}`, lengthMm, { zoneId: 'engine', ...rest }),
    ]),
  );
}
