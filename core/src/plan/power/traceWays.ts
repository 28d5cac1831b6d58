import type { ShopStandard } from '../../catalogue';
import type { CircuitKind, Job } from '../../model';
import { pushTo } from '../../units';
import { toPinKey, type Grid, type GridLink } from './createGrid';
import { mostOf, toLoadCurrents, type Currents } from './currents';
import type { Flows } from './flows';
import { isSink, listShares } from './measureFlows';
import type { PathStep, PlannedLoad } from './types';

/** A step of a way before any size is known: what flows in it is, and so is the resistance of all that is no wire. */
export interface WayStep extends Omit<PathStep, 'milliohm' | 'dropV'> {
  /** edge of the grid; -1 unless a wire */
  edge: number;
  /** null: a wire's, which its size decides */
  milliohm: number | null;
  /** fuse, channel, relay or switch that it is; null: none */
  linkId: string | null;
  /** the strap of the engine, which all share that stand on it: a budget takes it as it is */
  isBody: boolean;
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
  load: Omit<PlannedLoad, 'steps' | 'dropV' | 'dropByModeV' | 'totalByModeV' | 'voltsByMode' | 'faultA'>;
  out: readonly WayStep[];
  /** null: none */
  back: Way | null;
  isFed: boolean;
  isBattery: boolean;
  /** what switches it on: a driver, or the link nearest to it that switches; what nothing switches wakes with its branch; null: by itself */
  wokenBy: string | null;
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
  isOutside: boolean;
}

class Tracer {
  /** pins of one box, by unit or device or end */
  private readonly boxes = new Map<string, number[]>();
  private readonly boxOfNode: (string | null)[];
  private readonly linksById: ReadonlyMap<string, GridLink>;
  /** nodes from which links lead on */
  private readonly froms: ReadonlySet<number>;
  /** modes that count for a load: while the engine is cranked, or all others */
  private readonly modes: { cranking: number[]; other: number[] };
  /** ways back found so far, by node; many loads share them */
  private readonly returns = { cranking: new Map<number, Way | null>(), other: new Map<number, Way | null>() };
  private readonly chassis = { cranking: new Map<number, Way | null>(), other: new Map<number, Way | null>() };
  /** from the chassis to battery negative, by the modes that count */
  private readonly tieSteps = new Map<readonly number[], readonly WayStep[]>();
  /** does the job have a battery, so that a body that leads nowhere is known to */
  private readonly hasBattery: boolean;
  /** studs that a wire joins to battery negative */
  private readonly ties: ReadonlySet<number>;

  constructor(private readonly context: WayContext) {
    const { grid, flows, job } = context;
    this.boxOfNode = grid.nodes.map((_, node) => this.findBox(node));
    this.boxOfNode.forEach((box, node) => {
      if (box !== null) pushTo(this.boxes, box, node);
    });
    this.linksById = new Map(grid.links.map((link) => [link.id, link]));
    this.froms = new Set(grid.links.flatMap(({ a }) => grid.nodeOfPin.get(toPinKey(a)) ?? []));
    this.ties = new Set(flows.bodies.ties.map(({ node }) => node));
    this.hasBattery = grid.nodes.some(({ offer }) => offer?.can.includes('battery-negative'));
    const list = (isCranking: boolean) => flows.modeIds.flatMap((id, index) => (job.modes[id]!.cranking === isCranking ? [index] : []));
    this.modes = { cranking: list(true), other: list(false) };
  }

  listLoads(): LoadWays[] {
    const { grid } = this.context;
    const loads: LoadWays[] = [];
    grid.nodes.forEach(({ need, pins }, node) => {
      if (need === null || pins.length === 0 || (need.kind !== 'supply' && need.kind !== 'sensor-supply')) return;
      if (this.froms.has(node)) {
        if (this.isBox(node)) loads.push(this.traceFeed(node));
      } else if (need.currentA !== null) loads.push(this.traceLoad(node));
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
    const { steps, boxAt, linkIds, isFed, isBattery, isOutside } = this.climb(node, 'out', this.modes[when]);
    const back = this.traceBack(node, when);
    // the box that feeds it and all before it are the feed's own budget, and so is the way from the tie to battery negative on; a starter has no box
    const shared = boxAt === null || when === 'cranking' ? 0 : steps.length - boxAt;
    const shares = listShares(job, flows.modeIds, deviceId, when === 'cranking');
    const { on, heat } = toLoadCurrents(need!.currentA!, shares, need!.cycleS !== null && need!.cycleS <= standard.shortCycleS);
    const budgetV = standard.dropShare[need!.load ?? 'electronics'] * job.source.volts * (isOutside ? standard.aloneShare : 1);
    linkIds.reverse();
    const switches = this.listSwitches(node, linkIds);
    return {
      load: {
        id: toPinKey(pin),
        name: `${deviceId === null ? job.looms[pin.loomId]!.ends[pin.endId]!.name : job.devices[deviceId]!.name} ${need!.function}`,
        pin,
        deviceId,
        load: need!.load,
        currentA: need!.currentA!,
        onA: on,
        heatA: heat,
        inrushA: need!.inrushA,
        inrushMs: need!.inrushMs,
        linkIds,
        budgetV,
        totalBudgetV: budgetV + (isOutside || when === 'cranking' ? 0 : standard.feedShare * job.source.volts),
        isOutside,
        returns: back !== null,
        returnBy: need!.returnBy,
        switches,
      },
      out: steps.reverse().map((step, index) => ({ ...step, counts: index >= shared })),
      back,
      isFed,
      isBattery,
      wokenBy: switches.find(({ side }) => side === 'low')?.by ?? switches.findLast(({ linkId }) => linkId !== null)?.linkId ?? null,
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

  /** A pin from which fuses, channels or contacts lead straight to loads, whatever other boxes hang on it too. */
  private isBox(node: number): boolean {
    const { grid } = this.context;
    const isLoad = (one: number) => {
      const need = grid.nodes[one]!.need;
      return need?.kind === 'supply' && need.currentA !== null && !this.froms.has(one);
    };
    return grid.links.some((link) => {
      if (grid.nodeOfPin.get(toPinKey(link.a)) !== node) return false;
      const beyond = grid.nodeOfPin.get(toPinKey(link.b));
      return beyond !== undefined && grid.nets[grid.netOf[beyond]!]!.nodes.some(isLoad);
    });
  }

  /** The way from the battery to a box and from the ground studs back, everything on. */
  private traceFeed(node: number): LoadWays {
    const { grid, flows, job, standard } = this.context;
    const pin = grid.nodes[node]!.pins[0]!;
    const deviceId = grid.deviceAt.get(`${pin.loomId}/${pin.endId}`) ?? null;
    const { steps, linkIds, isFed, isBattery } = this.climb(node, 'out', this.modes.other);
    const edge = flows.edges[flows.parentEdge[node]!];
    const budgetV = standard.feedShare * job.source.volts;
    return {
      load: {
        id: toPinKey(pin),
        name: `${deviceId === null ? job.looms[pin.loomId]!.ends[pin.endId]!.name : job.devices[deviceId]!.unit || job.devices[deviceId]!.name} feed`,
        pin,
        deviceId,
        load: 'feed',
        currentA: this.measureMost(edge, this.modes.other),
        onA: edge?.on ?? flows.modeIds.map(() => 0),
        heatA: edge?.heat ?? flows.modeIds.map(() => 0),
        inrushA: null,
        inrushMs: null,
        linkIds: linkIds.reverse(),
        budgetV,
        totalBudgetV: budgetV,
        isOutside: false,
        returns: true,
        returnBy: 'pin',
        switches: this.listSwitches(null, linkIds),
      },
      out: steps.reverse(),
      back: { steps: this.traceTie(this.modes.other).map((step) => ({ ...step, counts: true })), next: [] },
      isFed,
      isBattery,
      wokenBy: null,
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
    // past the stud that battery negative is tied to the way is everybody's
    let counts = true;
    let isBody = false;
    const isStarter = modes === this.modes.cranking;
    const lost = () => ({ steps, linkIds, boxAt, root: null, isFed: false, isBattery: false, isOutside: false });
    for (;;) {
      const net = flows.nets[grid.netOf[node]!]!;
      if (net.root === null || seen.has(grid.netOf[node]!)) return lost();
      seen.add(grid.netOf[node]!);
      while (node !== net.root) {
        const edgeIndex = flows.parentEdge[node]!;
        const edge = grid.edges[edgeIndex]!;
        const next = edge.a === node ? edge.b : edge.a;
        if (way === 'back' && !isStarter && this.ties.has(node)) counts = false;
        if (!isStarter && node === flows.bodies.engine?.node) isBody = true;
        const flow = flows.edges[edgeIndex] ?? null;
        this.addEdgeSteps(steps, edgeIndex, node, next, { way, currentA: this.measureMost(flow, modes), flow, counts, isBody });
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
          isFed: way === 'back' || offer !== null || net.isOutside,
          isOutside: net.isOutside,
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
        linkId: link.id,
        milliohm,
        way,
        currentA,
        flow: net.current,
        counts,
        isBody,
      });
      boxAt = link.kind === 'switch' || link.kind === 'bar' || boxAt !== null ? boxAt : steps.length;
      linkIds.push(link.id);
      const beyond = grid.nodeOfPin.get(toPinKey(link.a));
      if (beyond === undefined) return lost();
      node = beyond;
    }
  }

  /** What flows while things are on, in the worst of these modes (calculations 3). */
  private measureMost(currents: Currents | null | undefined, modes: readonly number[]): number {
    return currents ? mostOf(modes.map((mode) => currents.on[mode]!)) : 0;
  }

  private addEdgeSteps(
    steps: WayStep[],
    edge: number,
    node: number,
    next: number,
    rest: Pick<WayStep, 'way' | 'currentA' | 'flow' | 'counts' | 'isBody'>,
  ): void {
    const { grid, job, standard } = this.context;
    const { wire } = grid.edges[edge]!;
    const addContact = (at: number, milliohm: number) => {
      const place = grid.nodes[at]!.pins[0]!;
      const words = `${job.looms[place.loomId]!.ends[place.endId]!.name} ${place.cavity}`;
      steps.push({ kind: 'contact', words, loomId: null, wireId: null, linkId: null, edge: -1, milliohm, ...rest });
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
    steps.push({ kind: 'wire', words, loomId, wireId, linkId: null, edge, milliohm: null, ...rest });
    if (grid.nodes[next]!.kind === 'splice')
      steps.push({
        kind: 'splice',
        words: 'splice',
        loomId,
        wireId: null,
        linkId: null,
        edge: -1,
        milliohm: standard.spliceMilliohm,
        ...rest,
      });
    crimp(next);
  }

  /** The ways back of a load: by its case, or by the return pins of its box; null where there is none. */
  private traceBack(node: number, when: 'cranking' | 'other'): Way | null {
    const { grid } = this.context;
    const need = grid.nodes[node]!.need!;
    if (need.returnBy === 'engine-case') return this.traceEngine(when);
    if (need.returnBy === 'chassis-case') return this.traceCase(node, when);
    const box = this.boxes.get(this.boxOfNode[node]!)!;
    const ofKind = (...kinds: CircuitKind[]) => box.filter((one) => kinds.includes(grid.nodes[one]!.need?.kind as CircuitKind));
    const first = need.kind === 'sensor-supply' ? ofKind('sensor-ground') : ofKind('power-ground', 'output');
    const second = first.length ? first : ofKind(need.kind === 'sensor-supply' ? 'power-ground' : 'sensor-ground');
    // a switch or a current loop without any ground goes home by its signal
    const returns = second.length ? second : ofKind('signal');
    const next = returns.map((one) => this.traceReturn(one, when));
    return next.length === 0 || next.includes(null) ? null : { steps: [], next: next as Way[] };
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
    const onwards = offer?.can.includes('chassis')
      ? this.traceChassis(root, when)
      : offer?.can.includes('engine-block')
        ? this.traceEngine(when)
        : undefined;
    if (onwards !== undefined) return onwards && { steps, next: [onwards] };
    if (!isSink(offer)) return { steps, next: [] };
    // a driver sends it on through the grounds of its box, which share it
    const grounds = (this.boxes.get(this.boxOfNode[root]!) ?? []).filter((one) => grid.nodes[one]!.need?.kind === 'power-ground');
    const next = grounds.map((ground) => this.traceReturn(ground, when));
    return { steps, next: next.includes(null) ? [] : (next as Way[]) };
  }

  /** From a ground stud through the chassis by what that stud carries, to the tie and by it to battery negative; null: it leads nowhere. */
  private traceChassis(stud: number, when: 'cranking' | 'other'): Way | null {
    const known = this.chassis[when].get(stud);
    if (known !== undefined) return known;
    const { flows, grid, job } = this.context;
    const own = grid.nodes[stud]!.offer!.chassisMilliohm ?? job.source.chassisMilliohm;
    const net = flows.nets[grid.netOf[stud]!]!;
    const way = this.traceBody(own === 'none' ? null : own, net.current, 'through the chassis', when);
    this.chassis[when].set(stud, way);
    return way;
  }

  /** From a case that is bolted to the chassis. */
  private traceCase(node: number, when: 'cranking' | 'other'): Way | null {
    const { flows, job } = this.context;
    return this.traceBody(job.source.chassisMilliohm, flows.drawn[node] ?? null, 'by its case through the chassis', when);
  }

  private traceBody(milliohm: number | null, flow: Currents | null, words: string, when: 'cranking' | 'other'): Way | null {
    const { flows } = this.context;
    if (milliohm === null || (this.hasBattery && flows.bodies.ties.length === 0)) return null;
    const modes = this.modes[when];
    const first: WayStep = {
      kind: 'chassis',
      way: 'back',
      words,
      loomId: null,
      wireId: null,
      linkId: null,
      edge: -1,
      milliohm,
      currentA: this.measureMost(flow, modes),
      flow,
      counts: true,
      isBody: false,
    };
    return { steps: [first, ...this.traceTie(modes)], next: [] };
  }

  /** From the chassis to battery negative. */
  private traceTie(modes: readonly number[]): readonly WayStep[] {
    const tie = this.context.flows.bodies.ties[0];
    if (!tie) return [];
    const known = this.tieSteps.get(modes) ?? this.climb(tie.node, 'back', modes).steps;
    this.tieSteps.set(modes, known);
    return known;
  }

  /** From the engine block over its strap; null where it has none. Without a battery in the job nothing is known of it. */
  private traceEngine(when: 'cranking' | 'other'): Way | null {
    const { engine } = this.context.flows.bodies;
    if (engine) return this.traceReturn(engine.node, when);
    return this.hasBattery ? null : { steps: [], next: [] };
  }
}
