import { toPinKey } from '../../../netlist';
import type { PathStep } from '../types';
import type { CurrentStep, PathContext, When } from './currentPaths';
import { mostOf, type Currents } from './currents';

/** A way from a pin towards what feeds or takes its current. */
export interface Climbed {
  /** load first */
  steps: CurrentStep[];
  linkIds: string[];
  /** steps up to and with the fuse, relay or channel nearest to the load; null: none on the way */
  boxAt: number | null;
  root: number | null;
  isFed: boolean;
  isBattery: boolean;
  isOutside: boolean;
}

/** Follows the copper of a vehicle from a pin to its root, through fuses, channels and contacts on the way. */
export class PathClimber {
  /** modes that count */
  readonly modes: Record<When, readonly number[]>;
  /** studs that a wire joins to battery negative */
  private readonly ties: ReadonlySet<number>;

  constructor(private readonly context: PathContext) {
    const { flows, job } = context;
    this.ties = new Set(flows.bodies.ties.map(({ node }) => node));
    const list = (isCranking: boolean) =>
      flows.modeIds.flatMap((id, index) => ((job.modes[id]!.engine === 'cranking') === isCranking ? [index] : []));
    this.modes = { cranking: list(true), other: list(false) };
  }

  /** From a pin towards what feeds or takes its current, through links on the way. Load first. */
  climb(from: number, way: PathStep['way'], when: When): Climbed {
    const { netlist, flows, standard } = this.context;
    const steps: CurrentStep[] = [];
    const linkIds: string[] = [];
    let boxAt: number | null = null;
    const seen = new Set<number>();
    let node = from;
    // past the stud that battery negative is tied to the way is everybody's
    let counts = true;
    let isBody = false;
    const isStarter = when === 'cranking';
    const lost = () => ({ steps, linkIds, boxAt, root: null, isFed: false, isBattery: false, isOutside: false });
    for (;;) {
      const net = flows.nets[netlist.netOf[node]!]!;
      if (net.root === null || seen.has(netlist.netOf[node]!)) return lost();
      seen.add(netlist.netOf[node]!);
      while (node !== net.root) {
        const edgeIndex = flows.parentEdge[node]!;
        const edge = netlist.edges[edgeIndex]!;
        const next = edge.a === node ? edge.b : edge.a;
        if (way === 'back' && !isStarter && this.ties.has(node)) counts = false;
        if (!isStarter && node === flows.bodies.engine?.node) isBody = true;
        const flow = flows.edges[edgeIndex] ?? null;
        this.addEdgeSteps(steps, edgeIndex, node, next, { way, currentA: this.measureMost(flow, when), flow, counts, isBody });
        node = next;
      }
      const offer = netlist.nodes[node]!.offer;
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
      const currentA = this.measureMost(net.current, when);
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
      const beyond = netlist.nodeOfPin.get(toPinKey(link.a));
      if (beyond === undefined) return lost();
      node = beyond;
    }
  }

  /** What flows while things are on, in the worst of these modes (calculations 3). */
  measureMost(currents: Currents | null | undefined, when: When): number {
    return currents ? mostOf(this.modes[when].map((mode) => currents.on[mode]!)) : 0;
  }

  private addEdgeSteps(
    steps: CurrentStep[],
    edge: number,
    node: number,
    next: number,
    rest: Pick<CurrentStep, 'way' | 'currentA' | 'flow' | 'counts' | 'isBody'>,
  ): void {
    const { netlist, job, standard } = this.context;
    const { wire } = netlist.edges[edge]!;
    const addContact = (at: number, milliohm: number) => {
      const place = netlist.nodes[at]!.pins[0]!;
      const words = `${job.looms[place.loomId]!.ends[place.endId]!.name} ${place.cavity}`;
      steps.push({ kind: 'contact', words, loomId: null, wireId: null, linkId: null, edge: -1, milliohm, ...rest });
    };
    if (wire === null) return addContact(node, standard.contactMilliohm);
    const crimp = (at: number) => {
      if (netlist.nodes[at]!.kind === 'splice' || netlist.at[at]!.some((one) => netlist.edges[one]!.wire === null)) return;
      const place = netlist.nodes[at]!.pins[0]!;
      const isBolted = job.looms[place.loomId]!.ends[place.endId]!.kind !== 'connector';
      addContact(at, isBolted ? standard.ringMilliohm : standard.contactMilliohm);
    };
    const { loomId, wireId, circuitId } = wire;
    crimp(node);
    const words = job.looms[loomId]!.circuits[circuitId]!.name;
    steps.push({ kind: 'wire', words, loomId, wireId, linkId: null, edge, milliohm: null, ...rest });
    if (netlist.nodes[next]!.kind === 'splice')
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
}
