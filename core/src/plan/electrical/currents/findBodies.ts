import type { Job } from '../../../model';
import { compareIds } from '../../../units';
import type { Bodies, BodyStud, VehicleCurrents } from './vehicleCurrents';
import { type Netlist, toPinKey } from '../../../netlist';

/**
 * The strap of the engine and the ties of the chassis. A strap is bolted at both ends: from a stud of the block to one of the chassis or to
 * battery negative, through no plug. Of several the shortest in steps counts, and carries all.
 */
export function findBodies(job: Job, netlist: Netlist, { nets, parentEdge }: Pick<VehicleCurrents, 'nets' | 'parentEdge'>): Bodies {
  const offerAt = (node: number | null) => (node === null ? null : netlist.nodes[node]!.offer);
  const isBolted = (node: number) =>
    netlist.nodes[node]!.pins.every(({ loomId, endId }) => job.looms[loomId]!.ends[endId]!.kind !== 'connector');
  const ties: BodyStud[] = [];
  let engine: (BodyStud & { steps: number; key: string }) | null = null;
  netlist.nodes.forEach(({ offer, pins }, node) => {
    const net = netlist.netOf[node]!;
    const { root } = nets[net]!;
    if (root === null || root === node) return;
    const isNegative = offerAt(root)?.can.includes('battery-negative') === true;
    if (offer?.can.includes('chassis') && isNegative) ties.push({ node, net });
    if (!offer?.can.includes('engine-block') || !(isNegative || offerAt(root)?.can.includes('chassis'))) return;
    let steps = 0;
    for (let at = node; at !== root; steps += 1) {
      const { a, b, wire } = netlist.edges[parentEdge[at]!]!;
      at = a === at ? b : a;
      if (wire === null || !isBolted(at)) return;
    }
    const key = toPinKey(pins[0]!);
    if (engine === null || steps < engine.steps || (steps === engine.steps && compareIds(key, engine.key) < 0))
      engine = { node, net, steps, key };
  });
  const found = engine as BodyStud | null;
  return { engine: found && { node: found.node, net: found.net }, ties };
}
