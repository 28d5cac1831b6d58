import { createDemoStart } from '../catalogue';
import {
  createCircuit,
  createEnd,
  createJob,
  createLoom,
  createNode,
  createSegment,
  type Circuit,
  type Job,
  type Loom,
  type Segment,
} from '../model';

/** The smallest job of use in tests: an anchor, one breakout at 300 mm, and two sensors on legs of 100 and 200 mm. */
export function createBench(change: (loom: Loom, job: Job) => void = () => undefined): Job {
  const job = createJob('Bench', 'tests', 'larkhollow', createDemoStart());
  job.anchors = {};
  const loom: Loom = createLoom('bench', 'T');
  loom.nodes = {
    datum: createNode('datum', 'datum'),
    b1: createNode('breakout', 'fork', { onwardSegmentId: 's3' }),
    n1: createNode('end', 'left'),
    n2: createNode('end', 'right'),
  };
  loom.segments = { s1: run('datum', 'b1', 300), s2: run('b1', 'n1', 100), s3: run('b1', 'n2', 200) };
  loom.ends = {
    A: createEnd('datum', 'anchor', 'hollin-13', { key: 'A' }),
    L: createEnd('n1', 'left', 'tarn-3', { key: 'grey' }),
    R: createEnd('n2', 'right', 'pellow-4', { key: 'A' }),
  };
  loom.circuits = {
    c1: join('1', 'A-1 L-1', { colour: { base: 'red', stripe: null, bands: [] } }),
    c2: join('2', 'A-2 R-1', { colour: { base: 'blue', stripe: null, bands: [] } }),
    c3: join('3', 'A-3 L-2 R-2', { colour: { base: 'black', stripe: null, bands: [] } }),
  };
  job.looms = { bench: loom };
  change(loom, job);
  return job;
}

/** A taped run. */
export function run(fromNodeId: string, toNodeId: string, lengthMm: number, rest: Partial<Segment> = {}): Segment {
  return createSegment(fromNodeId, toNodeId, lengthMm, rest);
}

/** A circuit over places such as "A-1 L-2", source first. */
export function join(number: string, places: string, rest: Partial<Circuit> = {}): Circuit {
  const terminations = places.split(' ').map((place) => {
    const [endId, cavity] = place.split('-') as [string, string];
    return { endId, cavity };
  });
  return createCircuit(number, `circuit ${number}`, terminations, { wireTable: 'etfe', ...rest });
}
