import type { ShopStandard } from '../../catalogue';
import type { Job } from '../../model';
import { COPPER_PER_K } from '../measureHeat';
import type { PlannedWire } from '../types';
import { toPinKey, type Grid } from './createGrid';
import { isSink, listShares, type Currents, type Flows } from './measureFlows';
import type { PathStep, PlannedLoad } from './types';

/** A wire as planned, with what its resistance depends on. */
export interface TracedWire {
  loomId: string;
  wire: PlannedWire;
  /** hottest bundle it passes; null: no zone of its runs is known */
  runningC: number | null;
}

export interface TraceContext {
  job: Job;
  grid: Grid;
  flows: Flows;
  /** by loom/wire */
  wires: ReadonlyMap<string, TracedWire>;
  standard: ShopStandard;
}

export interface TracedLoads {
  loads: PlannedLoad[];
  /** by load: ways back that share its current evenly with the one it counts, which is the worst of them */
  twins: ReadonlyMap<string, PathStep[][]>;
}

/** Resistance of a piece of wire at its temperature, mΩ (calculations 3). */
export function measureResistance(r20MilliohmPerM: number, lengthMm: number, temperatureC: number): number {
  return (r20MilliohmPerM * lengthMm * (1 + COPPER_PER_K * (temperatureC - 20))) / 1000;
}

/** Every load pin of the vehicle with its way out and back, step by step, and the drop on it (calculations 3). */
export function tracePaths(context: TraceContext): TracedLoads {
  const tracer = new Tracer(context);
  const loads = tracer.listLoads();
  return { loads, twins: tracer.twins };
}

interface Climbed {
  /** load first */
  steps: PathStep[];
  linkIds: string[];
  /** steps up to and with the fuse, relay or channel nearest to the load; null: none on the way */
  boxAt: number | null;
  root: number | null;
  isFed: boolean;
  isBattery: boolean;
}

class Tracer {
  readonly twins = new Map<string, PathStep[][]>();
  /** of the load that is traced now */
  private beside: PathStep[][] = [];
  /** pins of one box, by unit or device or end */
  private readonly boxes = new Map<string, number[]>();
  private readonly linksById;
  /** the stud that ties the battery to the chassis */
  private readonly tie: number;

  constructor(private readonly context: TraceContext) {
    const { grid, flows } = context;
    grid.nodes.forEach((_, node) => {
      const box = this.boxOf(node);
      if (box !== null) this.boxes.set(box, [...(this.boxes.get(box) ?? []), node]);
    });
    this.linksById = new Map(grid.links.map((link) => [link.id, link]));
    this.tie = grid.nodes.findIndex(({ offer }, node) => {
      const { root } = flows.nets[grid.netOf[node]!]!;
      return offer?.can.includes('chassis') && root !== null && root !== node && grid.nodes[root]!.offer!.can.includes('battery-negative');
    });
  }

  listLoads(): PlannedLoad[] {
    const { grid } = this.context;
    const loads: PlannedLoad[] = [];
    grid.nodes.forEach(({ need, pins }, node) => {
      if (need === null || pins.length === 0 || (need.kind !== 'supply' && need.kind !== 'sensor-supply')) return;
      if (need.currentA !== null) loads.push(this.traceLoad(node));
      else if (this.isBox(node)) loads.push(this.traceFeed(node));
    });
    return loads;
  }

  private boxOf(node: number): string | null {
    const { grid, job } = this.context;
    const place = grid.nodes[node]!.pins[0];
    if (!place) return null;
    const end = `${place.loomId}/${place.endId}`;
    const deviceId = grid.deviceAt.get(end);
    return deviceId === undefined ? end : job.devices[deviceId]!.unit || deviceId;
  }

  private traceLoad(node: number): PlannedLoad {
    const { grid, flows, job, standard } = this.context;
    const { need, pins } = grid.nodes[node]!;
    const pin = pins[0]!;
    const deviceId = grid.deviceAt.get(`${pin.loomId}/${pin.endId}`) ?? null;
    const cranking = need!.load === 'starter';
    const modes = flows.modeIds.flatMap((id, index) => (job.modes[id]!.cranking === cranking ? [index] : []));
    const out = this.climb(node, 'out', modes);
    this.beside = [];
    const back = this.traceBack(node, modes);
    if (this.beside.length) this.twins.set(toPinKey(pin), this.beside);
    // the box that feeds it and all before it are the feed's own budget, and so is the way from the ground stud on
    const shared = out.boxAt === null ? 0 : out.steps.length - out.boxAt;
    const steps = [...out.steps.reverse().map((step, index) => ({ ...step, counts: index >= shared })), ...(back?.steps ?? [])];
    const milliohms = steps.reduce((sum, { milliohm }) => sum + milliohm, 0);
    const name = `${deviceId === null ? job.looms[pin.loomId]!.ends[pin.endId]!.name : job.devices[deviceId]!.name} ${need!.function}`;
    return {
      id: toPinKey(pin),
      name,
      pin,
      deviceId,
      load: need!.load,
      currentA: need!.currentA!,
      rmsA: listShares(job, flows.modeIds, deviceId, cranking).map((share) => need!.currentA! * Math.sqrt(share)),
      inrushA: need!.inrushA,
      inrushMs: need!.inrushMs,
      linkIds: out.linkIds.reverse(),
      steps: out.isFed ? steps : [],
      dropV: out.isFed ? steps.reduce((sum, { dropV, counts }) => sum + (counts ? dropV : 0), 0) : 0,
      totalV: out.isFed ? steps.reduce((sum, { dropV }) => sum + dropV, 0) : 0,
      budgetV: standard.dropShare[need!.load ?? 'electronics'] * job.source.volts,
      faultA: out.isBattery && back ? job.source.volts / ((job.source.milliohm + milliohms) / 1000) : null,
      returns: back !== null,
    };
  }

  /** A pin from which fuses, channels or contacts lead straight to loads. */
  private isBox(node: number): boolean {
    const { grid } = this.context;
    const froms = new Set(grid.links.flatMap(({ a }) => grid.nodeOfPin.get(toPinKey(a)) ?? []));
    return (
      froms.has(node) &&
      !grid.links.some((link) => {
        if (grid.nodeOfPin.get(toPinKey(link.a)) !== node) return false;
        const beyond = grid.nodeOfPin.get(toPinKey(link.b));
        return beyond !== undefined && grid.nets[grid.netOf[beyond]!]!.nodes.some((other) => froms.has(other));
      })
    );
  }

  /** The way from the battery to a box and from the ground studs back, everything on. */
  private traceFeed(node: number): PlannedLoad {
    const { grid, flows, job, standard } = this.context;
    const pin = grid.nodes[node]!.pins[0]!;
    const deviceId = grid.deviceAt.get(`${pin.loomId}/${pin.endId}`) ?? null;
    const modes = flows.modeIds.flatMap((id, index) => (job.modes[id]!.cranking ? [] : [index]));
    const out = this.climb(node, 'out', modes);
    const back = this.traceChassis(modes)?.steps ?? [];
    const steps = [...out.steps.reverse(), ...back].map((step) => ({ ...step, counts: true }));
    const edge = flows.edges[flows.parentEdge[node]!];
    const dropV = out.isFed ? steps.reduce((sum, one) => sum + one.dropV, 0) : 0;
    const milliohms = steps.reduce((sum, one) => sum + one.milliohm, 0);
    return {
      id: toPinKey(pin),
      name: `${deviceId === null ? job.looms[pin.loomId]!.ends[pin.endId]!.name : job.devices[deviceId]!.unit || job.devices[deviceId]!.name} feed`,
      pin,
      deviceId,
      load: 'feed',
      currentA: this.measureMost(edge, modes),
      rmsA: edge?.rms ?? flows.modeIds.map(() => 0),
      inrushA: null,
      inrushMs: null,
      linkIds: out.linkIds.reverse(),
      steps: out.isFed ? steps : [],
      dropV,
      totalV: dropV,
      budgetV: standard.feedShare * job.source.volts,
      faultA: out.isBattery ? job.source.volts / ((job.source.milliohm + milliohms) / 1000) : null,
      returns: true,
    };
  }

  /** From a pin towards what feeds or takes its current, through links on the way. Load first. */
  private climb(from: number, way: PathStep['way'], modes: readonly number[]): Climbed {
    const { grid, flows, standard } = this.context;
    const steps: PathStep[] = [];
    const linkIds: string[] = [];
    let boxAt: number | null = null;
    const seen = new Set<number>();
    let node = from;
    // past the ground stud the way is everybody's
    let counts = true;
    for (;;) {
      const net = flows.nets[grid.netOf[node]!]!;
      if (net.root === null || seen.has(grid.netOf[node]!)) return { steps, linkIds, boxAt, root: null, isFed: false, isBattery: false };
      seen.add(grid.netOf[node]!);
      while (node !== net.root) {
        const edgeIndex = flows.parentEdge[node]!;
        const edge = grid.edges[edgeIndex]!;
        const next = edge.a === node ? edge.b : edge.a;
        const currentA = this.measureMost(flows.edges[edgeIndex], modes);
        if (way === 'back' && grid.nodes[node]!.offer?.can.includes('chassis')) counts = false;
        const first = steps.length;
        this.addEdgeSteps(steps, edge.wire, node, next, way, currentA);
        if (!counts) for (let at = first; at < steps.length; at += 1) steps[at] = { ...steps[at]!, counts };
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
      steps.push(toStep('link', way, link.name, null, null, milliohm, currentA));
      boxAt = link.kind === 'switch' || link.kind === 'bar' || boxAt !== null ? boxAt : steps.length;
      linkIds.push(link.id);
      const beyond = grid.nodeOfPin.get(toPinKey(link.a));
      if (beyond === undefined) return { steps, linkIds, boxAt, root: null, isFed: false, isBattery: false };
      node = beyond;
    }
  }

  /** Design current: r.m.s. of the worst of these modes; while the engine is cranked, all that is on. */
  private measureMost(currents: Currents | null | undefined, modes: readonly number[]): number {
    const { flows, job } = this.context;
    return modes.reduce((most, mode) => {
      const values = job.modes[flows.modeIds[mode]!]!.cranking ? currents?.peak : currents?.rms;
      return Math.max(most, values?.[mode] ?? 0);
    }, 0);
  }

  private addEdgeSteps(
    steps: PathStep[],
    wire: { loomId: string; wireId: string; circuitId: string } | null,
    node: number,
    next: number,
    way: PathStep['way'],
    currentA: number,
  ): void {
    const { grid, job, standard, wires } = this.context;
    const words = (at: number) => {
      const place = grid.nodes[at]!.pins[0]!;
      return `${job.looms[place.loomId]!.ends[place.endId]!.name} ${place.cavity}`;
    };
    if (wire === null) {
      steps.push(toStep('contact', way, words(node), null, null, standard.contactMilliohm, currentA));
      return;
    }
    const crimp = (at: number) => {
      if (grid.nodes[at]!.kind === 'splice' || grid.at[at]!.some((edge) => grid.edges[edge]!.wire === null)) return;
      const place = grid.nodes[at]!.pins[0]!;
      const isBolted = job.looms[place.loomId]!.ends[place.endId]!.kind !== 'connector';
      steps.push(toStep('contact', way, words(at), null, null, isBolted ? standard.ringMilliohm : standard.contactMilliohm, currentA));
    };
    crimp(node);
    const { wire: planned, runningC } = wires.get(`${wire.loomId}/${wire.wireId}`)!;
    const milliohm = measureResistance(planned.conductor.r20MilliohmPerM, planned.lengthMm, runningC ?? standard.unknownZoneC);
    const name = job.looms[wire.loomId]!.circuits[wire.circuitId]!.name;
    steps.push(toStep('wire', way, `${planned.number} ${name}`, wire.loomId, wire.wireId, milliohm, currentA));
    if (grid.nodes[next]!.kind === 'splice')
      steps.push(toStep('splice', way, 'splice', wire.loomId, null, standard.spliceMilliohm, currentA));
    crimp(next);
  }

  /** The worst way back from a load's box; null where there is none. A device without any return pin is grounded by its case. */
  private traceBack(node: number, modes: readonly number[]): { steps: PathStep[] } | null {
    const { grid, job } = this.context;
    const { need, pins } = grid.nodes[node]!;
    const box = this.boxes.get(this.boxOf(node)!)!;
    const kinds = need!.kind === 'sensor-supply' ? ['sensor-ground', 'power-ground'] : ['power-ground', 'output'];
    const end = job.looms[pins[0]!.loomId]!.ends[pins[0]!.endId]!;
    const returns = box.filter((one) => kinds.includes(grid.nodes[one]!.need?.kind ?? ''));
    const wanted = Object.values(end.pins).some(({ kind }) => kinds.includes(kind));
    if (returns.length === 0) return wanted || need!.kind === 'sensor-supply' ? null : this.traceChassis(modes);
    const ways = returns.map((one) => this.traceReturn(one, modes));
    if (ways.includes(null)) return null;
    const sum = (steps: PathStep[]) => steps.reduce((total, { dropV }) => total + dropV, 0);
    const worst = (ways as PathStep[][]).reduce((most, one) => (sum(one) > sum(most) ? one : most));
    this.beside.push(...(ways as PathStep[][]).filter((one) => one !== worst));
    return { steps: worst };
  }

  private traceReturn(node: number, modes: readonly number[]): PathStep[] | null {
    const { grid } = this.context;
    const { steps, root } = this.climb(node, 'back', modes);
    if (root === null) return null;
    const can: readonly string[] = grid.nodes[root]!.offer?.can ?? [];
    if (can.includes('chassis')) return [...steps, ...(this.traceChassis(modes)?.steps ?? [])];
    if (!isSink(grid.nodes[root]!.offer)) return steps;
    // a driver sends it on through the grounds of its box, which share it
    const grounds = (this.boxes.get(this.boxOf(root)!) ?? []).filter((one) => grid.nodes[one]!.need?.kind === 'power-ground');
    const ways = grounds.map((ground) => this.traceReturn(ground, modes));
    if (ways.length === 0 || ways.includes(null)) return steps;
    const sum = (one: PathStep[]) => one.reduce((total, { dropV }) => total + dropV, 0);
    const worst = (ways as PathStep[][]).reduce((most, one) => (sum(one) > sum(most) ? one : most));
    this.beside.push(...(ways as PathStep[][]).filter((one) => one !== worst));
    return [...steps, ...worst];
  }

  private traceChassis(modes: readonly number[]): { steps: PathStep[] } | null {
    const { flows, job } = this.context;
    if (this.tie === -1) return { steps: [] };
    const currentA = this.measureMost(flows.edges[flows.parentEdge[this.tie]!], modes);
    return {
      steps: [
        toStep('chassis', 'back', 'through the chassis', null, null, job.source.chassisMilliohm, currentA),
        ...this.climb(this.tie, 'back', modes).steps,
      ].map((step) => ({ ...step, counts: false })),
    };
  }
}

function toStep(
  kind: PathStep['kind'],
  way: PathStep['way'],
  words: string,
  loomId: string | null,
  wireId: string | null,
  milliohm: number,
  currentA: number,
): PathStep {
  return { kind, way, words, loomId, wireId, milliohm, currentA, dropV: (milliohm * currentA) / 1000, counts: true };
}
