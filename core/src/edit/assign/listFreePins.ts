import type { ShopStandard } from '../../catalogue';
import type { Job, PinOffer } from '../../model';
import { compareIds } from '../../units';
import type { UnservedPin } from './listUnservedPins';
import { type PinPlace, createNetMap, toPinKey } from '../../netlist';

/** A free pin of a box, or two that work as a pair. */
export interface FreePin {
  pins: PinPlace[];
  offer: PinOffer;
  /** index of its rail or ground group among those of its box */
  groupIndex: number;
  order: number;
  words: string;
}

/** Free pins of every box, pairs together, in the order of looms, ends and cavities. A stud takes as many rings as the shop allows. */
export function listFreePins(job: Job, standard: ShopStandard): FreePin[] {
  const { netOf } = createNetMap(job);
  const places: FreePin[] = [];
  for (const loomId of Object.keys(job.looms).sort(compareIds))
    for (const endId of Object.keys(job.looms[loomId]!.ends).sort(compareIds)) {
      const end = job.looms[loomId]!.ends[endId]!;
      const groups = [...new Set(Object.values(end.offers).flatMap(({ group }) => group ?? []))].sort(compareIds);
      const stud = Object.values(end.offers)[0];
      const cavities =
        end.kind === 'ring' && stud
          ? Array.from({ length: standard.ringsOnStud }, (_, index) => [String(index + 1), stud] as const)
          : Object.entries(end.offers).sort(([a], [b]) => compareIds(a, b));
      for (const [cavity, offer] of cavities) {
        const pins = [{ loomId, endId, cavity }];
        if (offer.pairWith !== null) {
          if (compareIds(cavity, offer.pairWith) > 0) continue;
          pins.push({ loomId, endId, cavity: offer.pairWith });
        }
        if (pins.some((pin) => netOf.has(toPinKey(pin)))) continue;
        places.push({
          pins,
          offer,
          groupIndex: offer.group === null ? 0 : groups.indexOf(offer.group),
          order: places.length,
          words: `${end.name} ${pins.map((pin) => pin.cavity).join(' and ')} (${offer.name.replace(/ [+−]$/, '')})`,
        });
      }
    }
  return places;
}

/** Plugs between any two looms; null: none leads there. */
export function listReach(job: Job): (from: string, to: string) => number | null {
  const neighbours = new Map<string, Set<string>>();
  for (const { a, b } of Object.values(job.mates)) {
    neighbours.set(a.loomId, (neighbours.get(a.loomId) ?? new Set()).add(b.loomId));
    neighbours.set(b.loomId, (neighbours.get(b.loomId) ?? new Set()).add(a.loomId));
  }
  const known = new Map<string, Map<string, number>>();
  return (from, to) => {
    let far = known.get(from);
    if (!far) {
      far = new Map([[from, 0]]);
      for (const [loomId, hops] of far) for (const next of neighbours.get(loomId) ?? []) if (!far.has(next)) far.set(next, hops + 1);
      known.set(from, far);
    }
    return far.get(to) ?? null;
  };
}

/** Null: cannot be. Costs: what a scarce pin could do besides, headroom wasted, plugs passed, tracks kept apart, order kept. */
export function measureCost(
  need: UnservedPin,
  place: FreePin,
  rank: number,
  count: number,
  reach: (from: string, to: string) => number | null,
): number | null {
  const { offer, pins } = place;
  if (!offer.can.some((one) => need.wants.includes(one))) return null;
  if (pins.length !== need.members.length) return null;
  if (offer.limitA !== null && need.currentA > offer.limitA) return null;
  if (need.pwmHz !== null && (offer.pwmHz === null || offer.pwmHz < need.pwmHz)) return null;
  let hops = 0;
  for (const { loomId } of need.members[0]!) {
    const far = reach(loomId, pins[0]!.loomId);
    if (far === null) return null;
    hops += far;
  }
  const scarce = 4 * (offer.can.length - 1);
  const headroom = offer.limitA === null ? 0 : Math.log2(offer.limitA / Math.max(need.currentA, 0.05));
  const fast = need.pwmHz === null && offer.pwmHz !== null && offer.pwmHz > 0 ? 1 : 0;
  const track =
    (need.kind === 'sensor-supply' || need.kind === 'sensor-ground') && Math.min(need.nth, 1) !== Math.min(place.groupIndex, 1) ? 6 : 0;
  return scarce + headroom + fast + track + 3 * hops + Math.abs(rank - place.order / Math.max(1, count));
}
