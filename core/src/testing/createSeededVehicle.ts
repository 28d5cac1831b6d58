import { createDemoStart, CATALOGUE } from '../catalogue';
import { createRandom } from '../units/createRandom';
import { placeDevice } from '../edit';
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
  type Device,
  type End,
  type Job,
  type Loom,
} from '../model';

/**
 * A small vehicle of every way of returning: battery, main fuse, kill switch, fuse box, relay, a controller with drivers and two grounds, a
 * starter on the engine, loads grounded by wire, by case on the chassis and by case on the engine, feeds and grounds shared by splices, and a
 * mated sub-loom. Radial: every current has one way. Same seed, same vehicle.
 */
export function createSeededVehicle(seed: number): Job {
  const random = createRandom(seed);
  const whole = (least: number, most: number) => least + Math.floor(random() * (most - least + 1));
  const chance = (share: number) => random() < share;
  const job = createJob(`seeded ${seed}`, '', 'larkhollow', createDemoStart());
  job.source = { volts: 12.5, milliohm: whole(4, 12), chassisMilliohm: whole(0, 3), continuousA: null, capacityAh: null, isolator: null };
  const main = job.looms.main!;
  main.nodes.hub = createNode('breakout', 'hub');
  main.segments.t0 = createSegment('datum', 'hub', whole(50, 300), { zoneId: 'cabin' });
  main.nodes.far = createNode('breakout', 'far hub');
  main.segments.t1 = createSegment('hub', 'far', whole(150, 500), { zoneId: 'cabin' });
  const place = (
    loom: Loom,
    loomId: string,
    endId: string,
    templateId: string | null,
    rest: Partial<Device> = {},
    end: Partial<End> = {},
  ) => {
    const at = loomId === 'main' ? (chance(0.5) ? 'hub' : 'far') : 'fork';
    loom.nodes[`n-${endId}`] = createNode('end', endId);
    loom.segments[`s-${endId}`] = createSegment(at, `n-${endId}`, whole(80, 500), { zoneId: 'cabin' });
    loom.ends[endId] = createEnd(`n-${endId}`, endId, null);
    if (templateId !== null) {
      job.devices[endId] = createDevice(endId, 'x', { templateId, zoneId: 'cabin', ...rest });
      placeDevice(job, CATALOGUE, endId, loomId, endId);
    }
    loom.ends[endId] = { ...loom.ends[endId]!, ...end };
  };
  const stud = { kind: 'ring', familyId: null, studMm: 8 } as const;
  for (const [endId, templateId] of [
    ['plus', 'battery-positive'],
    ['minus', 'battery-negative'],
    ['tie', 'ground-stud'],
    ['earth', 'ground-stud'],
    ['block', 'engine-block'],
  ] as const)
    place(main, 'main', endId, templateId, {}, stud);
  main.ends.earth!.offers['1']!.chassisMilliohm = chance(0.5) ? null : whole(0, 5);
  place(main, 'main', 'fuse', 'main-fuse');
  place(main, 'main', 'kill', 'kill');
  // of studs and tails: what its plug would take limits no size
  job.deviceTemplates.box = { ...structuredClone(CATALOGUE.devices['fuse-box']!), familyId: null };
  place(main, 'main', 'box', 'box');
  place(main, 'main', 'starter', 'starter', { duty: { crank: 0.1 } });
  main.ends.starter!.pins['1']!.currentA = whole(60, 140);
  job.deviceTemplates.relay = { ...structuredClone(CATALOGUE.devices.relay!), familyId: null };
  place(main, 'main', 'relay', 'relay');
  place(
    main,
    'main',
    'ecu',
    null,
    {},
    {
      pins: {
        '1': createPinNeed('supply', 'supply', { volts: 12, currentA: whole(5, 15) / 10, load: 'electronics' }),
        '2': createPinNeed('ground 1', 'power-ground'),
        '3': createPinNeed('ground 2', 'power-ground'),
      },
      offers: Object.fromEntries(['4', '5', '6', '7'].map((pin) => [pin, createPinOffer(`driver ${pin}`, ['low-side'], { limitA: 10 })])),
    },
  );
  let count = 0;
  const join = (loom: Loom, name: string, kind: Circuit['kind'], places: string, rest: Partial<Circuit> = {}) => {
    count += 1;
    const terminations = places.split(' ').map((one) => {
      const [endId, cavity] = one.split(':') as [string, string];
      return { endId, cavity };
    });
    loom.circuits[`c${count}`] = createCircuit(String(count), name, terminations, { kind, wireTable: 'etfe', ...rest });
  };
  joinMain(main, { chance, join });
  addLoads(job, main, { whole, chance, place, join });
  addSubLoom(job, main, { whole, chance, place, join });
  for (const id of Object.keys(job.devices))
    if (id.startsWith('load')) job.devices[id]!.duty = { idle: whole(0, 10) / 10, wet: chance(0.3) ? 0 : 1, crank: chance(0.5) ? 0 : 1 };
  return job;
}

interface Tools {
  whole: (least: number, most: number) => number;
  chance: (share: number) => boolean;
  place: (loom: Loom, loomId: string, endId: string, templateId: string | null, rest?: Partial<Device>, end?: Partial<End>) => void;
  join: (loom: Loom, name: string, kind: Circuit['kind'], places: string, rest?: Partial<Circuit>) => void;
}

/** Battery, kill switch, boxes, starter, strap, controller and relay. */
function joinMain(main: Loom, { chance, join }: Pick<Tools, 'chance' | 'join'>): void {
  const heavy = { wireTable: 'thinwall' } as const;
  join(main, 'battery', 'supply', 'plus:1 fuse:1', heavy);
  join(main, 'fused', 'supply', 'fuse:2 kill:1', heavy);
  join(main, 'boxes', 'supply', 'kill:2 box:1', heavy);
  join(main, 'starter', 'supply', 'plus:2 starter:1', heavy);
  join(main, 'negative', 'power-ground', 'minus:1 tie:1', heavy);
  join(main, 'strap', 'power-ground', chance(0.5) ? 'tie:2 block:1' : 'earth:2 block:1', heavy);
  join(main, 'ecu feed', 'supply', 'box:2 ecu:1');
  join(main, 'ecu ground 1', 'power-ground', 'earth:3 ecu:2');
  join(main, 'ecu ground 2', 'power-ground', 'tie:3 ecu:3');
  join(main, 'relay feed', 'supply', 'box:3 relay:1 relay:3');
  join(main, 'relay coil', 'output', 'ecu:4 relay:2');
}

/** Loads on the fuse box and the relay, each with one of the ways home. */
function addLoads(job: Job, main: Loom, { whole, chance, place, join }: Tools): void {
  const supply = (returnBy: 'pin' | 'engine-case' | 'chassis-case', rest = {}) =>
    createPinNeed('supply', 'supply', { volts: 12, currentA: whole(2, 90) / 10, load: 'motor', returnBy, ...rest });
  const tail = (pins: End['pins']) => ({ pins });
  const cycled = { cycleS: chance(0.5) ? 2 : null };
  place(
    main,
    'main',
    'load1',
    null,
    {},
    tail({ '1': supply('pin', { inrushA: 30, inrushMs: 100 }), '2': createPinNeed('ground', 'power-ground') }),
  );
  place(main, 'main', 'load2', null, {}, tail({ '1': supply('pin', cycled), '2': createPinNeed('ground', 'power-ground') }));
  place(main, 'main', 'load3', null, {}, tail({ '1': supply('chassis-case') }));
  place(main, 'main', 'load4', null, {}, tail({ '1': supply('engine-case', cycled) }));
  const drawn = whole(5, 30) / 10;
  for (const id of ['load5', 'load6'])
    place(
      main,
      'main',
      id,
      null,
      {},
      tail({ '1': supply('pin', { currentA: drawn }), '2': createPinNeed('switch', 'output', { currentA: drawn, wants: 'low-side' }) }),
    );
  for (const id of ['load1', 'load2', 'load3', 'load4', 'load5', 'load6'])
    job.devices[id] = createDevice(id, 'x', { at: { loomId: 'main', endId: id }, zoneId: 'cabin' });
  join(main, 'load 1', 'supply', 'box:4 load1:1');
  join(main, 'loads 2 and 3', 'supply', 'relay:4 load2:1 load3:1');
  join(main, 'load 4', 'supply', 'box:5 load4:1');
  join(main, 'loads 5 and 6', 'supply', 'box:6 load5:1 load6:1');
  join(main, 'driver 5', 'output', 'ecu:5 load5:2');
  join(main, 'driver 6', 'output', 'ecu:6 load6:2');
  join(main, 'shared ground', 'power-ground', `${chance(0.5) ? 'earth:4' : 'tie:4'} load1:2 load2:2`);
}

/** A loom behind a plug with two loads whose ground is one wire through it. */
function addSubLoom(job: Job, main: Loom, { whole, place, join }: Tools): void {
  const sub = createLoom('sub', 'S');
  job.looms.sub = sub;
  sub.nodes.fork = createNode('breakout', 'fork');
  sub.segments.s0 = createSegment('datum', 'fork', whole(80, 500), { zoneId: 'cabin' });
  sub.ends.plug = createEnd('datum', 'plug', 'hollin-6', { key: 'A' });
  place(main, 'main', 'socket', null, {}, { kind: 'connector', familyId: 'hollin-6', key: 'A' });
  job.mates.sub = { a: { loomId: 'main', endId: 'socket' }, b: { loomId: 'sub', endId: 'plug' } };
  for (const id of ['load7', 'load8']) {
    place(
      sub,
      'sub',
      id,
      null,
      {},
      {
        pins: {
          '1': createPinNeed('supply', 'supply', { volts: 12, currentA: whole(2, 20) / 10, load: 'lamp' }),
          '2': createPinNeed('ground', 'power-ground'),
        },
      },
    );
    job.devices[id] = createDevice(id, 'x', { at: { loomId: 'sub', endId: id }, zoneId: 'cabin' });
  }
  join(main, 'sub feed', 'supply', 'box:7 socket:1');
  join(main, 'sub ground', 'power-ground', 'earth:5 socket:2');
  join(sub, 'feed', 'supply', 'plug:1 load7:1 load8:1');
  join(sub, 'ground', 'power-ground', 'plug:2 load7:2 load8:2');
}
