import { createDemoStart } from '../catalogue';
import {
  COLOUR_NAMES,
  createCircuit,
  createEnd,
  createJob,
  createLoom,
  createNode,
  createSegment,
  type Circuit,
  type Job,
  type Loom,
} from '../model';
import { createRandom } from '../units/createRandom';

const FAMILIES = [
  ['tarn-2', 2],
  ['tarn-3', 3],
  ['tarn-4', 4],
  ['pellow-6', 6],
  ['pellow-8', 8],
  ['pellow-12', 12],
] as const;
const ANCHOR = 'hollin-66';

/**
 * A made-up job with about so many wires in one loom, for measuring and for tests of properties. Same seed, same job.
 * One anchor of 66 ways for every 50 wires; one breakout for about eight wires.
 */
export function createRandomJob(seed: number, wires: number): Job {
  const random = createRandom(seed);
  const whole = (least: number, most: number) => least + Math.floor(random() * (most - least + 1));
  const job = createJob(`Random ${seed}`, 'none', 'larkhollow', createDemoStart());
  const loom = createLoom('random', 'R');
  job.looms = { random: loom };
  const breakouts = createTrunks(loom, Math.max(2, Math.round(wires / 8)), whole);
  const anchors = createAnchors(loom, Math.ceil(wires / 50), whole);
  let serial = 0;
  let made = 0;
  while (made < wires) {
    const [familyId, ways] = FAMILIES[whole(0, FAMILIES.length - 1)]!;
    const endId = `e${(serial += 1)}`;
    addEnd(loom, endId, breakouts[whole(0, breakouts.length - 1)]!, familyId, whole(60, 400));
    for (let cavity = 1; cavity <= ways && made < wires; cavity += 1, made += 1)
      joinCavity(loom, endId, String(cavity), anchors, made, whole);
  }
  return job;
}

function createTrunks(loom: Loom, count: number, whole: (least: number, most: number) => number): string[] {
  const breakouts: string[] = [];
  for (let index = 0; index < count; index += 1) {
    const id = `b${index + 1}`;
    const from = index === 0 ? 'datum' : breakouts[index < 4 ? index - 1 : whole(Math.floor(index / 2), Math.floor(index * 0.75))]!;
    loom.nodes[id] = createNode('breakout', `breakout ${index + 1}`);
    loom.segments[`t${index + 1}`] = createSegment(from, id, whole(80, 300), { zoneId: ['engine', 'cabin', 'wet', 'flex'][index % 4]! });
    breakouts.push(id);
  }
  return breakouts;
}

interface Anchor {
  endId: string;
  next: number;
  shared: string[];
}

function createAnchors(loom: Loom, count: number, whole: (least: number, most: number) => number): Anchor[] {
  return Array.from({ length: count }, (_, index) => {
    const endId = `A${index + 1}`;
    if (index === 0) loom.ends[endId] = createEnd('datum', 'anchor 1', ANCHOR, { key: 'A' });
    else addEnd(loom, endId, `b${Math.min(index, 3)}`, ANCHOR, whole(60, 200));
    return { endId, next: 1, shared: [] };
  });
}

function addEnd(loom: Loom, endId: string, nodeId: string, familyId: string, lengthMm: number): void {
  loom.nodes[`n-${endId}`] = createNode('end', `end ${endId}`);
  loom.segments[`s-${endId}`] = createSegment(nodeId, `n-${endId}`, lengthMm, { zoneId: 'engine' });
  loom.ends[endId] = createEnd(`n-${endId}`, `end ${endId}`, familyId);
}

/** One cavity in six shares a supply or ground of its anchor; the others have a pin of their own. */
function joinCavity(
  loom: Loom,
  endId: string,
  cavity: string,
  anchors: Anchor[],
  made: number,
  whole: (least: number, most: number) => number,
): void {
  const anchor = anchors[Math.min(anchors.length - 1, Math.floor(made / 50))]!;
  const place = { endId, cavity };
  const sharedId = anchor.shared[whole(0, 5)];
  if (sharedId !== undefined && loom.circuits[sharedId]!.terminations.length < 8 && whole(0, 1) === 0) {
    const circuit = loom.circuits[sharedId]!;
    loom.circuits[sharedId] = { ...circuit, terminations: [...circuit.terminations, place] };
    return;
  }
  const id = `c${made + 1}`;
  const kinds: Circuit['kind'][] = ['signal', 'output', 'supply', 'sensor-ground'];
  loom.circuits[id] = createCircuit(
    String(made + 1),
    `circuit ${made + 1}`,
    [{ endId: anchor.endId, cavity: String(anchor.next) }, place],
    {
      kind: kinds[made % 4]!,
      wireTable: 'etfe',
      colour: { base: COLOUR_NAMES[made % 11]!, stripe: made % 3 ? null : COLOUR_NAMES[(made + 4) % 11]!, bands: [] },
    },
  );
  anchor.next += 1;
  if (anchor.shared.length < 6 && made % 4 >= 2) anchor.shared.push(id);
}
