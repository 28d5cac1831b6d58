import { pushTo } from '../../../units';
import { toPinKey, type SwitchgearLink } from '../../../netlist';
import { toLoadCurrents } from './currents';
import type { CurrentPaths, PathContext } from './currentPaths';
import { isSink, listShares } from './measureCurrents';
import { PathClimber } from './pathClimber';
import { ReturnTracer } from './returnTracer';
import type { PlannedLoad } from '../types';

/** Every load pin of the vehicle, and every pin from which a box feeds its loads, with its ways out and back (calculations 3). */
export function listCurrentPaths(context: PathContext): CurrentPaths[] {
  return new Tracer(context).listLoads();
}

class Tracer {
  /** pins of one box, by unit or device or end */
  private readonly boxes = new Map<string, number[]>();
  private readonly boxOfNode: (string | null)[];
  private readonly linksById: ReadonlyMap<string, SwitchgearLink>;
  /** nodes from which links lead on, with the nodes that they lead to */
  private readonly leads = new Map<number, number[]>();
  private readonly climber: PathClimber;
  private readonly returns: ReturnTracer;

  constructor(private readonly context: PathContext) {
    const { netlist } = context;
    this.boxOfNode = netlist.nodes.map((_, node) => this.findBox(node));
    this.boxOfNode.forEach((box, node) => {
      if (box !== null) pushTo(this.boxes, box, node);
    });
    this.linksById = new Map(netlist.links.map((link) => [link.id, link]));
    for (const { a, b } of netlist.links) {
      const [from, to] = [netlist.nodeOfPin.get(toPinKey(a)), netlist.nodeOfPin.get(toPinKey(b))];
      if (from === undefined) continue;
      const known = this.leads.get(from);
      if (!known) this.leads.set(from, to === undefined ? [] : [to]);
      else if (to !== undefined) known.push(to);
    }
    this.climber = new PathClimber(context);
    this.returns = new ReturnTracer(context, this.climber, (node) => this.listBox(node));
  }

  listLoads(): CurrentPaths[] {
    const { netlist } = this.context;
    const loads: CurrentPaths[] = [];
    netlist.nodes.forEach(({ need, pins }, node) => {
      if (need === null || pins.length === 0 || (need.kind !== 'supply' && need.kind !== 'sensor-supply')) return;
      if (this.leads.has(node)) {
        if (this.isBox(node)) loads.push(this.traceFeed(node));
      } else if (need.currentA !== null) loads.push(this.traceLoad(node));
    });
    return loads;
  }

  private findBox(node: number): string | null {
    const { netlist, job } = this.context;
    const place = netlist.nodes[node]!.pins[0];
    if (!place) return null;
    const end = `${place.loomId}/${place.endId}`;
    const deviceId = netlist.deviceAt.get(end);
    return deviceId === undefined ? end : job.devices[deviceId]!.unit || deviceId;
  }

  private listBox(node: number): readonly number[] {
    return this.boxes.get(this.boxOfNode[node]!) ?? [];
  }

  private traceLoad(node: number): CurrentPaths {
    const { netlist, flows, job, standard } = this.context;
    const { need, pins } = netlist.nodes[node]!;
    const pin = pins[0]!;
    const deviceId = netlist.deviceAt.get(`${pin.loomId}/${pin.endId}`) ?? null;
    const when = need!.load === 'starter' ? 'cranking' : 'other';
    const { steps, boxAt, linkIds, isFed, isBattery, isOutside } = this.climber.climb(node, 'out', when);
    const back = this.returns.traceBack(node, when);
    // the box that feeds it and all before it are the feed's own budget, and so is the way from the tie to battery negative on; a starter has no box
    const shared = boxAt === null || when === 'cranking' ? 0 : steps.length - boxAt;
    const shares = listShares(job, flows, { deviceId, isStarter: when === 'cranking', node });
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
    const { netlist, flows, job } = this.context;
    const high = linkIds.flatMap((id): PlannedLoad['switches'] => {
      const { kind, name } = this.linksById.get(id)!;
      return kind === 'channel' || kind === 'relay' || kind === 'switch' ? [{ side: 'high', by: name, linkId: id }] : [];
    });
    if (node === null) return high;
    const low = this.listBox(node).flatMap((one) => {
      if (netlist.nodes[one]!.need?.kind !== 'output') return [];
      const { root } = flows.nets[netlist.netOf[one]!]!;
      const place = root === null || !isSink(netlist.nodes[root]!.offer) ? undefined : netlist.nodes[root]!.pins[0];
      return place ? [`${job.looms[place.loomId]!.ends[place.endId]!.name} ${place.cavity}`] : [];
    });
    return [...high, ...[...new Set(low)].map((by) => ({ side: 'low' as const, by, linkId: null }))];
  }

  /** A pin from which fuses, channels or contacts lead straight to loads, whatever other boxes hang on it too. */
  private isBox(node: number): boolean {
    const { netlist } = this.context;
    const isLoad = (one: number) => {
      const need = netlist.nodes[one]!.need;
      return need?.kind === 'supply' && need.currentA !== null && !this.leads.has(one);
    };
    return this.leads.get(node)!.some((beyond) => netlist.nets[netlist.netOf[beyond]!]!.nodes.some(isLoad));
  }

  /** The way from the battery to a box and from the ground studs back, everything on. */
  private traceFeed(node: number): CurrentPaths {
    const { netlist, flows, job, standard } = this.context;
    const pin = netlist.nodes[node]!.pins[0]!;
    const deviceId = netlist.deviceAt.get(`${pin.loomId}/${pin.endId}`) ?? null;
    const { steps, linkIds, isFed, isBattery } = this.climber.climb(node, 'out', 'other');
    const edge = flows.edges[flows.parentEdge[node]!];
    const budgetV = standard.feedShare * job.source.volts;
    return {
      load: {
        id: toPinKey(pin),
        name: `${deviceId === null ? job.looms[pin.loomId]!.ends[pin.endId]!.name : job.devices[deviceId]!.unit || job.devices[deviceId]!.name} feed`,
        pin,
        deviceId,
        load: 'feed',
        currentA: this.climber.measureMost(edge, 'other'),
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
      back: { steps: this.returns.traceTie('other').map((step) => ({ ...step, counts: true })), next: [] },
      isFed,
      isBattery,
      wokenBy: null,
    };
  }
}
