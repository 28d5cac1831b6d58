import {
  createEnd,
  createLoom,
  createNode,
  createSegment,
  listCavities,
  type Circuit,
  type ConnectorFamily,
  type Job,
  type Loom,
} from '../../../model';
import { countJunction, listEndsBeyond, type Tree } from '../../../plan';
import { compareIds } from '../../../units';
import { createId } from '../../createId';
import { createCommand, type Command } from '../command';

/** Where tails are gathered, and in what. */
export interface Gathering {
  loomId: string;
  tree: Tree;
  /** the breakout that they leave, and the runs by which they do */
  nodeId: string;
  segmentIds: readonly string[];
  /** from the breakout to the connector: the tails get so much shorter, mm */
  stubMm: number;
  name: string;
  /** of the loom that the tails become */
  loomName: string;
  prefix: string;
  /** housing of the half towards the datum, and of the other */
  near: { id: string; family: ConnectorFamily };
  farId: string;
  /** circuit → cavity of both halves; one that is not there takes the next that is free */
  cavityOf?: ReadonlyMap<string, string>;
}

/** Tails of a loom become one of their own, which plugs into it at one connector; every circuit that crosses takes one cavity. */
export const gatherTails = (gathering: Gathering): Command =>
  createCommand(`gather ${gathering.segmentIds.length} tails at ${gathering.name}`, (draft) => gather(draft, gathering));

/**
 * Changes the job given.
 *
 * @throws RangeError where a tail is too short for the stub, the housing has too few cavities, or nothing would be left on a side
 */
function gather(draft: Job, { loomId, tree, nodeId, segmentIds, stubMm, name, loomName, prefix, near, farId, cavityOf }: Gathering): void {
  const loom = draft.looms[loomId]!;
  const endIds = listEndsBeyond(loom, tree, segmentIds);
  const { circuitIds } = countJunction(loom, endIds, 0);
  const cavities = listCavities(near.family);
  if (endIds.size === 0) throw new RangeError('expected tails with ends, got none');
  if (circuitIds.length > cavities.length)
    throw new RangeError(`expected a housing of ${circuitIds.length} cavities or more, got ${near.family.name} with ${cavities.length}`);
  const newId = createId(draft.looms, 'loom');
  const tails: Loom = { ...createLoom(loomName, prefix), bundling: loom.bundling, dressing: loom.dressing };
  moveBranches(loom, tails, tree, nodeId, segmentIds, stubMm);
  for (const id of endIds) {
    tails.ends[id] = loom.ends[id]!;
    delete loom.ends[id];
  }
  // no id of what has moved is given again: devices, breaks and open items still name it
  const nearId = createId({ ...loom.ends, ...tails.ends }, 'e');
  const farEndId = createId({ ...loom.ends, ...tails.ends, [nearId]: null }, 'e');
  const stubNode = createId({ ...loom.nodes, ...tails.nodes }, 'n');
  loom.nodes[stubNode] = createNode('end', name);
  loom.segments[createId({ ...loom.segments, ...tails.segments }, 's')] = createSegment(nodeId, stubNode, stubMm, {
    method: 'drawing',
    status: 'boarded',
  });
  loom.ends[nearId] = createEnd(stubNode, name, near.id);
  tails.ends[farEndId] = createEnd('datum', name, farId);
  splitCircuits(loom, tails, endIds, toCavities(circuitIds, cavities, cavityOf), nearId, farEndId);
  draft.looms[newId] = tails;
  draft.mates[createId(draft.mates, 'm')] = { a: { loomId, endId: nearId }, b: { loomId: newId, endId: farEndId } };
  followEnds(draft, loomId, newId, endIds, new Set(Object.keys(tails.segments)));
}

/** A cavity for each circuit: the one that was chosen, else the next that nobody has. */
function toCavities(circuitIds: readonly string[], cavities: readonly string[], chosen: ReadonlyMap<string, string> = new Map()) {
  const taken = new Set(circuitIds.flatMap((id) => chosen.get(id) ?? []));
  const free = cavities.filter((cavity) => !taken.has(cavity));
  return new Map(circuitIds.map((id) => [id, chosen.get(id) ?? free.shift()!]));
}

/** Nodes and runs beyond a breakout, which becomes the datum of the new loom; their first runs lose what the stub takes. */
function moveBranches(loom: Loom, tails: Loom, tree: Tree, nodeId: string, segmentIds: readonly string[], stubMm: number): void {
  const open = [...segmentIds];
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    const { farNodeId } = tree.segments[id]!;
    const segment = loom.segments[id]!;
    if (segmentIds.includes(id)) {
      if (tree.segments[id]!.lengthMm <= stubMm)
        throw new RangeError(
          `expected tails longer than the stub of ${stubMm} mm, got ${Math.round(tree.segments[id]!.lengthMm)} mm to ${loom.nodes[farNodeId]!.name}`,
        );
      const less = (mm: number | null) => (mm === null ? null : Math.max(1, mm - stubMm));
      tails.segments[id] = {
        ...segment,
        ...{ fromNodeId: 'datum', toNodeId: farNodeId, leavesDeg: null },
        ...{ lengthMm: less(segment.lengthMm)!, secondLengthMm: less(segment.secondLengthMm), fittedMm: less(segment.fittedMm) },
      };
    } else tails.segments[id] = segment;
    tails.nodes[farNodeId] = loom.nodes[farNodeId]!;
    delete loom.segments[id];
    delete loom.nodes[farNodeId];
    open.push(...tree.nodes[farNodeId]!.childSegmentIds);
  }
  const near = loom.nodes[nodeId]!;
  if (near.onwardSegmentId !== null && segmentIds.includes(near.onwardSegmentId)) near.onwardSegmentId = null;
  for (const [id, pin] of Object.entries(loom.splicePins)) if (Object.hasOwn(tails.segments, pin.segmentId)) delete loom.splicePins[id];
}

/** A circuit goes with its pins; one with pins on both sides takes a cavity and is in both, its source first where that is. */
function splitCircuits(
  loom: Loom,
  tails: Loom,
  endIds: ReadonlySet<string>,
  cavityOf: ReadonlyMap<string, string>,
  nearId: string,
  farId: string,
): void {
  for (const id of Object.keys(loom.circuits).sort(compareIds)) {
    const circuit = loom.circuits[id]!;
    const beyond = circuit.terminations.filter(({ endId }) => endIds.has(endId));
    if (beyond.length === 0) continue;
    const cavity = cavityOf.get(id);
    if (cavity === undefined) {
      tails.circuits[id] = circuit;
      delete loom.circuits[id];
      continue;
    }
    const here = circuit.terminations.filter(({ endId }) => !endIds.has(endId));
    const isSourceHere = !endIds.has(circuit.terminations[0]!.endId);
    const [nearPin, farPin] = [
      { endId: nearId, cavity },
      { endId: farId, cavity },
    ];
    loom.circuits[id] = toSide(circuit, isSourceHere ? [...here, nearPin] : [nearPin, ...here], isSourceHere);
    tails.circuits[id] = toSide(circuit, isSourceHere ? [farPin, ...beyond] : [...beyond, farPin], !isSourceHere);
  }
}

/** One side of a circuit. Rings lie on the stud at its source alone. */
const toSide = (circuit: Circuit, terminations: Circuit['terminations'], hasSource: boolean): Circuit => ({
  ...circuit,
  terminations,
  join: circuit.join === 'stud' && !hasSource ? 'splice' : circuit.join,
});

/** Devices, breaks, parts, shared holes and open items that are about what has moved follow it. */
function followEnds(draft: Job, loomId: string, newId: string, endIds: ReadonlySet<string>, segmentIds: ReadonlySet<string>): void {
  const isMoved = (at: { loomId: string; endId: string } | null) => at !== null && at.loomId === loomId && endIds.has(at.endId);
  for (const device of Object.values(draft.devices)) if (isMoved(device.at)) device.at = { ...device.at!, loomId: newId };
  for (const part of Object.values(draft.parts)) if (isMoved(part.at)) part.at = { ...part.at, loomId: newId };
  for (const mate of Object.values(draft.mates)) {
    if (isMoved(mate.a)) mate.a = { ...mate.a, loomId: newId };
    if (isMoved(mate.b)) mate.b = { ...mate.b, loomId: newId };
  }
  const { circuits, nodes } = draft.looms[loomId]!;
  const gone = (nodeId: string) => !Object.hasOwn(nodes, nodeId) && Object.hasOwn(draft.looms[newId]!.nodes, nodeId);
  for (const anchor of Object.values(draft.anchors))
    anchor.nodes = anchor.nodes.map((node) => (node.loomId === loomId && gone(node.nodeId) ? { ...node, loomId: newId } : node));
  for (const other of Object.values(draft.looms))
    for (const node of Object.values(other.nodes))
      if (node.beside?.loomId === loomId && gone(node.beside.nodeId)) node.beside = { ...node.beside, loomId: newId };
  for (const item of Object.values(draft.openItems))
    item.blocks = item.blocks.map((block) => {
      const goes =
        block.loomId === loomId &&
        ((block.kind === 'end' && endIds.has(block.id)) ||
          (block.kind === 'segment' && segmentIds.has(block.id)) ||
          (block.kind === 'circuit' && !Object.hasOwn(circuits, block.id)));
      return goes ? { ...block, loomId: newId } : block;
    });
}
