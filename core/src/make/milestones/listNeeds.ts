import type { Catalogue, ShopStandard } from '../../catalogue';
import { MILESTONES, PART_MILESTONES, type Job, type Milestone } from '../../model';
import { createNetlist, type JoinedWire, type Netlist } from '../../netlist';

/** What a milestone asks for. */
export interface MilestoneNeeds {
  id: Milestone;
  /** systems of devices; empty: all of them */
  systems: string[];
  /** wires as loom/wire; null: all of every loom, and all work on them */
  wires: string[] | null;
  /** devices of those systems that are to be wired and are on no loom yet */
  unplaced: string[];
  /** what is no work on a loom */
  checks: string[];
}

/**
 * What each milestone of a vehicle asks for (craft E3): the systems that the shop names, with those of the milestones before it, and of
 * their nets the wires that lead from one of their devices to another, or out of the job. What only feeds others is not waited for.
 *
 * @param looms each with its wires as planned
 */
export function listNeeds(
  job: Job,
  catalogue: Catalogue,
  { milestoneSystems, milestoneChecks }: Pick<ShopStandard, 'milestoneSystems' | 'milestoneChecks'>,
  looms: readonly { loomId: string; wires: readonly JoinedWire[] }[],
): MilestoneNeeds[] {
  const netlist = createNetlist(job, catalogue, looms);
  const systems: string[] = [];
  const checks: string[] = [];
  return MILESTONES.map((id) => {
    const isPart = (PART_MILESTONES as readonly string[]).includes(id);
    if (isPart) systems.push(...milestoneSystems[id as (typeof PART_MILESTONES)[number]].filter((one) => !systems.includes(one)));
    checks.push(...milestoneChecks[id].filter((one) => !checks.includes(one)));
    const isNeeded = ({ system, decision }: Job['devices'][string]) =>
      (!isPart || systems.includes(system)) && decision !== 'remove' && decision !== 'later';
    const needed = Object.entries(job.devices).filter(([, device]) => isNeeded(device));
    const deviceIds = new Set(needed.map(([deviceId]) => deviceId));
    return {
      id,
      systems: isPart ? [...systems] : [],
      wires: isPart ? listWires(netlist, job, deviceIds) : null,
      // what is kept has its wires already
      unplaced: needed.filter(([, { at, decision }]) => at === null && decision !== 'keep').map(([, { name }]) => name),
      checks: [...checks],
    };
  });
}

/** Wires between pins of these devices: of every net, what is left when all loose ends that are none of them are taken off one after another. */
function listWires(netlist: Netlist, { mates }: Pick<Job, 'mates'>, deviceIds: ReadonlySet<string>): string[] {
  const { nodes, edges, at, nets, deviceAt } = netlist;
  const isPinOf = (node: number) =>
    nodes[node]!.pins.some(({ loomId, endId }) => {
      const id = deviceAt.get(`${loomId}/${endId}`);
      return id !== undefined && deviceIds.has(id);
    });
  // a stud of the body, or a plug on something that is not of this job: whosever it is
  const mated = new Set(Object.values(mates).flatMap(({ a, b }) => [`${a.loomId}/${a.endId}`, `${b.loomId}/${b.endId}`]));
  const isOutside = (node: number) =>
    nodes[node]!.pins.some(({ loomId, endId }) => !deviceAt.has(`${loomId}/${endId}`) && !mated.has(`${loomId}/${endId}`));
  const isGone = edges.map(() => false);
  const degree = at.map((here) => here.length);
  for (const net of nets) {
    if (!net.nodes.some(isPinOf)) {
      for (const node of net.nodes) for (const edge of at[node]!) isGone[edge] = true;
      continue;
    }
    const loose = net.nodes.filter((node) => degree[node] === 1 && !isPinOf(node) && !isOutside(node));
    for (const node of loose)
      for (const edge of at[node]!) {
        if (isGone[edge]) continue;
        isGone[edge] = true;
        degree[node]! -= 1;
        const other = edges[edge]!.a === node ? edges[edge]!.b : edges[edge]!.a;
        degree[other]! -= 1;
        if (degree[other] === 1 && !isPinOf(other) && !isOutside(other)) loose.push(other);
      }
  }
  return edges.flatMap(({ wire }, index) => (wire && !isGone[index] ? [`${wire.loomId}/${wire.wireId}`] : []));
}
