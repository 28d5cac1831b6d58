import type { ShopStandard } from '../../catalogue';
import { changeDocument, type Job, type PinNeed } from '../../model';
import { compareIds } from '../../units';
import { listWanted } from './listUnservedPins';
import type { Assigned } from './types';
import { type MappedNet, createNetMap, toPinKey } from '../../netlist';

/**
 * Join open sensor grounds and supplies to what serves their noise group in their own loom already: a splice in place of another wire
 * through every plug. A rail takes no more than the shop lets it. Returns the job and what was joined, with why.
 */
export function joinGroups(job: Job, standard: ShopStandard): { next: Job; joined: Assigned[] } {
  const { nets, netOf } = createNetMap(job);
  const served = nets.filter((net) => net.pins.some(({ offer }) => offer !== null));
  const joined: Assigned[] = [];
  // what each net gives beside what it gave before
  const more = new Map<MappedNet, number>();
  const next = changeDocument(job, (draft) => {
    for (const loomId of Object.keys(job.looms).sort(compareIds))
      for (const endId of Object.keys(job.looms[loomId]!.ends).sort(compareIds)) {
        const end = job.looms[loomId]!.ends[endId]!;
        const device = Object.values(job.devices).find(({ at }) => at?.loomId === loomId && at.endId === endId);
        if (device?.decision === 'remove' || device?.decision === 'later') continue;
        for (const cavity of Object.keys(end.pins).sort(compareIds)) {
          const need = end.pins[cavity]!;
          if ((need.kind !== 'sensor-ground' && need.kind !== 'sensor-supply') || !need.required) continue;
          if (netOf.has(toPinKey({ loomId, endId, cavity }))) continue;
          const net = served.find((one) => isOfGroup(one, need, endId) && hasRoom(one, need, more.get(one) ?? 0, standard));
          const circuitId = net?.circuits.find((one) => one.loomId === loomId)?.circuitId;
          if (!net || circuitId === undefined) continue;
          more.set(net, (more.get(net) ?? 0) + (need.currentA ?? 0));
          draft.looms[loomId]!.circuits[circuitId]!.terminations.push({ endId, cavity });
          const { number, name } = job.looms[loomId]!.circuits[circuitId]!;
          joined.push({
            need: `${device?.name ?? end.name} ${need.function}`,
            place: `circuit ${number} (${name})`,
            because: `its noise group, ${need.noise ?? 'the rest'}, is served in this loom already: a splice instead of one more wire to the box`,
          });
        }
      }
  });
  return { next, joined };
}

/** Does a net serve what such a pin wants, for its noise group alone, and no other pin of the same device: tracks stay apart. */
function isOfGroup(net: MappedNet, need: PinNeed, endId: string): boolean {
  const wanted = listWanted(need);
  const alike = net.pins.filter((pin) => pin.need?.kind === need.kind);
  return (
    alike.length > 0 &&
    net.pins.some(({ offer }) => offer?.can.some((one) => wanted.includes(one))) &&
    alike.every(
      (pin) => (pin.need!.noise ?? null) === (need.noise ?? null) && (pin.need!.volts ?? need.volts) === (need.volts ?? pin.need!.volts),
    ) &&
    !alike.some((pin) => pin.endId === endId)
  );
}

function hasRoom(net: MappedNet, need: PinNeed, moreA: number, { railShare }: ShopStandard): boolean {
  if (need.kind === 'sensor-ground') return true;
  const limitA = net.pins.find(({ offer }) => offer?.can.includes('sensor-supply'))?.offer?.limitA ?? null;
  if (limitA === null) return true;
  const usedA = net.pins.reduce((sum, pin) => sum + (pin.need?.currentA ?? 0), 0);
  return usedA + moreA + (need.currentA ?? 0) <= railShare * limitA;
}
