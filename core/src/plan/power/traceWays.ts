import type { ShopStandard } from '../../catalogue';
import type { Job } from '../../model';
import { toPinKey, type Grid, type GridLink } from './createGrid';
import { isSink, listShares, type Currents, type Flows } from './measureFlows';
import type { PathStep, PlannedLoad } from './types';

/** A step of a way before any size is known: what flows in it is, and so is the resistance of all that is no wire. */
export interface WayStep extends Omit<PathStep, 'milliohm' | 'dropV'> {
  /** edge of the grid; -1 unless a wire */
  edge: number;
  /** null: a wire's, which its size decides */
  milliohm: number | null;
  /** what flows in it, mode by mode; null: nothing that is known */
  flow: Currents | null;
}

/** A stretch of a way back, and where it goes on: where it parts, the current is shared, and the worst of the parts counts. */
export interface Way {
  steps: readonly WayStep[];
  next: readonly Way[];
}

/** A load pin with its ways, source first: all that no wire size changes. */
export interface LoadWays {
  load: Omit<PlannedLoad, 'steps' | 'dropV' | 'dropByModeV' | 'totalV' | 'faultA'>;
  out: readonly WayStep[];
  /** null: none */
  back: Way | null;
  isFed: boolean;
  isBattery: boolean;
}

export interface WayContext {
  job: Job;
  grid: Grid;
  flows: Flows;
  standard: ShopStandard;
}

/** Every load pin of the vehicle, and every pin from which a box feeds its loads, with its ways out and back (calculations 3). */
export function traceWays(context: WayContext): LoadWays[] {
  return new Tracer(context).listLoads();
}

interface Climbed {
  /** load first */
  steps: WayStep[];
  linkIds: string[];
  /** steps up to and with the fuse, relay or channel nearest to the load; null: none on the way */
  boxAt: number | null;
  root: number | null;
  isFed: boolean;
  isBattery: boolean;
}

class Tracer {
  /** pins of one box, by unit or device or end */
  private readonly boxes = new Map<string, number[]>();
  private readonly boxOfNode: (string | null)[];
  private readonly linksById: ReadonlyMap<string, GridLink>;
  /** nodes from which links lead on */
  private readonly froms: ReadonlySet<number>;
  /** the stud that ties the battery to the chassis */
  private readonly tie: number;
  /** modes that count for a load: while the engine is cranked, or all others */
  private readonly modes: { cranking: number[]; other: number[] };
  /** ways back found so far, by node; many loads share them */
  private readonly returns = { cranking: new Map<number, Way | null>(), other: new Map<number, Way | null>() };
  private readonly chassis: { cranking: Way | null; other: Way | null } = { cranking: null, other: null };

  constructor(private readonly context: WayContext) {
    const { grid, flows, job } = context;
    this.boxOfNode = grid.nodes.map((_, node) => this.findBox(node));
    this.boxOfNode.forEach((box, node) => {
      if (box === null) return;
      const pins = this.boxes.get(box);
      if (pins) pins.push(node);
      else this.boxes.set(box, [node]);
    });
    this.linksById = new Map(grid.links.map((link) => [link.id, link]));
    this.froms = new Set(grid.links.flatMap(({ a }) => grid.nodeOfPin.get(toPinKey(a)) ?? []));
    this.tie = grid.nodes.findIndex(({ offer }, node) => {
      const { root } = flows.nets[grid.netOf[node]!]!;
      return offer?.can.includes('chassis') && root !== null && root !== node && grid.nodes[root]!.offer!.can.includes('battery-negative');
    });
    const list = (isCranking: boolean) => flows.modeIds.flatMap((id, index) => (job.modes[id]!.cranking === isCranking ? [index] : []));
    this.modes = { cranking: list(true), other: list(false) };
  }

  listLoads(): LoadWays[] {
    const { grid } = this.context;
    const loads: LoadWays[] = [];
    grid.nodes.forEach(({ need, pins }, node) => {
      if (need === null || pins.length === 0 || (need.kind !== 'supply' && need.kind !== 'sensor-supply')) return;
      if (need.currentA !== null) loads.push(this.traceLoad(node));
      else if (this.isBox(node)) loads.push(this.traceFeed(node));
    });
    return loads;
  }

  private findBox(node: number): string | null {
    const { grid, job } = this.context;
    const place = grid.nodes[node]!.pins[0];
    if (!place) return null;
    const end = `${place.loomId}/${place.endId}`;
    const deviceId = grid.deviceAt.get(end);
    return deviceId === undefined ? end : job.devices[deviceId]!.unit || deviceId;
  }

  private traceLoad(node: number): LoadWays {
    const { grid, flows, job, standard } = this.context;
    const { need, pins } = grid.nodes[node]!;
    const pin = pins[0]!;
    const deviceId = grid.deviceAt.get(`${pin.loomId}/${pin.endId}`) ?? null;
    const when = need!.load === 'starter' ? 'cranking' : 'other';
    const { steps, boxAt, linkIds, isFed, isBattery } = this.climb(node, 'out', this.modes[when]);
    const back = this.traceBack(node, when);
    // the box that feeds it and all before it are the feed's own budget, and so is the way from the ground stud on
    const shared = boxAt === null ? 0 : steps.length - boxAt;
    const shares = listShares(job, flows.modeIds, deviceId, when === 'cranking');
    return {
      load: {
        id: toPinKey(pin),
        name: `${deviceId === null ? job.looms[pin.loomId]!.ends[pin.endId]!.name : job.devices[deviceId]!.name} ${need!.function}`,
        pin,
        deviceId,
        load: need!.load,
        currentA: need!.currentA!,
        rmsA: shares.map((share) => need!.currentA! * Math.sqrt(share)),
        inrushA: need!.inrushA,
        inrushMs: need!.inrushMs,
        linkIds: linkIds.reverse(),
        budgetV: standard.dropShare[need!.load ?? 'electronics'] * job.source.volts,
        returns: back !== null,
        switches: this.listSwitches(node, linkIds),
      },
      out: steps.reverse().map((step, index) => ({ ...step, counts: index >= shared })),
      back,
      isFed,
      isBattery,
    };
  }

  /** High side: links on the way, in their order; low side: drivers that the returns of the device end in. node: null for a feed. */
  private listSwitches(node: number | null, linkIds: readonly string[]): PlannedLoad['switches'] {
    const { grid, flows, job } = this.context;
    const high = linkIds.flatMap((id): PlannedLoad['switches'] => {
      const { kind, name } = this.linksById.get(id)!;
      return kind === 'channel' || kind === 'relay' || kind === 'switch' ? [{ side: 'high', by: name, linkId: id }] : [];
    });
    if (node === null) return high;
    const low = (this.boxes.get(this.boxOfNode[node]!) ?? []).flatMap((one) => {
      if (grid.nodes[one]!.need?.kind !== 'output') return [];
      const { root } = flows.nets[grid.netOf[one]!]!;
      const place = root === null || !isSink(grid.nodes[root]!.offer) ? undefined : grid.nodes[root]!.pins[0];
      return place ? [`${job.looms[place.loomId]!.ends[place.endId]!.name} ${place.cavity}`] : [];
    });
    return [...high, ...[...new Set(low)].map((by) => ({ side: 'low' as const, by, linkId: null }))];
  }

  /** A pin from which fuses, channels or contacts lead straight to loads. */
  private isBox(node: number): boolean {
    const { grid } = this.context;
    return (
      this.froms.has(node) &&
      !grid.links.some((link) => {
        if (grid.nodeOfPin.get(toPinKey(link.a)) !== node) return false;
        const beyond = grid.nodeOfPin.get(toPinKey(link.b));
        return beyond !== undefined && grid.nets[grid.netOf[beyond]!]!.nodes.some((other) => this.froms.has(other));
      })
    );
  }

  /** The way from the battery to a box and from the ground studs back, everything on. */
  private traceFeed(node: number): LoadWays {
    const { grid, flows, job, standard } = this.context;
    const pin = grid.nodes[node]!.pins[0]!;
    const deviceId = grid.deviceAt.get(`${pin.loomId}/${pin.endId}`) ?? null;
    const { steps, linkIds, isFed, isBattery } = this.climb(node, 'out', this.modes.other);
    const edge = flows.edges[flows.parentEdge[node]!];
    return {
      load: {
        id: toPinKey(pin),
        name: `${deviceId === null ? job.looms[pin.loomId]!.ends[pin.endId]!.name : job.devices[deviceId]!.unit || job.devices[deviceId]!.name} feed`,
        pin,
        deviceId,
        load: 'feed',
        currentA: this.measureMost(edge, this.modes.other),
        rmsA: edge?.rms ?? flows.modeIds.map(() => 0),
        inrushA: null,
        inrushMs: null,
        linkIds: linkIds.reverse(),
        budgetV: standard.feedShare * job.source.volts,
        returns: true,
        switches: this.listSwitches(null, linkIds),
      },
      out: steps.reverse(),
      back: { steps: this.traceChassis('other').steps.map((step) => ({ ...step, counts: true })), next: [] },
      isFed,
      isBattery,
    };
  }

  /** From a pin towards what feeds or takes its current, through links on the way. Load first. */
  private climb(from: number, way: PathStep['way'], modes: readonly number[]): Climbed {
    const { grid, flows, standard } = this.context;
    const steps: WayStep[] = [];
    const linkIds: string[] = [];
    let boxAt: number | null = null;
    const seen = new Set<number>();
    let node = from;
    // past the ground stud the way is everybody's
    let counts = true;
    const lost = () => ({ steps, linkIds, boxAt, root: null, isFed: false, isBattery: false });
    for (;;) {
      const net = flows.nets[grid.netOf[node]!]!;
      if (net.root === null || seen.has(grid.netOf[node]!)) return lost();
      seen.add(grid.netOf[node]!);
      while (node !== net.root) {
        const edgeIndex = flows.parentEdge[node]!;
        const edge = grid.edges[edgeIndex]!;
        const next = edge.a === node ? edge.b : edge.a;
        if (way === 'back' && grid.nodes[node]!.offer?.can.includes('chassis')) counts = false;
        const flow = flows.edges[edgeIndex] ?? null;
        this.addEdgeSteps(steps, edgeIndex, node, next, { way, currentA: this.measureMost(flow, modes), flow, counts });
        node = next;
      }
      const offer = grid.nodes[node]!.offer;
      const link = net.fedBy;
      if (way === 'back' || link === null)
        return {
          steps,
          linkIds,
          boxAt,
          root: node,
          isFed: way === 'back' || offer !== null,
          isBattery: offer?.can.includes('battery-positive') === true,
        };
      const currentA = this.measureMost(net.current, modes);
      const milliohm = link.maxA === null ? standard.contactMilliohm : (standard.linkFullV / link.maxA) * 1000;
      steps.push({
        kind: 'link',
        words: link.name,
        loomId: null,
        wireId: null,
        edge: -1,
        milliohm,
        way,
        currentA,
        flow: net.current,
        counts,
      });
      boxAt = link.kind === 'switch' || link.kind === 'bar' || boxAt !== null ? boxAt : steps.length;
      linkIds.push(link.id);
      const beyond = grid.nodeOfPin.get(toPinKey(link.a));
      if (beyond === undefined) return lost();
      node = beyond;
    }
  }

  /** Design current: r.m.s. of the worst of these modes; while the engine is cranked, all that is on. */
  private measureMost(currents: Currents | null | undefined, modes: readonly number[]): number {
    const { flows, job } = this.context;
    let most = 0;
    for (const mode of modes) {
      const values = job.modes[flows.modeIds[mode]!]!.cranking ? currents?.peak : currents?.rms;
      most = Math.max(most, values?.[mode] ?? 0);
    }
    return most;
  }

  private addEdgeSteps(
    steps: WayStep[],
    edge: number,
    node: number,
    next: number,
    rest: Pick<WayStep, 'way' | 'currentA' | 'flow' | 'counts'>,
  ): void {
    const { grid, job, standard } = this.context;
    const { wire } = grid.edges[edge]!;
    const addContact = (at: number, milliohm: number) => {
      const place = grid.nodes[at]!.pins[0]!;
      const words = `${job.looms[place.loomId]!.ends[place.endId]!.name} ${place.cavity}`;
      steps.push({ kind: 'contact', words, loomId: null, wireId: null, edge: -1, milliohm, ...rest });
    };
    if (wire === null) return addContact(node, standard.contactMilliohm);
    const crimp = (at: number) => {
      if (grid.nodes[at]!.kind === 'splice' || grid.at[at]!.some((one) => grid.edges[one]!.wire === null)) return;
      const place = grid.nodes[at]!.pins[0]!;
      const isBolted = job.looms[place.loomId]!.ends[place.endId]!.kind !== 'connector';
      addContact(at, isBolted ? standard.ringMilliohm : standard.contactMilliohm);
    };
    const { loomId, wireId, circuitId } = wire;
    crimp(node);
    const words = job.looms[loomId]!.circuits[circuitId]!.name;
    steps.push({ kind: 'wire', words, loomId, wireId, edge, milliohm: null, ...rest });
    if (grid.nodes[next]!.kind === 'splice')
      steps.push({ kind: 'splice', words: 'splice', loomId, wireId: null, edge: -1, milliohm: standard.spliceMilliohm, ...rest });
    crimp(next);
  }

  /** The ways back from a load's box; null where there is none. A device without any return pin is grounded by its case. */
  private traceBack(node: number, when: 'cranking' | 'other'): Way | null {
    const { grid, job } = this.context;
    const { need, pins } = grid.nodes[node]!;
    const box = this.boxes.get(this.boxOfNode[node]!)!;
    const kinds = need!.kind === 'sensor-supply' ? ['sensor-ground', 'power-ground'] : ['power-ground', 'output'];
    const returns = box.filter((one) => kinds.includes(grid.nodes[one]!.need?.kind ?? ''));
    if (returns.length === 0) {
      const end = job.looms[pins[0]!.loomId]!.ends[pins[0]!.endId]!;
      const wanted = Object.values(end.pins).some(({ kind }) => kinds.includes(kind));
      return wanted || need!.kind === 'sensor-supply' ? null : this.traceChassis(when);
    }
    const next = returns.map((one) => this.traceReturn(one, when));
    return next.includes(null) ? null : { steps: [], next: next as Way[] };
  }

  private traceReturn(node: number, when: 'cranking' | 'other'): Way | null {
    const known = this.returns[when].get(node);
    if (known !== undefined) return known;
    // a way that would lead back into itself leads nowhere
    this.returns[when].set(node, null);
    const made = this.makeReturn(node, when);
    this.returns[when].set(node, made);
    return made;
  }

  private makeReturn(node: number, when: 'cranking' | 'other'): Way | null {
    const { grid } = this.context;
    const { steps, root } = this.climb(node, 'back', this.modes[when]);
    if (root === null) return null;
    const { offer } = grid.nodes[root]!;
    if (offer?.can.includes('chassis')) return { steps, next: [this.traceChassis(when)] };
    if (!isSink(offer)) return { steps, next: [] };
    // a driver sends it on through the grounds of its box, which share it
    const grounds = (this.boxes.get(this.boxOfNode[root]!) ?? []).filter((one) => grid.nodes[one]!.need?.kind === 'power-ground');
    const next = grounds.map((ground) => this.traceReturn(ground, when));
    return { steps, next: next.includes(null) ? [] : (next as Way[]) };
  }

  private traceChassis(when: 'cranking' | 'other'): Way {
    return (this.chassis[when] ??= this.makeChassis(this.modes[when]));
  }

  private makeChassis(modes: readonly number[]): Way {
    const { flows, job } = this.context;
    if (this.tie === -1) return { steps: [], next: [] };
    const flow = flows.edges[flows.parentEdge[this.tie]!] ?? null;
    const first: WayStep = {
      kind: 'chassis',
      way: 'back',
      words: 'through the chassis',
      loomId: null,
      wireId: null,
      edge: -1,
      milliohm: job.source.chassisMilliohm,
      currentA: this.measureMost(flow, modes),
      flow,
      counts: false,
    };
    return { steps: [first, ...this.climb(this.tie, 'back', modes).steps.map((step) => ({ ...step, counts: false }))], next: [] };
  }
}
