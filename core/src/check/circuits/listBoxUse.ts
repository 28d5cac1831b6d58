import type { Job, PinOffer } from '../../model';
import { toPinKey, type PinPlace } from '../../netlist';
import type { PlannedNet, PowerPlan } from '../../plan';

/** What a box gives, and how much of it is used. */
export interface BoxUse {
  name: string;
  pins: number;
  used: number;
  /** rails of its own, with what hangs on them in the worst mode, A */
  rails: { group: string; usedA: number; limitA: number }[];
  /** sensor grounds that are wired: which noise groups share each, and which devices */
  grounds: { name: string; groups: string[]; devices: string[] }[];
}

interface OfferedPin extends PinPlace {
  offer: PinOffer;
}

/** Boxes with more than one pin to give, the largest first. */
export function listBoxUse(job: Job, { nets }: Pick<PowerPlan, 'nets'>): BoxUse[] {
  const netAt = new Map(nets.flatMap((net) => (net.root ? [[toPinKey(net.root), net] as const] : [])));
  return [...listOffers(job)]
    .filter(([, offers]) => offers.length > 1)
    .sort(([, a], [, b]) => b.length - a.length)
    .map(([name, offers]) => ({
      name,
      pins: offers.length,
      used: offers.filter((pin) => netAt.has(toPinKey(pin))).length,
      rails: listRails(offers, netAt),
      grounds: offers.flatMap((pin) => {
        const net = pin.offer.can.includes('sensor-ground') ? netAt.get(toPinKey(pin)) : undefined;
        return net ? [{ name: pin.offer.name, ...listSharers(job, net) }] : [];
      }),
    }));
}

function listOffers(job: Job): Map<string, OfferedPin[]> {
  const boxes = new Map<string, OfferedPin[]>();
  for (const [loomId, { ends }] of Object.entries(job.looms))
    for (const [endId, end] of Object.entries(ends)) {
      if (Object.keys(end.offers).length === 0) continue;
      const device = Object.values(job.devices).find(({ at }) => at?.loomId === loomId && at.endId === endId);
      const name = device?.unit || end.name;
      const pins = Object.entries(end.offers).map(([cavity, offer]) => ({ loomId, endId, cavity, offer }));
      boxes.set(name, [...(boxes.get(name) ?? []), ...pins]);
    }
  return boxes;
}

function listRails(offers: readonly OfferedPin[], netAt: ReadonlyMap<string, PlannedNet>): BoxUse['rails'] {
  const rails = new Map<string, BoxUse['rails'][number]>();
  for (const pin of offers) {
    const { can, group, limitA } = pin.offer;
    if (!can.includes('sensor-supply') || group === null || limitA === null) continue;
    const rail = rails.get(group) ?? { group, usedA: 0, limitA };
    rail.usedA += Math.max(0, ...(netAt.get(toPinKey(pin))?.onA ?? [0]));
    rails.set(group, rail);
  }
  return [...rails.values()];
}

function listSharers(job: Job, { circuits }: PlannedNet): Pick<BoxUse['grounds'][number], 'groups' | 'devices'> {
  const sharers = circuits.flatMap(({ loomId, circuitId }) =>
    job.looms[loomId]!.circuits[circuitId]!.terminations.flatMap(({ endId, cavity }) => {
      const { name, pins } = job.looms[loomId]!.ends[endId]!;
      const need = pins[cavity];
      return need ? [{ name, noise: need.noise ?? 'the rest' }] : [];
    }),
  );
  return { groups: [...new Set(sharers.map(({ noise }) => noise))], devices: [...new Set(sharers.map(({ name }) => name))] };
}
