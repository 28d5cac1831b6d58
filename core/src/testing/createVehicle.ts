import { createDemoStart, CATALOGUE } from '../catalogue';
import { placeDevice } from '../edit';
import {
  createCircuit,
  createDevice,
  createEnd,
  createJob,
  createNode,
  createSegment,
  type Circuit,
  type Device,
  type Job,
} from '../model';

const PLACES: [endId: string, templateId: string, lengthMm: number, rest?: Partial<Device>][] = [
  ['plus', 'battery-positive', 200],
  ['minus', 'battery-negative', 200],
  ['main', 'main-fuse', 300],
  ['box', 'fuse-box', 500],
  ['lamp', 'lamp-rain', 1500],
  ['pump', 'pump-coolant', 1000, { duty: { idle: 0.25 } }],
  ['stud', 'ground-stud', 400],
];
const STUDS = ['plus', 'minus', 'stud'];
const CIRCUITS: [string, Circuit['kind'], string][] = [
  ['battery to main fuse', 'supply', 'plus:1 main:1'],
  ['main fuse to box', 'supply', 'main:2 box:1'],
  ['lamp feed', 'supply', 'box:2 lamp:1'],
  ['pump feed', 'supply', 'box:3 pump:1'],
  ['lamp ground', 'power-ground', 'stud:1 lamp:2'],
  ['pump ground', 'power-ground', 'stud:2 pump:2'],
  ['battery ground', 'power-ground', 'minus:1 stud:3'],
];

/** The least vehicle that has everything of a power tree: battery, main fuse, fuse box, a lamp and a pump on a star of runs, a stud. */
export function createVehicle(change: (job: Job) => void = () => undefined): Job {
  const job = createJob('vehicle', '', 'larkhollow', createDemoStart());
  for (const anchor of Object.values(job.anchors)) Object.assign(anchor, { state: 'fixed', by: 'x' });
  const loom = job.looms.main!;
  loom.nodes.hub = createNode('breakout', 'hub');
  loom.segments.trunk = createSegment('datum', 'hub', 100, { zoneId: 'cabin' });
  for (const [endId, templateId, lengthMm, rest] of PLACES) {
    loom.nodes[`n-${endId}`] = createNode('end', endId);
    loom.segments[`s-${endId}`] = createSegment('hub', `n-${endId}`, lengthMm, { zoneId: 'cabin' });
    loom.ends[endId] = createEnd(`n-${endId}`, endId, null);
    job.devices[endId] = createDevice(endId, 'x', { templateId, zoneId: 'cabin', ...rest });
    placeDevice(job, CATALOGUE, endId, 'main', endId);
    if (STUDS.includes(endId)) loom.ends[endId] = { ...loom.ends[endId]!, kind: 'ring', studMm: 8 };
  }
  CIRCUITS.forEach(([name, kind, places], index) => {
    const terminations = places.split(' ').map((place) => {
      const [endId, cavity] = place.split(':') as [string, string];
      return { endId, cavity };
    });
    loom.circuits[`c${index + 1}`] = createCircuit(String(index + 1), name, terminations, { kind, wireTable: 'etfe' });
  });
  change(job);
  return job;
}
