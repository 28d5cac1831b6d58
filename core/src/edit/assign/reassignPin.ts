import type { Catalogue, ShopStandard } from '../../catalogue';
import { changeDocument, type Job } from '../../model';
import { arrangeBreaks } from './assignPins';
import { countStock, routeThroughConnectors } from './routeThroughConnectors';
import { listUnservedPins, listWanted, type UnservedPin } from './listUnservedPins';
import { listFreePins, listReach, measureCost, type FreePin } from './listFreePins';
import type { AssignConflict } from './types';
import { type PinPlace, createNetMap, toPinKey } from '../../netlist';

/** Where a pin could be served, by hand. */
export interface AblePlaces {
  /** free pins of boxes that can, the best first */
  places: { pins: PinPlace[]; words: string }[];
  /** pins of devices that go along with it: they share its wire, its ground or its rail */
  along: number;
}

/** Free pins that could serve a pin in place of what serves it now, if anything does. Null where it needs no box. */
export function listAblePlaces(job: Job, standard: ShopStandard, pin: PinPlace): AblePlaces | null {
  const { job: freed, hosts } = takeFromHost(job, pin);
  const need = findNeed(freed, standard, pin);
  if (!need) return null;
  const now = new Set(hosts.map(toPinKey));
  const along = need.members.flat().reduce((sum, member) => sum + countPins(freed, member), 0) - need.members.length;
  const places = listAble(freed, standard, need).filter(({ pins }) => !pins.some((one) => now.has(toPinKey(one))));
  return { places: places.map(({ pins, words }) => ({ pins, words })), along };
}

/** Give a pin to a place chosen by hand, led through every plug on the way; what served it before is let go. */
export function reassignPin(
  job: Job,
  catalogue: Catalogue,
  standard: ShopStandard,
  pin: PinPlace,
  place: PinPlace,
): { next: Job; words: string } | AssignConflict {
  const { job: freed } = takeFromHost(job, pin);
  const need = findNeed(freed, standard, pin);
  const able = need && listAble(freed, standard, need).find(({ pins }) => pins.some((one) => toPinKey(one) === toPinKey(place)));
  if (!need || !able)
    return { need: need?.name ?? '', competing: [], places: [], wouldTake: 'a free pin that can do it: this one cannot, or is taken' };
  const passed = new Map<string, number>();
  let failed: AssignConflict | null = null;
  const led = changeDocument(freed, (draft) => {
    const way = routeThroughConnectors(draft, catalogue, standard, { need, pins: able.pins }, countStock(freed, catalogue));
    if (!('passed' in way)) failed = way;
    else for (const one of way.passed) passed.set(toPinKey(one), need.currentA);
  });
  return failed ?? { next: arrangeBreaks(led, catalogue, passed).next, words: able.words };
}

/** The job without the pins of boxes that serve this pin and, where it is one of a pair, its partner; and which those were. */
function takeFromHost(job: Job, pin: PinPlace): { job: Job; hosts: PinPlace[] } {
  const { netOf } = createNetMap(job);
  const { pins } = job.looms[pin.loomId]!.ends[pin.endId]!;
  const need = pins[pin.cavity]!;
  const wanted = listWanted(need);
  const hosts = [pin.cavity, ...(need.twistWith === null ? [] : [need.twistWith])].flatMap((cavity) =>
    (netOf.get(toPinKey({ ...pin, cavity }))?.pins ?? []).filter(({ offer }) => offer?.can.some((one) => wanted.includes(one))),
  );
  if (hosts.length === 0) return { job, hosts };
  const freed = changeDocument(job, (draft) => {
    for (const { loomId, endId, cavity } of hosts) {
      const { circuits } = draft.looms[loomId]!;
      for (const [id, circuit] of Object.entries(circuits)) {
        const at = circuit.terminations.findIndex((one) => one.endId === endId && one.cavity === cavity);
        if (at === -1) continue;
        circuit.terminations.splice(at, 1);
        if (circuit.terminations.length === 0) delete circuits[id];
      }
    }
  });
  return { job: freed, hosts };
}

const findNeed = (job: Job, standard: ShopStandard, pin: PinPlace): UnservedPin | undefined =>
  listUnservedPins(job, standard).needs.find(({ members }) =>
    members.some((half) => half.some(({ pins }) => pins.some((one) => toPinKey(one) === toPinKey(pin)))),
  );

/** Device pins that a member brings: those in its circuits, or its own bare ones. */
function countPins(job: Job, { circuits, pins }: UnservedPin['members'][number][number]): number {
  const inCircuits = circuits.flatMap(({ loomId, circuitId }) =>
    job.looms[loomId]!.circuits[circuitId]!.terminations.filter(({ endId, cavity }) =>
      Object.hasOwn(job.looms[loomId]!.ends[endId]!.pins, cavity),
    ),
  );
  return circuits.length ? inCircuits.length : pins.length;
}

function listAble(job: Job, standard: ShopStandard, need: UnservedPin): FreePin[] {
  const places = listFreePins(job, standard);
  const reach = listReach(job);
  return places
    .flatMap((place) => {
      const cost = measureCost(need, place, 0, places.length, reach);
      return cost === null ? [] : [{ place, cost }];
    })
    .sort((a, b) => a.cost - b.cost || a.place.order - b.place.order)
    .map(({ place }) => place);
}
