import { createDemoStart, CATALOGUE, createLookup } from '../../catalogue';
import { createFenRanger, createSkerry } from '../../demo';
import { checkJob, createCircuit, createDevice, createJob, createLoom, editDocument, type Job } from '../../model';
import { plan } from '../../plan';
import {
  addDevice,
  addFamily,
  addLoom,
  addLoomEnd,
  addMode,
  addNode,
  addOpenItem,
  addProving,
  addTask,
  addPart,
  addZone,
  agreeScope,
  answerOpenItem,
  clampDatum,
  createLoomId,
  importDonor,
  importLoom,
  decideDevice,
  decideDonorWire,
  departFromHouse,
  keepCircuit,
  keepTemplate,
  leaveAt,
  mateEnds,
  moveNode,
  putDevice,
  removeCircuit,
  removeLoomEnd,
  removeMode,
  removePart,
  removeZone,
  renameEnd,
  renameMode,
  setBrief,
  chooseLook,
  recolour,
  setBeside,
  setClips,
  setDrill,
  setBoot,
  setCovering,
  setDressing,
  setTransition,
  setEngine,
  setDevice,
  setDonorWire,
  setDuty,
  setEnd,
  setFamily,
  setFitted,
  setHole,
  setLoadCurrent,
  setMethod,
  setOpenItem,
  setFirstStart,
  setReusedWire,
  setProving,
  setTask,
  setPinNeed,
  setRating,
  setReading,
  setRun,
  setRunZone,
  setSecondReading,
  setSlideOn,
  setSource,
  setStatus,
  setStud,
  setZone,
  strikeDevice,
  strikeOpenItem,
  strikeProving,
  strikeTask,
  takeDeviceOff,
  takeMateApart,
  takeNodeOut,
  takeWaiverBack,
  waiveFinding,
  workTo,
  type Command,
} from './index';

const lookup = createLookup(CATALOGUE);
const skerry = createSkerry();
const planned = plan(skerry, CATALOGUE);
const { tree } = planned.looms.find(({ loomId }) => loomId === 'inlet')!;
const run = { loomId: 'inlet', segmentId: 's-inj1', name: 'injector 1' };
const node = (nodeId: string) => ({ loomId: 'inlet', nodeId, name: nodeId, tree });
const end = { loomId: 'inlet', endId: 'map', name: 'manifold pressure' };
const stud = { loomId: 'engine', endId: 'm-engine-ground-stud', cavity: '1' };
const fuse = planned.power.protections.find(({ kind }) => kind === 'fuse')!;

/** The job after a command; what the gate finds wrong in it is thrown. */
function take(job: Job, command: Command): Job {
  const { next } = editDocument(job, command.apply);
  const checked = checkJob(next, lookup);
  if (!checked.ok) throw new Error(checked.problems.map(({ path, message }) => `${path}: ${message}`).join('\n'));
  return next;
}

const patchOf = (job: Job, command: Command) => editDocument(job, command.apply).patch;

test.each<[string, Command]>([
  ['vehicle', setBrief('vehicle', 'hillclimb car')],
  ['promised on 2027-02-01', setBrief('promisedOn', '2027-02-01')],
  ['no day promised', setBrief('promisedOn', null)],
  ['work to the plain one', workTo('plain', 'the plain one')],
  ['agree the scope', agreeScope('2026-11-26', 'Imke Dorsey')],
  ['slack: departs', departFromHouse('slack', 'slack', { side: 1, reason: 'tight bay' })],
  ['open item: which fuse?', addOpenItem('which fuse?', 'question', 'Jun Okafor')],
  ['due', setOpenItem('q1', 'due', '2027-01-01')],
  ['strike an open item off', strikeOpenItem('q1')],
  ['task: weld a stud', addTask('fabricate', 'weld a stud', 20)],
  ['what waits for a task', setTask('t1', 'before', 'route')],
  ['strike a task off', strikeTask('t1')],
  ['to be proved: list loaded', addProving('coding', 'list loaded')],
  ['when it can be proved', setProving('p4', 'when', 'in the rain')],
  ['strike off what is to be proved', strikeProving('p1')],
  ['first start on a stand', setFirstStart('stand')],
  ['wire in use before in inlet loom', setReusedWire('inlet', 'inlet loom', true)],
  ['add a zone', addZone()],
  ['wet of zone hot', setZone('hot', 'hot', 'wet', 'wet', true)],
  ['take a mate apart', takeMateApart('firewall')],
  ['accept BU1', waiveFinding({ key: 'BU1-x', code: 'BU1' }, 'as it was', 'Imke Dorsey')],
  ['take an acceptance back', takeWaiverBack('BU1-x')],
  ['add lamp', addDevice('d-new', { name: 'lamp', system: 'lights', templateId: null, decidedBy: 'Imke Dorsey' })],
  ['zone of injector', setDevice('inj1', 'injector', 'zoneId', 'hot')],
  ['take injector off its end', takeDeviceOff('inj1', 'injector')],
  ['strike injector off', strikeDevice('inj1', 'injector')],
  ['new template box', keepTemplate(null, { ...CATALOGUE.devices.relay!, name: 'box' })],
  ['remove circuit 230', removeCircuit('inlet', 'c230', '230')],
  ['volts of pin', setPinNeed({ loomId: 'inlet', endId: 'map', cavity: '1' }, 'volts of pin', { volts: 5 })],
  ['injector 1 150 mm', setReading(run, 150)],
  ['second reading of injector 1', setSecondReading(run, 152)],
  ['method of injector 1', setMethod(run, 'rope')],
  ['zone of injector 1', setRunZone(run, null)],
  ['when the sleeve of injector 1 goes on', setSlideOn(run, 'after-ends')],
  ['other colours for 1 circuit', recolour('inlet', new Map([['c216', { base: 'pink', stripe: 'red', bands: [] }]]))],
  [
    'signal in pink/red: as the old loom',
    chooseLook('inlet', 'c216', 'signal', { base: 'pink', stripe: 'red', bands: [] }, 'as the old loom'),
  ],
  ['clips of injector 1 at 40, 90', setClips(run, [40, 90])],
  ['clips of injector 1 at no place', setClips(run, [])],
  ['let the clips of injector 1 be computed', setClips(run, null)],
  ['hole is to be made', setDrill({ loomId: 'inlet', nodeId: 'hole', name: 'hole' }, { roomMm: 300, behindMm: null })],
  ['hole is there', setDrill({ loomId: 'inlet', nodeId: 'hole', name: 'hole' }, null)],
  ['hole is the hole of another loom', setBeside({ loomId: 'inlet', nodeId: 'hole', name: 'hole' }, { loomId: 'chassis', nodeId: 'x' })],
  ['hole is a hole of its own', setBeside({ loomId: 'inlet', nodeId: 'hole', name: 'hole' }, null)],
  ['boots on ends, transitions on breakouts', setDressing('inlet', 'boots')],
  ['ends and breakouts as the shop finishes them', setDressing('inlet', null)],
  ['boot-16 over injector 1', setBoot({ ...run, endId: 'inj1', name: 'injector 1' }, { itemId: 'boot-16', reason: 'x' })],
  ['what closes injector 1, computed', setBoot({ ...run, endId: 'inj1', name: 'injector 1' }, null)],
  ['nothing over datum', setTransition({ loomId: 'inlet', nodeId: 'datum', name: 'datum' }, { itemId: null, reason: 'x' })],
  ['let the covering of injector 1 be computed', setCovering(run, null)],
  ['braid on injector 1', setCovering(run, { kind: 'braid', itemId: null, reason: 'opens' })],
  ['move bk2 by 13 mm', moveNode(node('bk2'), 12.6)],
  ['take out bk1', takeNodeOut({ ...node('hole'), name: 'bk1' })],
  ['add hole lid', addNode({ loomId: 'inlet', tree }, { segmentId: 't3', offsetMm: 50 }, { kind: 'pass', name: 'lid', holeMm: 20 })],
  ['map leaves at bk3', leaveAt({ ...node('bk3') }, 's-map', 'map')],
  ['take the datum clamp off', clampDatum('inlet', null)],
  ['bore of hole', setHole({ loomId: 'inlet', nodeId: 'hole', name: 'hole' }, 900)],
  [
    'add spare',
    addLoomEnd(
      'inlet',
      'spare',
      { nodeId: 'bk1', legMm: 80 },
      { kind: 'connector', familyId: 'pellow-2', studMm: null, tongueMm: null },
      { method: 'tape', status: 'roped', zoneId: null },
    ),
  ],
  ['remove manifold pressure', removeLoomEnd(end, tree)],
  ['key of manifold pressure', setEnd(end, 'key', 'black')],
  ['add loom rear', addLoom(createLoomId(skerry.looms), 'rear', 'R')],
  ['add family mine', addFamily('mine', { ...CATALOGUE.families['pellow-2']!, name: 'mine' })],
  ['add a mode', addMode()],
  ['generator current', setSource('continuousA', 80)],
  ['chassis at stud', setStud(stud, 'stud', 'none')],
  ['engine off in idle', setEngine('idle', 'idle', 'off')],
  [`${fuse.name} 10 A`, setRating(fuse, { ratingA: 10, reason: 'in the drawer' })],
  [`let ${fuse.name} be computed`, setRating(fuse, null)],
])('%s: is called so, and the job is still a job', (label, command) => {
  expect(command.label).toBe(label);
  take(skerry, command);
});

describe('what goes along', () => {
  test('a mode goes with the shares of the time in it', () => {
    const id = Object.keys(skerry.modes)[0]!;
    const device = Object.keys(skerry.devices)[0]!;
    const on = take(skerry, setDuty(device, id, { load: 'x', mode: 'y' }, 0.5));
    expect(on.devices[device]!.duty[id]).toBe(0.5);
    const off = take(on, removeMode(id, 'y'));
    expect([off.modes[id], off.devices[device]!.duty[id]]).toEqual([undefined, undefined]);
    expect(take(on, setDuty(device, id, { load: 'x', mode: 'y' }, null)).devices[device]!.duty).not.toHaveProperty(id);
  });
  test('what goes into a switched load comes out of it', () => {
    const place = { loomId: 'inlet', endId: 'byp', cavity: '1' };
    const { pins } = take(skerry, setLoadCurrent(place, 'bypass', 2.5)).looms.inlet!.ends.byp!;
    expect([pins['1']!.currentA, pins['2']!.currentA]).toEqual([2.5, 2.5]);
  });
  test('a device that comes later has something made for it; any other decision forgets that', () => {
    const later = take(skerry, decideDevice('inj1', 'injector', 'later', 'Jun Okafor'));
    expect(later.devices.inj1).toMatchObject({ decision: 'later', decidedBy: 'Jun Okafor', unknownPolicy: 'connector' });
    expect(take(later, decideDevice('inj1', 'injector', 'fit', 'Jun Okafor')).devices.inj1!.unknownPolicy).toBeNull();
  });
  test('an answer is a guess until somebody says how it is known; none opens it again', () => {
    const open = take(skerry, setOpenItem('q1', 'evidence', null));
    const answered = take(open, answerOpenItem('q1', 'yes', 'Jun Okafor'));
    expect(answered.openItems.q1).toMatchObject({ answer: 'yes', evidence: 'guessed', answeredBy: 'Jun Okafor' });
    expect(take(answered, answerOpenItem('q1', '', 'x')).openItems.q1).toMatchObject({ answer: null, evidence: null, answeredBy: '' });
  });
  test('a zone in which something lies stays', () => {
    expect(() => take(skerry, removeZone('hot', 'hot'))).toThrow('expected a zone in which nothing lies, got hot');
    const added = take(skerry, addZone());
    const id = Object.keys(added.zones).find((one) => !Object.hasOwn(skerry.zones, one))!;
    expect(take(added, removeZone(id, 'new zone')).zones).toEqual(skerry.zones);
  });
  test('a new length of a donor wire means something only where its length changes', () => {
    const fen = createFenRanger();
    const at = { donorId: 'old', wireId: 'w3', number: '3' };
    expect(fen.donors.old!.wires.w3!.newLengthMm).toBe(420);
    for (const decision of ['extend', 'repurpose'] as const)
      expect(take(fen, decideDonorWire(at, decision)).donors.old!.wires.w3!.newLengthMm).toBe(420);
    for (const decision of ['keep', 'remove', null] as const)
      expect(take(fen, decideDonorWire(at, decision)).donors.old!.wires.w3!.newLengthMm).toBeNull();
    const renamed = take(take(fen, decideDonorWire(at, 'repurpose')), setDonorWire(at, 'newName', 'P-7'));
    expect(renamed.donors.old!.wires.w3!.newName).toBe('P-7');
    expect(take(renamed, decideDonorWire(at, 'keep')).donors.old!.wires.w3!.newName).toBe('');
    expect(take(fen, setDonorWire(at, 'note', 'brittle')).donors.old!.wires.w3!.note).toBe('brittle');
  });
  test('circuits in one cable are in the same kind of cable', () => {
    const [one, other] = ['c222', 'c223'] as const;
    const cable = { groupId: 'g', itemId: CATALOGUE.cables[0]!.id };
    const { circuits } = skerry.looms.inlet!;
    const first = take(skerry, keepCircuit('inlet', one, { ...circuits[one]!, twist: null, cable }));
    const both = take(first, keepCircuit('inlet', other, { ...circuits[other]!, twist: null, cable }));
    const itemId = CATALOGUE.cables[1]!.id;
    const changed = take(both, keepCircuit('inlet', one, { ...both.looms.inlet!.circuits[one]!, cable: { ...cable, itemId } }));
    expect(changed.looms.inlet!.circuits[other]!.cable!.itemId).toBe(itemId);
  });
  test('the end of a leg and its node have one name; a family that goes takes its key along', () => {
    const { ends, nodes } = take(skerry, renameEnd(end, 'pressure')).looms.inlet!;
    expect([ends.map!.name, nodes[ends.map!.nodeId]!.name]).toEqual(['pressure', 'pressure']);
    const anchor = take(skerry, renameEnd({ ...end, endId: 'B1' }, 'B one')).looms.inlet!;
    expect([anchor.ends.B1!.name, anchor.nodes.datum!.name]).toEqual(['B one', 'firewall bulkhead']);
    const bare = { ...skerry, looms: { ...skerry.looms, inlet: { ...skerry.looms.inlet!, circuits: {} } } };
    expect(take(bare, setFamily(end, 'tail')).looms.inlet!.ends.map).toMatchObject({ kind: 'tail', familyId: null, key: null });
    expect(take(bare, setFamily(end, null)).looms.inlet!.ends.map).toMatchObject({ kind: 'connector', familyId: null, key: null });
  });
  test('a run that was fitted keeps its reading when it is dragged; one that is not loses its second', () => {
    const read = take(skerry, setSecondReading(run, 132));
    expect(take(read, setRun(run, 140)).looms.inlet!.segments['s-inj1']).toMatchObject({ lengthMm: 140, secondLengthMm: null });
    const fitted = take(read, setFitted(run, 136));
    expect(fitted.looms.inlet!.segments['s-inj1']).toMatchObject({ fittedMm: 136, status: 'fitted' });
    expect(take(fitted, setRun(run, 140)).looms.inlet!.segments['s-inj1']).toMatchObject({ lengthMm: 130, fittedMm: 140 });
    expect(take(fitted, setFitted(run, null)).looms.inlet!.segments['s-inj1']).toMatchObject({ fittedMm: null, status: 'roped' });
    expect(take(skerry, setStatus(run, 'fitted', 130)).looms.inlet!.segments['s-inj1']).toMatchObject({ fittedMm: 130 });
  });
  test('a part is put in and taken out; mates and modes come and go by name', () => {
    const part = {
      kind: 'resistor' as const,
      ohms: 120,
      watts: 0.25,
      at: { loomId: 'inlet', endId: 'B1', cavities: ['30', '31'] },
      inside: false,
      reason: 'bus',
    };
    const put = take(skerry, addPart({ ...Object.values(skerry.parts)[0]!, ...part } as Parameters<typeof addPart>[0]));
    const id = Object.keys(put.parts).find((one) => !Object.hasOwn(skerry.parts, one))!;
    expect(take(put, removePart(id, part)).parts).toEqual(skerry.parts);
    const { firewall } = skerry.mates;
    const apart = take(skerry, takeMateApart('firewall'));
    expect(Object.values(take(apart, mateEnds(firewall!, { a: 'F1', b: 'E1' })).mates)).toContainEqual(firewall);
    const mode = Object.keys(skerry.modes)[0]!;
    expect(take(skerry, renameMode(mode, 'wet race')).modes[mode]!.name).toBe('wet race');
  });
  test('an imported loom takes the place of the empty one that a job begins with, and of no other', () => {
    const { inlet } = skerry.looms;
    expect(
      Object.keys(
        take(createJob('new', '', 'larkhollow', createDemoStart()), importLoom('in', { ...inlet!, ends: {}, circuits: {}, splicePins: {} }))
          .looms,
      ),
    ).toEqual(['in']);
    const two = take(skerry, addLoom('rear', 'rear', 'R'));
    expect(Object.keys(take(two, importLoom('in', { ...createLoom('in', 'I') })).looms)).toEqual([...Object.keys(two.looms), 'in']);
  });
  test.each<[string, Command]>([
    ['device', addDevice('d1', { name: 'lamp', system: 'lights', templateId: null, decidedBy: '' })],
    ['template', keepTemplate(null, { ...CATALOGUE.devices.relay!, name: 'box' })],
    ['loom', addLoom('loom1', 'rear', 'R')],
    ['loom from a list', importLoom('loom1', createLoom('rear', 'R'))],
    ['family', addFamily('own1', CATALOGUE.families['pellow-2']!)],
    ['donor', importDonor('donor1', { name: 'old loom', wires: {} })],
    ['circuit', keepCircuit('inlet', null, createCircuit('900', 'spare', [], { wireTable: 'etfe' }))],
    ['zone', addZone()],
    ['mode', addMode()],
    ['open item', addOpenItem('which fuse?', 'question', 'Jun Okafor')],
    ['task', addTask('yes', 'yellow legs', 5)],
    ['proof', addProving('later', 'boost')],
  ])('a second %s that was begun before the first was there takes no place of anything', (_, command) => {
    const before = patchOf(skerry, command);
    expect(before.filter(({ op }) => op !== 'add')).toEqual([]);
    const first = take(skerry, command);
    expect(patchOf(first, command).filter(({ op }) => op !== 'add')).toEqual([]);
    const { circuits } = take(first, command).looms.inlet!;
    const numbers = Object.values(circuits).map(({ number }) => number);
    expect(new Set(numbers).size).toBe(numbers.length);
  });
  test('a second device of a name is numbered', () => {
    const coil = { name: 'coil', system: 'ignition', templateId: null, decidedBy: '' };
    const names = ['a', 'b', 'c'].reduce(
      (job, id) => take(job, addDevice(id, coil)),
      createJob('new', '', 'larkhollow', createDemoStart()),
    );
    expect(Object.values(names.devices).map(({ name }) => name)).toEqual(['coil', 'coil 2', 'coil 3']);
  });
  test('a device is put on a free end and on no taken one', () => {
    const job = { ...skerry, devices: { ...skerry.devices, lamp: createDevice('lamp', 'lights') } };
    const words = { device: 'lamp', end: 'B1' };
    expect(() => take(job, putDevice('lamp', { loomId: 'inlet', endId: 'B1' }, words, CATALOGUE))).toThrow(
      'expected an end that nothing mates with, got another loom at inlet bulkhead B1',
    );
    expect(take(job, putDevice('lamp', { loomId: 'inlet', endId: 'gnd' }, words, CATALOGUE)).devices.lamp!.at).toEqual({
      loomId: 'inlet',
      endId: 'gnd',
    });
  });
});
