import type { Capability, Job, PinOffer } from '../../model';
import { compareIds } from '../../units';
import { toPinKey, type Grid, type GridLink } from './createGrid';

/** Currents in each mode, in the order of modeIds; A. peak: what is on draws all of it; rms: as it heats (I·√duty, summed); mean: I·duty. */
export interface Currents {
  peak: number[];
  rms: number[];
  mean: number[];
}

export interface NetFlow {
  /** where its current comes from or goes to; null: nothing in it feeds or takes */
  root: number | null;
  /** every node that feeds it; more than one is a fault */
  feeds: number[];
  fedBy: GridLink | null;
  current: Currents;
  /** load pins whose current nobody gave */
  unknown: number;
}

export interface Flows {
  modeIds: string[];
  /** by edge; null: no path to a root passes there */
  edges: (Currents | null)[];
  /** load pins of unknown current beyond an edge */
  unknownBeyond: number[];
  /** towards the root, by node: the edge to it; -1 at roots and what is off the tree */
  parentEdge: number[];
  nets: NetFlow[];
}

const SINKS: readonly Capability[] = ['low-side', 'ignition', 'half-bridge'];

/** Does a pin of a box take a load's current and send it out of the grounds of its box? */
export const isSink = (offer: PinOffer | null): boolean => offer?.can.some((one) => SINKS.includes(one)) === true;

/** Share of the time that a load is on in each mode. A mode its device says nothing of counts as fully on; a starter only where it turns. */
export function listShares(job: Job, modeIds: readonly string[], deviceId: string | null, isStarter: boolean): number[] {
  const duty = deviceId === null ? {} : job.devices[deviceId]!.duty;
  return modeIds.map((mode) => (Object.hasOwn(duty, mode) ? duty[mode]! : isStarter && !job.modes[mode]!.cranking ? 0 : 1));
}

const DRAWS = new Set(['supply', 'sensor-supply', 'power-ground', 'output']);

/** Current on every wire of the grid in every mode (calculations 3): what each pin draws, summed towards what feeds it. */
export function measureFlows(job: Job, grid: Grid): Flows {
  return new FlowMaker(job, grid).make();
}

class FlowMaker {
  private readonly modeIds: string[];
  private readonly flows: Flows;
  private readonly drawn: (Currents | null)[];
  /** load pins at a node, and behind links from it, whose current nobody gave */
  private readonly unknown: number[];
  private readonly linksInto = new Map<number, GridLink[]>();
  private readonly linksFrom = new Map<number, GridLink[]>();
  private readonly zero: Currents;
  private readonly state: ('open' | 'busy' | 'done')[];

  constructor(
    private readonly job: Job,
    private readonly grid: Grid,
  ) {
    this.modeIds = Object.keys(job.modes).sort(compareIds);
    this.zero = this.none();
    this.drawn = grid.nodes.map(() => null);
    this.unknown = grid.nodes.map(() => 0);
    this.state = grid.nets.map(() => 'open');
    this.flows = {
      modeIds: this.modeIds,
      edges: grid.edges.map(() => null),
      unknownBeyond: grid.edges.map(() => 0),
      parentEdge: grid.nodes.map(() => -1),
      nets: [],
    };
    for (const link of grid.links) {
      const a = grid.nodeOfPin.get(toPinKey(link.a));
      const b = grid.nodeOfPin.get(toPinKey(link.b));
      if (a !== undefined) this.linksFrom.set(a, [...(this.linksFrom.get(a) ?? []), link]);
      if (b !== undefined) this.linksInto.set(b, [...(this.linksInto.get(b) ?? []), link]);
    }
  }

  make(): Flows {
    const { grid, flows } = this;
    flows.nets = grid.nets.map((_, index) => this.findRoot(index));
    this.listDraws();
    const isGround = (index: number) => grid.nets[index]!.kind === 'power-ground';
    const order = grid.nets.map((_, index) => index);
    // outputs sink into their box, boxes into the ground: grounds come last, the battery's own the very last
    for (const index of order) if (!isGround(index)) this.measureNet(index);
    this.sinkIntoGrounds();
    const battery = (index: number) => {
      const { root } = flows.nets[index]!;
      return root !== null && grid.nodes[root]!.offer?.can.includes('battery-negative') === true;
    };
    const grounds = order.filter(isGround);
    for (const index of grounds) if (!battery(index)) this.measureNet(index);
    this.returnThroughChassis(grounds.filter((index) => !battery(index)));
    for (const index of grounds) if (battery(index)) this.measureNet(index);
    return flows;
  }

  private none(): Currents {
    const zero = () => this.modeIds.map(() => 0);
    return { peak: zero(), rms: zero(), mean: zero() };
  }

  private draw(node: number, amount: Currents): void {
    addTo((this.drawn[node] ??= this.none()), amount);
  }

  /** A load of so many amperes at a node, on as long as its device is in each mode. */
  private drawLoad(node: number, currentA: number, isStarter: boolean): void {
    const place = this.grid.nodes[node]!.pins[0];
    const deviceId = place && this.grid.deviceAt.get(`${place.loomId}/${place.endId}`);
    const shares = listShares(this.job, this.modeIds, deviceId ?? null, isStarter);
    this.draw(node, {
      peak: shares.map((share) => (share > 0 ? currentA : 0)),
      rms: shares.map((share) => currentA * Math.sqrt(share)),
      mean: shares.map((share) => currentA * share),
    });
  }

  private listDraws(): void {
    const { grid, job } = this;
    grid.nodes.forEach(({ need, pins }, node) => {
      if (!need || pins.length === 0) return;
      if (need.currentA !== null) this.drawLoad(node, need.currentA, need.load === 'starter');
      else if (DRAWS.has(need.kind) && need.kind !== 'sensor-supply' && !this.linksFrom.has(node) && !this.linksInto.has(node))
        this.unknown[node] = 1;
    });
    for (const { circuits } of grid.nets)
      for (const { loomId, circuitId } of circuits) {
        const circuit = job.looms[loomId]!.circuits[circuitId]!;
        if (circuit.currentA === null) continue;
        const nodes = circuit.terminations.slice(1).flatMap((place) => grid.nodeOfPin.get(toPinKey({ loomId, ...place })) ?? []);
        const isMated = (node: number) => grid.at[node]!.some((edge) => grid.edges[edge]!.wire === null);
        const silent = nodes.filter((node) => !isMated(node) && grid.nodes[node]!.offer === null && !this.linksFrom.has(node));
        if (nodes.some((node) => this.drawn[node] !== null)) continue;
        for (const node of silent) {
          this.unknown[node] = 0;
          this.drawLoad(node, circuit.currentA / silent.length, false);
        }
      }
  }

  /** What the low-side outputs of a box take goes out of its power grounds, shared evenly. */
  private sinkIntoGrounds(): void {
    const { grid, job, flows } = this;
    const unitOf = (node: number): string | null => {
      const place = grid.nodes[node]!.pins[0];
      const deviceId = place && grid.deviceAt.get(`${place.loomId}/${place.endId}`);
      return deviceId === undefined ? (place ? `${place.loomId}/${place.endId}` : null) : job.devices[deviceId]!.unit || deviceId;
    };
    const sinks = new Map<string, Currents[]>();
    flows.nets.forEach(({ root, current }) => {
      if (root === null || !isSink(grid.nodes[root]!.offer)) return;
      const unit = unitOf(root);
      if (unit !== null) sinks.set(unit, [...(sinks.get(unit) ?? []), current]);
    });
    if (sinks.size === 0) return;
    const grounds = new Map<string, number[]>();
    grid.nodes.forEach(({ need, pins }, node) => {
      const unit = need?.kind === 'power-ground' && pins.length ? unitOf(node) : null;
      if (unit !== null && sinks.has(unit)) grounds.set(unit, [...(grounds.get(unit) ?? []), node]);
    });
    for (const [unit, nodes] of grounds)
      for (const current of sinks.get(unit)!)
        for (const node of nodes) {
          const share = (values: number[]) => values.map((value) => value / nodes.length);
          this.draw(node, { peak: share(current.peak), rms: share(current.rms), mean: share(current.mean) });
        }
  }

  /** What comes to ground studs goes on through the chassis to the stud that the battery is tied to. */
  private returnThroughChassis(grounds: readonly number[]): void {
    const { grid, flows } = this;
    const isChassis = (node: number) => grid.nodes[node]!.offer?.can.includes('chassis') === true;
    const tie = grid.nodes.findIndex((_, node) => {
      const { root } = flows.nets[grid.netOf[node]!]!;
      return isChassis(node) && root !== null && root !== node && grid.nodes[root]!.offer!.can.includes('battery-negative');
    });
    if (tie === -1) return;
    for (const index of grounds) {
      const { root, current } = flows.nets[index]!;
      if (root !== null && isChassis(root)) this.draw(tie, current);
    }
  }

  private findRoot(index: number): NetFlow {
    const { grid } = this;
    const { nodes, kind } = grid.nets[index]!;
    const isReturn = kind === 'power-ground' || kind === 'sensor-ground';
    const rank = (node: number): number => {
      const offer = grid.nodes[node]!.offer;
      if (isReturn) {
        if (offer?.can.includes('battery-negative')) return 5;
        if (offer?.can.includes('chassis')) return kind === 'power-ground' ? 4 : 2;
        if (offer?.can.includes('ground') || offer?.can.includes('sensor-ground')) return 3;
      } else {
        if (offer?.can.includes('battery-positive')) return 5;
        if (this.linksInto.has(node)) return 4;
        if (offer && offer.volts !== null) return 3;
      }
      return offer ? 1 : 0;
    };
    const ranked = nodes.filter((node) => rank(node) > 0).sort((a, b) => rank(b) - rank(a) || a - b);
    const root = ranked[0] ?? null;
    const feeds = isReturn ? [] : ranked.filter((node) => rank(node) >= 3);
    return {
      root,
      feeds,
      fedBy: root === null ? null : (this.linksInto.get(root)?.[0] ?? null),
      current: this.zero,
      unknown: 0,
    };
  }

  /** Sum what each pin draws towards the root; feeds of links beyond are measured first. */
  private measureNet(index: number): void {
    if (this.state[index] !== 'open') return;
    this.state[index] = 'busy';
    const { grid, flows } = this;
    const { nodes } = grid.nets[index]!;
    const flow = flows.nets[index]!;
    for (const node of nodes)
      for (const link of this.linksFrom.get(node) ?? []) {
        const beyond = grid.nodeOfPin.get(toPinKey(link.b));
        const net = beyond === undefined ? undefined : grid.netOf[beyond]!;
        if (net === undefined || net === index || flows.nets[net]!.fedBy?.id !== link.id) continue;
        this.measureNet(net);
        this.draw(node, flows.nets[net]!.current);
        this.unknown[node]! += flows.nets[net]!.unknown;
      }
    // a net that nothing feeds is summed towards its first circuit's source
    const start = flow.root ?? this.findFirstSource(index);
    const order = [start];
    const seen = new Set(order);
    for (let at = 0; at < order.length; at += 1)
      for (const edgeIndex of grid.at[order[at]!]!) {
        const { a, b } = grid.edges[edgeIndex]!;
        const next = a === order[at] ? b : a;
        if (seen.has(next)) continue;
        seen.add(next);
        flows.parentEdge[next] = edgeIndex;
        order.push(next);
      }
    const sums = new Map<number, Currents>();
    const unknown = new Map<number, number>();
    for (let at = order.length - 1; at >= 0; at -= 1) {
      const node = order[at]!;
      const own = this.drawn[node];
      // most pins draw nothing: they share one zero
      let sum = sums.get(node);
      if (own) addTo((sum ??= this.none()), own);
      const count = (unknown.get(node) ?? 0) + this.unknown[node]!;
      const edgeIndex = flows.parentEdge[node]!;
      if (at === 0) {
        flow.current = sum ?? this.zero;
        flow.unknown = count;
        break;
      }
      flows.edges[edgeIndex] = sum ?? this.zero;
      flows.unknownBeyond[edgeIndex] = count;
      const { a, b } = grid.edges[edgeIndex]!;
      const parent = a === node ? b : a;
      if (sum) {
        const above = sums.get(parent);
        if (above) addTo(above, sum);
        else sums.set(parent, { peak: [...sum.peak], rms: [...sum.rms], mean: [...sum.mean] });
      }
      if (count) unknown.set(parent, (unknown.get(parent) ?? 0) + count);
    }
    this.state[index] = 'done';
  }

  private findFirstSource(index: number): number {
    const { circuits, nodes } = this.grid.nets[index]!;
    const first = circuits[0]!;
    const [source] = this.job.looms[first.loomId]!.circuits[first.circuitId]!.terminations;
    return (source && this.grid.nodeOfPin.get(toPinKey({ loomId: first.loomId, ...source }))) ?? nodes[0]!;
  }
}

function addTo(sum: Currents, more: Currents): void {
  for (let mode = 0; mode < more.peak.length; mode += 1) {
    sum.peak[mode]! += more.peak[mode]!;
    sum.rms[mode]! += more.rms[mode]!;
    sum.mean[mode]! += more.mean[mode]!;
  }
}
