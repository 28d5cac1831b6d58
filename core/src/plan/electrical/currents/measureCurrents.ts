import type { ShopStandard } from '../../../catalogue';
import type { Capability, CircuitKind, Job, PinOffer } from '../../../model';
import { compareIds, pushTo } from '../../../units';
import { addCurrents, mostOf, noCurrents, toLoadCurrents, type Currents } from './currents';
import { findLive, listSwitchedOff } from '../switching/findLive';
import { findBodies } from './findBodies';
import type { VehicleCurrents, NetCurrents } from './vehicleCurrents';
import { measureReturns } from '../drop/measureReturns';
import { type Netlist, type SwitchgearLink, toPinKey } from '../../../netlist';

const RETURN_KINDS: readonly CircuitKind[] = ['power-ground', 'sensor-ground', 'output'];
/** Pins of a box that take nothing in from outside: a bridge feeds what it takes back, the others are no inputs of it. */
const NOT_TAKEN: readonly Capability[] = ['half-bridge', 'ground', 'chassis', 'engine-block', 'battery-positive', 'battery-negative'];
const SINKS: readonly Capability[] = ['low-side', 'ignition'];

/** Does a pin of a box take a load's current from outside and send it out of the grounds of its box? A half bridge feeds its load itself. */
export const isSink = (offer: PinOffer | null): boolean => offer?.can.some((one) => SINKS.includes(one)) === true;

/**
 * Share of the time that a load is on in each mode. A mode its device says nothing of counts as fully on; a starter only where it turns.
 * What is switched off draws nothing. node: its pin in the netlist.
 */
export function listShares(
  job: Job,
  { modeIds, isOff }: Pick<VehicleCurrents, 'modeIds' | 'isOff'>,
  { deviceId, isStarter, node }: { deviceId: string | null; isStarter: boolean; node: number },
): number[] {
  const duty = deviceId === null ? {} : job.devices[deviceId]!.duty;
  const shares = modeIds.map((mode) =>
    Object.hasOwn(duty, mode) ? duty[mode]! : isStarter && job.modes[mode]!.engine !== 'cranking' ? 0 : 1,
  );
  return shares.map((share, mode) => (isOff[mode]?.[node] ? 0 : share));
}

/** Current on every wire of the netlist in every mode (calculations 3): what each pin draws, summed towards what feeds it, and home again. */
export function measureCurrents(job: Job, netlist: Netlist, standard: ShopStandard): VehicleCurrents {
  return new FlowMaker(job, netlist, standard).make();
}

class FlowMaker {
  private readonly modeIds: string[];
  private readonly flows: VehicleCurrents;
  /** load pins at a node, and behind links from it, whose current nobody gave */
  private readonly unknown: number[];
  private readonly linksInto = new Map<number, SwitchgearLink[]>();
  private readonly linksFrom = new Map<number, SwitchgearLink[]>();
  private readonly zero: Currents;
  private readonly state: ('open' | 'busy' | 'done')[];
  /** pins of a box, by unit or device or end */
  private readonly units = new Map<string, number[]>();
  /** of circuits whose current is known and whose pins are not: on every wire of theirs whole, once */
  private readonly whole = new Map<string, Currents>();

  constructor(
    private readonly job: Job,
    private readonly netlist: Netlist,
    private readonly standard: ShopStandard,
  ) {
    this.modeIds = Object.keys(job.modes).sort(compareIds);
    this.zero = this.none();
    this.unknown = netlist.nodes.map(() => 0);
    this.state = netlist.nets.map(() => 'open');
    this.flows = {
      modeIds: this.modeIds,
      edges: netlist.edges.map(() => null),
      drawn: netlist.nodes.map(() => null),
      unknownBeyond: netlist.edges.map(() => 0),
      parentEdge: netlist.nodes.map(() => -1),
      nets: [],
      live: findLive(job, netlist),
      isOff: [],
      bodies: { engine: null, ties: [] },
    };
    for (const link of netlist.links) {
      const a = netlist.nodeOfPin.get(toPinKey(link.a));
      const b = netlist.nodeOfPin.get(toPinKey(link.b));
      if (a !== undefined) pushTo(this.linksFrom, a, link);
      if (b !== undefined) pushTo(this.linksInto, b, link);
    }
    netlist.nodes.forEach(({ pins }, node) => {
      const place = pins[0];
      if (!place) return;
      const deviceId = netlist.deviceAt.get(`${place.loomId}/${place.endId}`);
      pushTo(this.units, deviceId === undefined ? `${place.loomId}/${place.endId}` : job.devices[deviceId]!.unit || deviceId, node);
    });
  }

  make(): VehicleCurrents {
    const { netlist, flows } = this;
    flows.isOff = this.listOff();
    flows.nets = netlist.nets.map((_, index) => this.findRoot(index));
    netlist.nets.forEach((_, index) => this.spanNet(index));
    flows.bodies = findBodies(this.job, netlist, flows);
    this.listDraws();
    const order = netlist.nets.map((_, index) => index);
    const kindOf = (index: number) => netlist.nets[index]!.kind;
    const isReturn = (index: number) => kindOf(index) === 'power-ground' || kindOf(index) === 'sensor-ground';
    // what feeds first; what the returns of each device take; what its box sends on; the bodies last
    this.drawReturns(['output', 'sensor-ground', 'signal'], false);
    for (const index of order) if (kindOf(index) !== 'power-ground') this.measureNet(index);
    this.drawReturns(['power-ground'], true);
    const last = new Set([flows.bodies.engine?.net, ...flows.bodies.ties.map(({ net }) => net)]);
    for (const index of order) if (isReturn(index) && !last.has(index)) this.measureNet(index);
    this.returnByBodies(order.filter(isReturn), last);
    return flows;
  }

  private none(): Currents {
    return noCurrents(this.modeIds.length);
  }

  private draw(node: number, amount: Currents, times = 1): void {
    addCurrents((this.flows.drawn[node] ??= this.none()), amount, times);
  }

  /** What a load pin draws by itself; null: nobody said. */
  private toDraw(node: number): Currents | null {
    const { need, pins } = this.netlist.nodes[node]!;
    if (!need || need.currentA === null) return null;
    const deviceId = this.netlist.deviceAt.get(`${pins[0]!.loomId}/${pins[0]!.endId}`) ?? null;
    const shares = listShares(this.job, this.flows, { deviceId, isStarter: need.load === 'starter', node });
    return toLoadCurrents(need.currentA, shares, need.cycleS !== null && need.cycleS <= this.standard.shortCycleS);
  }

  /** A supply is off with its net; what a box sinks or hands back, with all that feeds it. */
  private listOff(): boolean[][] {
    const { netlist } = this;
    const nets = listSwitchedOff(this.job, netlist, this.flows.live);
    const feedsOf = new Map<number, readonly number[]>();
    for (const nodes of this.units.values()) {
      const feeds = nodes.filter((node) => {
        const { need } = netlist.nodes[node]!;
        return need?.kind === 'supply' && need.currentA !== null;
      });
      for (const node of nodes) feedsOf.set(node, feeds);
    }
    return nets.map((off) => {
      if (!off.includes(true)) return [];
      return netlist.nodes.map(({ need }, node) => {
        const isOwn = need === null || need.kind === 'supply' || need.kind === 'sensor-supply';
        const feeds = isOwn ? [node] : (feedsOf.get(node) ?? []);
        return feeds.length > 0 && feeds.every((one) => off[netlist.netOf[one]!]!);
      });
    });
  }

  private listDraws(): void {
    const { netlist, job, flows } = this;
    for (const nodes of this.units.values()) {
      const isSupplied = nodes.some((node) => {
        const need = netlist.nodes[node]!.need;
        return need?.kind === 'supply' && need.currentA !== null;
      });
      for (const node of nodes) {
        const { need } = netlist.nodes[node]!;
        if (!need || RETURN_KINDS.includes(need.kind)) {
          if (need && need.currentA === null && !isSupplied && (need.kind === 'output' || nodes.length === 1)) this.unknown[node] = 1;
          continue;
        }
        const drawn = this.toDraw(node);
        if (drawn) this.draw(node, drawn);
        else if (need.kind === 'supply' && !this.linksFrom.has(node) && !this.linksInto.has(node)) this.unknown[node] = 1;
      }
    }
    for (const { circuits } of netlist.nets)
      for (const { loomId, circuitId } of circuits) {
        const circuit = job.looms[loomId]!.circuits[circuitId]!;
        if (circuit.currentA === null) continue;
        const [source, ...others] = circuit.terminations.map((place) => netlist.nodeOfPin.get(toPinKey({ loomId, ...place })));
        const isMated = (node: number) => netlist.at[node]!.some((edge) => netlist.edges[edge]!.wire === null);
        const pins = others.flatMap((node) => node ?? []);
        if (source === undefined || pins.some((node) => isMated(node) || this.isKnown(node))) continue;
        for (const node of pins) this.unknown[node] = 0;
        const currents = toLoadCurrents(
          circuit.currentA,
          this.modeIds.map((_, mode) => (flows.isOff[mode]?.[source] ? 0 : 1)),
          false,
        );
        this.whole.set(`${loomId}/${circuitId}`, currents);
        this.draw(source, currents);
      }
  }

  /** Does a pin say by itself what it draws, takes, or hands on? */
  private isKnown(node: number): boolean {
    const { need, offer } = this.netlist.nodes[node]!;
    if (offer !== null || this.linksFrom.has(node) || this.linksInto.has(node)) return true;
    return need !== null && (need.currentA !== null || need.kind === 'power-ground' || need.kind === 'sensor-ground');
  }

  /** What goes home by each return pin of these kinds. isWhole: with what drivers and sensor grounds of the same box have taken in. */
  private drawReturns(kinds: readonly CircuitKind[], isWhole: boolean): void {
    for (const nodes of this.units.values())
      for (const [node, currents] of this.measureUnit(nodes, isWhole))
        if (kinds.includes(this.netlist.nodes[node]!.need!.kind)) this.draw(node, currents);
  }

  private measureUnit(nodes: readonly number[], isWhole: boolean): Map<number, Currents> {
    const { netlist } = this;
    const modes = this.modeIds.length;
    const ofKind = (...kinds: CircuitKind[]) => nodes.filter((node) => kinds.includes(netlist.nodes[node]!.need?.kind as CircuitKind));
    const [grounds, sensorGrounds, outputPins] = [ofKind('power-ground'), ofKind('sensor-ground'), ofKind('output')];
    const hasReturn = grounds.length + sensorGrounds.length + outputPins.length > 0;
    const signals = hasReturn ? [] : ofKind('signal').filter((node) => netlist.nodes[node]!.need!.currentA === null);
    if (!hasReturn && signals.length === 0) return new Map();
    const drawnBy = (pins: readonly number[]) =>
      pins.flatMap((node) => (netlist.nodes[node]!.need!.returnBy === 'pin' ? (this.toDraw(node) ?? []) : []));
    const supplies = drawnBy(ofKind('supply', 'signal', 'data'));
    // a box that states what it uses itself at its ground alone
    const stated = supplies.length === 0 ? grounds.flatMap((node) => this.toDraw(node) ?? []) : [];
    // a bridge drives its load from its own supply and takes it back: out by one pin, home by the other
    const bridged = outputPins.filter((node) => netlist.nodes[node]!.need!.wants === 'half-bridge');
    const outputs = outputPins.filter((node) => !bridged.includes(node)).map((node) => ({ node, stated: this.toDraw(node) ?? this.zero }));
    const currents = measureReturns(
      { supplies: [...supplies, ...stated], sensors: drawnBy(ofKind('sensor-supply')), outputs, sensorGrounds, grounds, signals },
      modes,
      isWhole ? this.measureTaken(nodes) : null,
    );
    for (const node of bridged) currents.set(node, this.toDraw(node) ?? this.zero);
    return currents;
  }

  /** What comes into a box by its drivers and sensor grounds, less what goes out of its own rails. */
  private measureTaken(nodes: readonly number[]): Currents | null {
    const { netlist, flows } = this;
    let taken: Currents | null = null;
    for (const node of nodes) {
      const { root, current, fedBy } = flows.nets[netlist.netOf[node]!]!;
      const { offer } = netlist.nodes[node]!;
      if (root !== node || offer === null) continue;
      const isTaken = offer.volts === null && !offer.can.some((one) => NOT_TAKEN.includes(one));
      const isFed = offer.volts !== null && fedBy === null && !offer.can.includes('battery-positive');
      if (isTaken || isFed) addCurrents((taken ??= this.none()), current, isTaken ? 1 : -1);
    }
    return taken;
  }

  /** What comes to the engine block goes over its strap, what comes to the chassis through the ties to battery negative. */
  private returnByBodies(grounds: readonly number[], last: ReadonlySet<number | undefined>): void {
    const { netlist, flows } = this;
    const { engine, ties } = flows.bodies;
    const byCase = (how: string) => netlist.nodes.flatMap(({ need }, node) => (need?.returnBy === how ? (this.toDraw(node) ?? []) : []));
    const rootCan = (index: number, capability: Capability) => {
      const { root } = flows.nets[index]!;
      return root !== null && netlist.nodes[root]!.offer?.can.includes(capability) === true;
    };
    if (engine) {
      for (const current of byCase('engine-case')) this.draw(engine.node, current);
      for (const index of grounds)
        if (!last.has(index) && rootCan(index, 'engine-block')) this.draw(engine.node, flows.nets[index]!.current);
      if (!ties.some(({ net }) => net === engine.net)) this.measureNet(engine.net);
    }
    const tie = ties[0];
    if (!tie) return;
    if (this.job.source.chassisMilliohm !== null) for (const current of byCase('chassis-case')) this.draw(tie.node, current);
    for (const index of grounds) {
      const { root, current } = flows.nets[index]!;
      if (root === null || ties.some(({ net }) => net === index) || !rootCan(index, 'chassis')) continue;
      if (netlist.nodes[root]!.offer!.chassisMilliohm !== 'none') this.draw(tie.node, current);
    }
    for (const net of new Set(ties.map((one) => one.net))) this.measureNet(net);
  }

  private findRoot(index: number): NetCurrents {
    const { netlist } = this;
    const { nodes, kind } = netlist.nets[index]!;
    const isReturn = kind === 'power-ground' || kind === 'sensor-ground';
    const rank = (node: number): number => {
      const offer = netlist.nodes[node]!.offer;
      if (isReturn) {
        if (offer?.can.includes('battery-negative')) return 6;
        if (offer?.can.includes('chassis')) return kind === 'power-ground' ? 5 : 2;
        if (offer?.can.includes('engine-block')) return kind === 'power-ground' ? 4 : 1.5;
        if (offer?.can.includes('ground') || offer?.can.includes('sensor-ground')) return 3;
      } else {
        if (offer?.can.includes('battery-positive')) return 5;
        if (this.linksInto.has(node)) return 4;
        if (offer && offer.volts !== null) return 3;
      }
      return offer ? 1 : 0;
    };
    const ranked = nodes.filter((node) => rank(node) > 0).sort((a, b) => rank(b) - rank(a) || a - b);
    const outside = ranked.length === 0 ? this.findOutside(index) : null;
    const root = ranked[0] ?? outside;
    const feeds = isReturn ? [] : ranked.filter((node) => rank(node) >= 3);
    return {
      root,
      isOutside: outside !== null,
      feeds,
      fedBy: root === null ? null : (this.linksInto.get(root)?.[0] ?? null),
      current: this.zero,
      unknown: 0,
    };
  }

  /** A circuit's source at an end that nothing in the job mates with and that needs nothing: something outside is joined to it. */
  private findOutside(index: number): number | null {
    const { netlist } = this;
    const node = this.findFirstSource(index);
    const { need, pins } = netlist.nodes[node]!;
    const isMated = netlist.at[node]!.some((edge) => netlist.edges[edge]!.wire === null);
    const place = pins[0];
    if (!place || need !== null || isMated) return null;
    const end = this.job.looms[place.loomId]!.ends[place.endId]!;
    return Object.keys(end.pins).length === 0 && !netlist.deviceAt.has(`${place.loomId}/${place.endId}`) ? node : null;
  }

  /** The tree of a net, away from its root; of a net without one, from its first circuit's source. */
  private spanNet(index: number): void {
    const { netlist, flows } = this;
    const order = [flows.nets[index]!.root ?? this.findFirstSource(index)];
    const seen = new Set(order);
    for (let at = 0; at < order.length; at += 1)
      for (const edgeIndex of netlist.at[order[at]!]!) {
        const { a, b } = netlist.edges[edgeIndex]!;
        const next = a === order[at] ? b : a;
        if (seen.has(next)) continue;
        seen.add(next);
        flows.parentEdge[next] = edgeIndex;
        order.push(next);
      }
    this.orders[index] = order;
  }

  /** nodes of each net, parents first */
  private readonly orders: number[][] = [];

  /** Sum what each pin draws towards the root; feeds of links beyond are measured first. */
  private measureNet(index: number): void {
    if (this.state[index] !== 'open') return;
    this.state[index] = 'busy';
    const { netlist, flows } = this;
    const flow = flows.nets[index]!;
    for (const node of netlist.nets[index]!.nodes)
      for (const link of this.linksFrom.get(node) ?? []) {
        const beyond = netlist.nodeOfPin.get(toPinKey(link.b));
        const net = beyond === undefined ? undefined : netlist.netOf[beyond]!;
        if (net === undefined || net === index || flows.nets[net]!.fedBy?.id !== link.id) continue;
        this.measureNet(net);
        this.draw(node, flows.nets[net]!.current);
        this.unknown[node]! += flows.nets[net]!.unknown;
      }
    const sums = new Map<number, Currents>();
    const unknown = new Map<number, number>();
    const order = this.orders[index]!;
    for (let at = order.length - 1; at >= 0; at -= 1) {
      const node = order[at]!;
      const own = flows.drawn[node];
      // most pins draw nothing: they share one zero
      let sum = sums.get(node);
      if (own) addCurrents((sum ??= this.none()), own);
      const count = (unknown.get(node) ?? 0) + this.unknown[node]!;
      const edgeIndex = flows.parentEdge[node]!;
      if (at === 0) {
        flow.current = sum ?? this.zero;
        flow.unknown = count;
        break;
      }
      const edge = netlist.edges[edgeIndex]!;
      const whole = edge.wire && this.whole.get(`${edge.wire.loomId}/${edge.wire.circuitId}`);
      flows.edges[edgeIndex] = whole ? atLeast(sum ?? this.zero, whole) : (sum ?? this.zero);
      flows.unknownBeyond[edgeIndex] = count;
      const parent = edge.a === node ? edge.b : edge.a;
      if (sum) {
        const above = sums.get(parent);
        if (above) addCurrents(above, sum);
        else sums.set(parent, { on: [...sum.on], heat: [...sum.heat], mean: [...sum.mean] });
      }
      if (count) unknown.set(parent, (unknown.get(parent) ?? 0) + count);
    }
    this.state[index] = 'done';
  }

  private findFirstSource(index: number): number {
    const { circuits, nodes } = this.netlist.nets[index]!;
    const first = circuits[0]!;
    const [source] = this.job.looms[first.loomId]!.circuits[first.circuitId]!.terminations;
    return (source && this.netlist.nodeOfPin.get(toPinKey({ loomId: first.loomId, ...source }))) ?? nodes[0]!;
  }
}

/** A wire of a circuit of known current and unknown pins carries the whole of it, whatever else is known to pass. */
function atLeast(sum: Currents, whole: Currents): Currents {
  const more = (key: keyof Currents) => sum[key].map((value, mode) => Math.max(value, whole[key][mode]!));
  return mostOf(sum.on) === 0 ? whole : { on: more('on'), heat: more('heat'), mean: more('mean') };
}
