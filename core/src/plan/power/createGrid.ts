import { findDeviceTemplate, type Catalogue } from '../../catalogue';
import type { CircuitKind, Job, LinkKind, PinNeed, PinOffer } from '../../model';
import { compareIds, pushTo } from '../../units';
import type { RunWire, WireEnd } from '../types';
import type { PinPlace } from './types';

/** A fuse, channel, contact or bar of a box in the vehicle, with both its pins. a is the side of the supply. */
export interface GridLink {
  id: string;
  deviceId: string;
  linkId: string;
  name: string;
  kind: LinkKind;
  a: PinPlace;
  b: PinPlace;
  maxA: number | null;
  /** what it bears for a moment, A; null: not stated */
  peakA: number | null;
  /** pins of the coil that works it; null: none that is wired */
  coil: { feed: PinPlace; switch: PinPlace } | null;
  /** chosen by hand; null: computed */
  pinnedA: number | null;
  pinReason: string | null;
}

export interface GridNode {
  kind: 'pin' | 'splice';
  /** every pin that is this node: one, or all rings of a stud */
  pins: PinPlace[];
  need: PinNeed | null;
  offer: PinOffer | null;
}

export interface GridEdge {
  a: number;
  b: number;
  /** null: two mated contacts */
  wire: { loomId: string; wireId: string; circuitId: string } | null;
}

/** Everything that copper joins: no fuse, contact or device in between. */
export interface GridNet {
  /** loom/circuit of the first of its circuits */
  id: string;
  circuits: { loomId: string; circuitId: string }[];
  kind: CircuitKind;
  nodes: number[];
}

/** The whole vehicle's wiring as one graph: pins and splices joined by wires and mated contacts; boxes join nets by links. */
export interface Grid {
  nodes: GridNode[];
  edges: GridEdge[];
  /** edges at each node */
  at: number[][];
  nets: GridNet[];
  netOf: number[];
  nodeOfPin: Map<string, number>;
  links: GridLink[];
  /** loom/end → device id */
  deviceAt: Map<string, string>;
}

export const toPinKey = ({ loomId, endId, cavity }: PinPlace) => `${loomId}/${endId}/${cavity}`;

/** Join the looms of a job as they are wired and mated. wires: of each loom, as routed. */
export function createGrid(job: Job, catalogue: Catalogue, looms: readonly { loomId: string; wires: readonly RunWire[] }[]): Grid {
  const grid: Grid = {
    nodes: [],
    edges: [],
    at: [],
    nets: [],
    netOf: [],
    nodeOfPin: new Map(),
    links: [],
    deviceAt: new Map(Object.entries(job.devices).flatMap(([id, { at }]) => (at ? [[`${at.loomId}/${at.endId}`, id] as const] : []))),
  };
  const circuitOf: (string | null)[] = [];
  for (const { loomId, wires } of looms) addLoom(grid, job, loomId, wires, circuitOf);
  addMates(grid, job);
  listNets(grid, job, circuitOf);
  grid.links = listLinks(job, catalogue);
  return grid;
}

function addNode(grid: Grid, node: GridNode): number {
  grid.nodes.push(node);
  grid.at.push([]);
  return grid.nodes.length - 1;
}

function addEdge(grid: Grid, edge: GridEdge): void {
  const index = grid.edges.push(edge) - 1;
  grid.at[edge.a]!.push(index);
  if (edge.b !== edge.a) grid.at[edge.b]!.push(index);
}

function addLoom(grid: Grid, job: Job, loomId: string, wires: readonly RunWire[], circuitOf: (string | null)[]): void {
  const loom = job.looms[loomId]!;
  const splices = new Map<string, number>();
  const studs = new Map<string, number>();
  const toNode = (end: WireEnd, circuitId: string): number => {
    if (end.kind === 'splice') {
      const known = splices.get(end.spliceId);
      if (known !== undefined) return known;
      const index = addNode(grid, { kind: 'splice', pins: [], need: null, offer: null });
      splices.set(end.spliceId, index);
      circuitOf[index] = `${loomId}/${circuitId}`;
      return index;
    }
    const place = { loomId, endId: end.endId, cavity: end.cavity };
    const key = toPinKey(place);
    const known = grid.nodeOfPin.get(key);
    if (known !== undefined) return known;
    const record = loom.ends[end.endId]!;
    // all rings of one stud touch each other
    const isStud = record.kind === 'ring';
    const stud = isStud ? studs.get(end.endId) : undefined;
    const index =
      stud ??
      addNode(grid, {
        kind: 'pin',
        pins: [],
        need: record.pins[end.cavity] ?? (isStud ? (Object.values(record.pins)[0] ?? null) : null),
        offer: record.offers[end.cavity] ?? (isStud ? (Object.values(record.offers)[0] ?? null) : null),
      });
    if (isStud) studs.set(end.endId, index);
    grid.nodes[index]!.pins.push(place);
    grid.nodeOfPin.set(key, index);
    circuitOf[index] ??= `${loomId}/${circuitId}`;
    return index;
  };
  for (const { id, circuitId, from, to } of wires)
    addEdge(grid, { a: toNode(from, circuitId), b: toNode(to, circuitId), wire: { loomId, wireId: id, circuitId } });
}

function addMates(grid: Grid, job: Job): void {
  // cavities with a wire, by end, circuit by circuit
  const used = new Map<string, string[]>();
  for (const [loomId, { circuits }] of Object.entries(job.looms))
    for (const { terminations } of Object.values(circuits))
      for (const { endId, cavity } of terminations) pushTo(used, `${loomId}/${endId}`, cavity);
  for (const id of Object.keys(job.mates).sort(compareIds)) {
    const { a, b } = job.mates[id]!;
    for (const cavity of used.get(`${a.loomId}/${a.endId}`) ?? []) {
      const one = grid.nodeOfPin.get(toPinKey({ ...a, cavity }));
      const other = grid.nodeOfPin.get(toPinKey({ ...b, cavity }));
      if (one !== undefined && other !== undefined) addEdge(grid, { a: one, b: other, wire: null });
    }
  }
}

function listNets(grid: Grid, job: Job, circuitOf: readonly (string | null)[]): void {
  grid.netOf = grid.nodes.map(() => -1);
  for (let start = 0; start < grid.nodes.length; start += 1) {
    if (grid.netOf[start] !== -1) continue;
    const nodes = [start];
    const index = grid.nets.length;
    grid.netOf[start] = index;
    const ids = new Set<string>();
    for (let at = 0; at < nodes.length; at += 1) {
      const node = nodes[at]!;
      for (const edgeIndex of grid.at[node]!) {
        const edge = grid.edges[edgeIndex]!;
        if (edge.wire) ids.add(`${edge.wire.loomId}/${edge.wire.circuitId}`);
        const next = edge.a === node ? edge.b : edge.a;
        if (grid.netOf[next] !== -1) continue;
        grid.netOf[next] = index;
        nodes.push(next);
      }
    }
    if (ids.size === 0) ids.add(circuitOf[start]!);
    const circuits = [...ids].sort(compareIds).map((id) => {
      const slash = id.indexOf('/');
      return { loomId: id.slice(0, slash), circuitId: id.slice(slash + 1) };
    });
    const first = circuits[0]!;
    grid.nets.push({ id: [...ids].sort(compareIds)[0]!, circuits, kind: job.looms[first.loomId]!.circuits[first.circuitId]!.kind, nodes });
  }
}

/** Links of every device that is placed: those of its template, led to the placed parts of the same unit. */
export function listLinks(job: Job, catalogue: Catalogue): GridLink[] {
  const parts = new Map<string, { loomId: string; endId: string }>();
  for (const { unit, templateId, at } of Object.values(job.devices)) if (unit && templateId && at) parts.set(`${unit}/${templateId}`, at);
  return Object.keys(job.devices)
    .sort(compareIds)
    .flatMap((deviceId) => {
      const device = job.devices[deviceId]!;
      const template = findDeviceTemplate(job, catalogue, device.templateId);
      const { at } = device;
      if (!template || !at || device.decision === 'remove') return [];
      const toPlace = (side: { part: string | null; cavity: string }): PinPlace | null => {
        const where = side.part === null ? at : parts.get(`${device.unit}/${side.part}`);
        return where ? { ...where, cavity: side.cavity } : null;
      };
      return Object.keys(template.links)
        .sort(compareIds)
        .flatMap((linkId): GridLink[] => {
          const link = template.links[linkId]!;
          const a = toPlace(link.a);
          const b = toPlace(link.b);
          if (!a || !b) return [];
          const rating = device.ratings[linkId];
          return [
            {
              id: `${deviceId}.${linkId}`,
              deviceId,
              linkId,
              name: (device.unit || device.name) === link.name ? link.name : `${device.unit || device.name} ${link.name}`,
              kind: link.kind,
              a,
              b,
              maxA: link.maxA,
              peakA: link.peakA,
              coil: link.coil && { feed: { ...at, cavity: link.coil.feed }, switch: { ...at, cavity: link.coil.switch } },
              pinnedA: rating?.ratingA ?? null,
              pinReason: rating?.reason ?? null,
            },
          ];
        });
    });
}
