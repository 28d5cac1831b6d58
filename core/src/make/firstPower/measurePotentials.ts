import type { ShopStandard } from '../../catalogue';
import type { Job } from '../../model';
import { toPinKey, type Netlist } from '../../netlist';
import { measureResistance, measureSag, type JobPlan } from '../../plan';

/** The feed side of a vehicle as it stands: volts at every node that is fed, and what the current comes through. */
export interface Potentials {
  /** V against battery negative; NaN: not fed */
  volts: Float64Array;
  /** drawn of the battery, A */
  totalA: number;
  /** from the battery to a node: edges of the netlist, or links by id */
  listPath: (node: number) => (number | string)[];
}

interface Step {
  from: number;
  by: number | string;
  ohm: number;
}

/**
 * Voltages on the feed side of a cold vehicle (calculations 15): the battery's less its sag, less what is lost on the way, with so much drawn at
 * each pin. It goes by the tree of wires, mated contacts and closed links from the battery outwards.
 */
export function measurePotentials(
  job: Job,
  netlist: Netlist,
  planned: Pick<JobPlan, 'looms' | 'power'>,
  standard: ShopStandard,
  { isClosed, drawA }: { isClosed: (linkId: string) => boolean; drawA: (node: number) => number },
): Potentials {
  const ohmOf = createOhms(job, netlist, planned, standard);
  const leads = new Map<number, { to: number; id: string; ohm: number }[]>();
  for (const { id, a, b } of netlist.links) {
    const [from, to] = [netlist.nodeOfPin.get(toPinKey(a)), netlist.nodeOfPin.get(toPinKey(b))];
    if (from === undefined || to === undefined || !isClosed(id)) continue;
    leads.set(from, [...(leads.get(from) ?? []), { to, id, ohm: ohmOf.link(id) }]);
  }
  const cameBy = new Map<number, Step | null>();
  netlist.nodes.forEach(({ offer }, node) => {
    if (offer?.can.includes('battery-positive')) cameBy.set(node, null);
  });
  // a map that is gone through while it grows: nearest to the battery first
  for (const node of cameBy.keys()) {
    for (const index of netlist.at[node]!) {
      const { a, b } = netlist.edges[index]!;
      const next = a === node ? b : a;
      if (!cameBy.has(next)) cameBy.set(next, { from: node, by: index, ohm: ohmOf.edge(index) });
    }
    for (const { to, id, ohm } of leads.get(node) ?? []) if (!cameBy.has(to)) cameBy.set(to, { from: node, by: id, ohm });
  }
  const order = [...cameBy.keys()];
  const through = new Float64Array(netlist.nodes.length);
  let totalA = 0;
  for (const node of order.toReversed()) {
    through[node]! += drawA(node);
    const step = cameBy.get(node);
    if (step) through[step.from]! += through[node]!;
    else totalA += through[node]!;
  }
  const volts = new Float64Array(netlist.nodes.length).fill(NaN);
  const atBattery = job.source.volts - measureSag(job.source, totalA);
  for (const node of order) {
    const step = cameBy.get(node);
    volts[node] = step ? volts[step.from]! - step.ohm * through[node]! : atBattery;
  }
  return {
    volts,
    totalA,
    listPath: (node) => {
      const path: (number | string)[] = [];
      for (let step = cameBy.get(node); step; step = cameBy.get(step.from)) path.unshift(step.by);
      return path;
    },
  };
}

/** Resistance of every edge with its own contacts, and of every link, Ω. */
function createOhms(job: Job, netlist: Netlist, { looms, power }: Pick<JobPlan, 'looms' | 'power'>, standard: ShopStandard) {
  const wires = new Map(looms.flatMap(({ loomId, wires: ofLoom }) => ofLoom.map((wire) => [`${loomId}/${wire.id}`, wire] as const)));
  const links = new Map(power.protections.map((one) => [one.id, one]));
  const isMated = (node: number) => netlist.at[node]!.some((edge) => netlist.edges[edge]!.wire === null);
  const toCrimp = (node: number): number => {
    if (netlist.nodes[node]!.kind === 'splice' || isMated(node)) return 0;
    const { loomId, endId } = netlist.nodes[node]!.pins[0]!;
    return job.looms[loomId]!.ends[endId]!.kind === 'connector' ? standard.contactMilliohm : standard.ringMilliohm;
  };
  return {
    edge: (index: number): number => {
      const { a, b, wire } = netlist.edges[index]!;
      if (!wire) return standard.contactMilliohm / 1000;
      const { conductor, lengthMm } = wires.get(`${wire.loomId}/${wire.wireId}`)!;
      const copper = measureResistance(conductor.r20MilliohmPerM, lengthMm, standard.workshopC);
      // a joint is passed once on each way: on the wire that leaves it away from the source
      const splice = netlist.nodes[a]!.kind === 'splice' ? standard.spliceMilliohm : 0;
      return (copper + toCrimp(a) + toCrimp(b) + splice) / 1000;
    },
    link: (id: string): number => {
      const { kind, ratingA, maxA, loadA } = links.get(id) ?? { kind: 'bar', ratingA: null, maxA: null, loadA: 0 };
      if (kind === 'fuse') {
        const amperes = ratingA ?? Math.max(maxA ?? 0, loadA);
        return amperes > 0 ? standard.fuseFullV / amperes : 0;
      }
      return maxA === null ? standard.contactMilliohm / 1000 : standard.linkFullV / maxA;
    },
  };
}
