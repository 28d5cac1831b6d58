import { createDemoStart } from '../catalogue';
import {
  createCircuit,
  createDevice,
  createEnd,
  createJob,
  createLoom,
  createNode,
  createPinNeed,
  createPinOffer,
  createSegment,
  type Circuit,
  type Job,
  type Loom,
} from '../model';
import { createRandom } from '../units/createRandom';

const DEVICES = 22;
/** Wires that one sub-loom brings: three for each device, in it and on in the trunk. */
const WIRES = 2 * 3 * DEVICES;

type Whole = (least: number, most: number) => number;

/**
 * A made-up vehicle of about so many wires for measuring: a trunk with battery, main fuse and a box for each of its sub-looms, which
 * hang on it by plugs of 66 ways. Every device has a fused feed, a ground and a signal. Same seed, same vehicle.
 */
export function createRandomVehicle(seed: number, wires: number): Job {
  const random = createRandom(seed);
  const whole: Whole = (least, most) => least + Math.floor(random() * (most - least + 1));
  const job = createJob(`Vehicle ${seed}`, 'none', 'larkhollow', createDemoStart());
  job.looms = { trunk: createLoom('trunk', 'T') };
  job.deviceTemplates.box = {
    name: 'bench box',
    system: 'power',
    familyId: null,
    hazard: null,
    note: '',
    pins: { '1': createPinNeed('feed', 'supply', { volts: 12, load: 'electronics' }) },
    offers: Object.fromEntries(
      Array.from({ length: DEVICES }, (_, index) => [
        [String(2 + index), createPinOffer(`way ${index + 1}`, ['feed'], { volts: 12 })] as const,
        [String(100 + index), createPinOffer(`input ${index + 1}`, ['analogue'])] as const,
      ]).flat(),
    ),
    links: Object.fromEntries(
      Array.from({ length: DEVICES }, (_, index) => [
        `f${index + 1}`,
        {
          name: `fuse ${index + 1}`,
          kind: 'fuse' as const,
          a: { part: null, cavity: '1' },
          b: { part: null, cavity: String(2 + index) },
          maxA: 40,
          peakA: null,
          coil: null,
          closedIn: [],
        },
      ]),
    ),
  };
  const trunk = job.looms.trunk!;
  addSource(job, trunk);
  const count = Math.max(1, Math.round(wires / WIRES));
  let from = 'hub';
  for (let index = 1; index <= count; index += 1) {
    const breakout = `b${index}`;
    trunk.nodes[breakout] = createNode('breakout', `breakout ${index}`);
    trunk.segments[`t${index}`] = createSegment(from, breakout, whole(60, 140), { zoneId: 'cabin' });
    if (index % 4 === 0) from = breakout;
    addSubLoom(job, trunk, index, breakout, whole);
  }
  return job;
}

function addEnd(loom: Loom, endId: string, nodeId: string, familyId: string | null, lengthMm: number): void {
  loom.nodes[`n-${endId}`] = createNode('end', endId);
  loom.segments[`s-${endId}`] = createSegment(nodeId, `n-${endId}`, lengthMm, { zoneId: 'cabin' });
  loom.ends[endId] = createEnd(`n-${endId}`, endId, familyId);
}

function addCircuit(loom: Loom, name: string, kind: Circuit['kind'], places: readonly (readonly [string, string])[], thick = false): void {
  const number = String(Object.keys(loom.circuits).length + 1);
  const terminations = places.map(([endId, cavity]) => ({ endId, cavity }));
  loom.circuits[`c${number}`] = createCircuit(number, name, terminations, { kind, wireTable: thick ? 'thinwall' : 'etfe' });
}

function addSource(job: Job, trunk: Loom): void {
  trunk.nodes.hub = createNode('breakout', 'hub');
  trunk.segments.t0 = createSegment('datum', 'hub', 100, { zoneId: 'cabin' });
  for (const endId of ['plus', 'minus', 'fuse', 'earth']) addEnd(trunk, endId, 'hub', null, 150);
  for (const endId of ['plus', 'minus', 'earth']) trunk.ends[endId] = { ...trunk.ends[endId]!, kind: 'ring', studMm: 8 };
  trunk.ends.plus!.offers = { '1': createPinOffer('positive', ['battery-positive'], { volts: 12 }) };
  trunk.ends.minus!.offers = { '1': createPinOffer('negative', ['battery-negative']) };
  trunk.ends.earth!.offers = { '1': createPinOffer('chassis', ['chassis']) };
  trunk.ends.fuse!.pins = { '1': createPinNeed('battery side', 'supply', { volts: 12, load: 'electronics' }) };
  job.devices.fuse = createDevice('main fuse', 'power', { templateId: 'main-fuse', at: { loomId: 'trunk', endId: 'fuse' } });
  addCircuit(
    trunk,
    'battery',
    'supply',
    [
      ['plus', '1'],
      ['fuse', '1'],
    ],
    true,
  );
  addCircuit(
    trunk,
    'earth',
    'power-ground',
    [
      ['minus', '1'],
      ['earth', '1'],
    ],
    true,
  );
  addCircuit(trunk, 'boxes', 'supply', [['fuse', '2']], true);
}

function addSubLoom(job: Job, trunk: Loom, index: number, breakout: string, whole: Whole): void {
  const loomId = `sub${index}`;
  const sub = createLoom(`sub-loom ${index}`, 'S'.repeat(1 + Math.floor(index / 26)) + String.fromCharCode(65 + (index % 26)));
  job.looms[loomId] = sub;
  sub.ends.plug = createEnd('datum', 'plug', 'hollin-66', { key: 'A' });
  const [plug, box, stud] = [`plug${index}`, `box${index}`, `stud${index}`];
  addEnd(trunk, plug, breakout, 'hollin-66', whole(80, 200));
  trunk.ends[plug]!.key = 'A';
  addEnd(trunk, box, breakout, null, whole(80, 160));
  addEnd(trunk, stud, breakout, null, whole(60, 120));
  trunk.ends[stud] = { ...trunk.ends[stud]!, kind: 'ring', studMm: 8, offers: { '1': createPinOffer('chassis', ['chassis']) } };
  trunk.ends[box]!.pins = structuredClone(job.deviceTemplates.box!.pins);
  trunk.ends[box]!.offers = structuredClone(job.deviceTemplates.box!.offers);
  job.devices[box] = createDevice(box, 'power', { templateId: 'box', at: { loomId: 'trunk', endId: box } });
  trunk.circuits.c3!.terminations.push({ endId: box, cavity: '1' });
  job.mates[loomId] = { a: { loomId: 'trunk', endId: plug }, b: { loomId, endId: 'plug' } };
  for (let branch = 1; branch <= 4; branch += 1) {
    sub.nodes[`b${branch}`] = createNode('breakout', `breakout ${branch}`);
    sub.segments[`t${branch}`] = createSegment(branch === 1 ? 'datum' : `b${branch - 1}`, `b${branch}`, whole(80, 300), {
      zoneId: 'engine',
    });
  }
  for (let at = 0; at < DEVICES; at += 1) {
    const endId = `d${at + 1}`;
    addEnd(sub, endId, `b${whole(1, 4)}`, 'tarn-3', whole(60, 400));
    const currentA = whole(2, 30) / 10;
    sub.ends[endId]!.pins = {
      '1': createPinNeed('supply', 'supply', { volts: 12, currentA, load: 'motor' }),
      '2': createPinNeed('ground', 'power-ground'),
      '3': createPinNeed('signal', 'signal', { wants: 'analogue' }),
    };
    (['supply', 'power-ground', 'signal'] as const).forEach((kind, pin) => {
      const cavity = String(3 * at + pin + 1);
      const source = kind === 'supply' ? [box, String(2 + at)] : kind === 'signal' ? [box, String(100 + at)] : [stud, String(at + 1)];
      addCircuit(trunk, `${kind} ${index}.${at + 1}`, kind, [source as [string, string], [plug, cavity]]);
      addCircuit(sub, `${kind} ${at + 1}`, kind, [
        ['plug', cavity],
        [endId, String(pin + 1)],
      ]);
    });
  }
}
