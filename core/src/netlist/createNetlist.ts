import type { Catalogue } from '../catalogue';
import type { CircuitKind, Job, PinNeed, PinOffer } from '../model';
import { compareIds, pushTo } from '../units';
import { findPin } from './listNetPins';
import { listNets, type JoinedCircuits } from './listNets';
import { listSwitchgearLinks, type SwitchgearLink } from './listSwitchgearLinks';
import { toCircuitKey, toPinKey, type CircuitPlace, type JoinedWire, type PinPlace, type WireEnd } from './types';

export interface NetlistNode {
  kind: 'pin' | 'splice';
  /** every pin that is this node: one, or all rings of a stud */
  pins: PinPlace[];
  need: PinNeed | null;
  offer: PinOffer | null;
}

export interface NetlistEdge {
  a: number;
  b: number;
  /** null: two mated contacts */
  wire: { loomId: string; wireId: string; circuitId: string } | null;
}

/** Everything that copper joins: no fuse, contact or device in between. */
export interface NetlistNet {
  /** loom/circuit of the first of its circuits */
  id: string;
  circuits: CircuitPlace[];
  kind: CircuitKind;
  nodes: number[];
}

/** The whole vehicle's wiring as one graph: pins and splices joined by wires and mated contacts; boxes join nets by links. */
export interface Netlist {
  nodes: NetlistNode[];
  edges: NetlistEdge[];
  /** edges at each node */
  at: number[][];
  nets: NetlistNet[];
  netOf: number[];
  nodeOfPin: Map<string, number>;
  links: SwitchgearLink[];
  /** loom/end → device id */
  deviceAt: Map<string, string>;
}

/** The net of a pin, by its place in the netlist's nets; null: no wire goes there. */
export function findNetOf({ nodeOfPin, netOf }: Pick<Netlist, 'nodeOfPin' | 'netOf'>, place: PinPlace): number | null {
  const node = nodeOfPin.get(toPinKey(place));
  return node === undefined ? null : netOf[node]!;
}

/** Join the looms of a job as they are wired and mated. wires: of each loom, as routed. */
export function createNetlist(job: Job, catalogue: Catalogue, looms: readonly { loomId: string; wires: readonly JoinedWire[] }[]): Netlist {
  const netlist: Netlist = {
    nodes: [],
    edges: [],
    at: [],
    nets: [],
    netOf: [],
    nodeOfPin: new Map(),
    links: [],
    deviceAt: new Map(Object.entries(job.devices).flatMap(([id, { at }]) => (at ? [[`${at.loomId}/${at.endId}`, id] as const] : []))),
  };
  const circuitOf: string[] = [];
  for (const { loomId, wires } of looms) addLoom(netlist, job, loomId, wires, circuitOf);
  addMates(netlist, job);
  groupNodes(netlist, job, circuitOf);
  netlist.links = listSwitchgearLinks(job, catalogue);
  return netlist;
}

function addNode(netlist: Netlist, node: NetlistNode): number {
  netlist.nodes.push(node);
  netlist.at.push([]);
  return netlist.nodes.length - 1;
}

function addEdge(netlist: Netlist, edge: NetlistEdge): void {
  const index = netlist.edges.push(edge) - 1;
  netlist.at[edge.a]!.push(index);
  if (edge.b !== edge.a) netlist.at[edge.b]!.push(index);
}

function addLoom(netlist: Netlist, job: Job, loomId: string, wires: readonly JoinedWire[], circuitOf: string[]): void {
  const loom = job.looms[loomId]!;
  const splices = new Map<string, number>();
  const studs = new Map<string, number>();
  const toNode = (end: WireEnd, circuitId: string): number => {
    if (end.kind === 'splice') {
      const known = splices.get(end.spliceId);
      if (known !== undefined) return known;
      const index = addNode(netlist, { kind: 'splice', pins: [], need: null, offer: null });
      splices.set(end.spliceId, index);
      circuitOf[index] = `${loomId}/${circuitId}`;
      return index;
    }
    const place = { loomId, endId: end.endId, cavity: end.cavity };
    const key = toPinKey(place);
    const known = netlist.nodeOfPin.get(key);
    if (known !== undefined) return known;
    const record = loom.ends[end.endId]!;
    // all rings of one stud touch each other
    const isStud = record.kind === 'ring';
    const stud = isStud ? studs.get(end.endId) : undefined;
    const index =
      stud ??
      addNode(netlist, {
        kind: 'pin',
        pins: [],
        ...findPin(record, end.cavity),
      });
    if (isStud) studs.set(end.endId, index);
    netlist.nodes[index]!.pins.push(place);
    netlist.nodeOfPin.set(key, index);
    circuitOf[index] ??= `${loomId}/${circuitId}`;
    return index;
  };
  for (const { id, circuitId, from, to } of wires)
    addEdge(netlist, { a: toNode(from, circuitId), b: toNode(to, circuitId), wire: { loomId, wireId: id, circuitId } });
}

function addMates(netlist: Netlist, job: Job): void {
  // cavities with a wire, by end, circuit by circuit
  const used = new Map<string, string[]>();
  for (const [loomId, { circuits }] of Object.entries(job.looms))
    for (const { terminations } of Object.values(circuits))
      for (const { endId, cavity } of terminations) pushTo(used, `${loomId}/${endId}`, cavity);
  for (const id of Object.keys(job.mates).sort(compareIds)) {
    const { a, b } = job.mates[id]!;
    for (const cavity of used.get(`${a.loomId}/${a.endId}`) ?? []) {
      const one = netlist.nodeOfPin.get(toPinKey({ ...a, cavity }));
      const other = netlist.nodeOfPin.get(toPinKey({ ...b, cavity }));
      if (one !== undefined && other !== undefined) addEdge(netlist, { a: one, b: other, wire: null });
    }
  }
}

/** Nodes by the net of their circuit; a circuit without a wire joins nothing. */
function groupNodes(netlist: Netlist, job: Job, circuitOf: readonly string[]): void {
  const { netOf } = listNets(job);
  const wired = new Set(circuitOf);
  for (const { wire } of netlist.edges) if (wire) wired.add(toCircuitKey(wire));
  const known = new Map<JoinedCircuits, number>();
  circuitOf.forEach((circuit, node) => {
    const joined = netOf.get(circuit)!;
    let index = known.get(joined);
    if (index === undefined) {
      index = netlist.nets.length;
      known.set(joined, index);
      const circuits = joined.filter((one) => wired.has(toCircuitKey(one))).sort((a, b) => compareIds(toCircuitKey(a), toCircuitKey(b)));
      const { loomId, circuitId } = circuits[0]!;
      netlist.nets.push({ id: toCircuitKey(circuits[0]!), circuits, kind: job.looms[loomId]!.circuits[circuitId]!.kind, nodes: [] });
    }
    netlist.nets[index]!.nodes.push(node);
    netlist.netOf[node] = index;
  });
}
