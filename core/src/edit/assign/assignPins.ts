import { findFamily, type Catalogue, type ShopStandard } from '../../catalogue';
import { changeDocument, type Job } from '../../model';
import { compareIds } from '../../units';
import { arrangeBulkheadPins, type BreakOrder } from './arrangeBulkheadPins';
import { joinGroups } from './joinGroups';
import { countStock, routeThroughConnectors, type Lead } from './routeThroughConnectors';
import { listUnservedPins, type UnservedPin } from './listUnservedPins';
import { listFreePins, listReach, measureCost, type FreePin } from './listFreePins';
import { findConflict, matchPins, type Costs } from './matchPins';
import type { Assigned, AssignConflict } from './types';
import { toPinKey } from '../../netlist';

export interface Assignment {
  next: Job;
  assigned: Assigned[];
  conflicts: AssignConflict[];
  /** pins that were served already and stay as they are */
  kept: number;
  /** breaks that wires were led through, with the order of their cavities as they came and as they were arranged then */
  breaks: { name: string; led: number; before: BreakOrder; after: BreakOrder }[];
}

/**
 * Give what is open to controller, power box and ground pins at least cost, and lead it there through every plug on the way; what is
 * wired stays. The same job always comes out the same. What cannot be placed is told with the least set of needs that compete.
 */
export function assignPins(before: Job, catalogue: Catalogue, standard: ShopStandard): Assignment {
  const { next: job, joined } = joinGroups(before, standard);
  const { needs, served } = listUnservedPins(job, standard);
  const places = listFreePins(job, standard);
  const reach = listReach(job);
  const costs: Costs = needs.map((need, rank) =>
    places.map((place) => measureCost(need, place, rank / Math.max(1, needs.length), places.length, reach)),
  );
  const match = matchPins(costs);
  const conflicts: AssignConflict[] = needs.flatMap((need, index) => {
    if (match.places[index] !== null) return [];
    const { needs: competing, places: wanted } = findConflict(costs, match, index);
    return [
      {
        need: need.name,
        competing: competing.map((one) => needs[one]!.name),
        places: wanted.map((one) => places[one]!.words),
        wouldTake: toWouldTake(need, competing.length, wanted.length),
      },
    ];
  });
  const leads: Lead[] = needs.flatMap((need, index) => {
    const at = match.places[index];
    return at === null || at === undefined ? [] : [{ need, pins: places[at]!.pins }];
  });
  const assigned: Assigned[] = [...joined];
  const passed = new Map<string, number>();
  const stock = countStock(job, catalogue);
  const led = changeDocument(job, (draft) => {
    for (const lead of leads) {
      const index = needs.indexOf(lead.need);
      const way = routeThroughConnectors(draft, catalogue, standard, lead, stock);
      if (!('passed' in way)) {
        conflicts.push(way);
        continue;
      }
      for (const pin of way.passed) passed.set(toPinKey(pin), lead.need.currentA);
      assigned.push({
        need: lead.need.name,
        place: places[match.places[index]!]!.words,
        because: toBecause(lead.need, costs[index]!, places, match.places[index]!),
      });
    }
  });
  return { ...arrangeBreaks(led, catalogue, passed), assigned, conflicts, kept: served - joined.length };
}

/** Arrange what was led through each break, around what was there; passed: A by cavity of either face. */
export function arrangeBreaks(job: Job, catalogue: Catalogue, passed: ReadonlyMap<string, number>): Pick<Assignment, 'next' | 'breaks'> {
  const breaks: Assignment['breaks'] = [];
  let next = job;
  for (const mateId of Object.keys(job.mates).sort(compareIds)) {
    const { a } = job.mates[mateId]!;
    const prefix = `${a.loomId}/${a.endId}/`;
    const currents = new Map(
      [...passed].flatMap(([key, currentA]) => (key.startsWith(prefix) ? [[key.slice(prefix.length), currentA] as const] : [])),
    );
    // a half without a housing has no face to arrange
    if (currents.size === 0 || !findFamily(job, catalogue, job.looms[a.loomId]!.ends[a.endId]!.familyId)) continue;
    const arranged = arrangeBulkheadPins(next, catalogue, mateId, new Set(currents.keys()), (cavity) => currents.get(cavity) ?? 0);
    next = arranged.next;
    breaks.push({ name: job.looms[a.loomId]!.ends[a.endId]!.name, led: currents.size, before: arranged.before, after: arranged.after });
  }
  return { next, breaks };
}

function toBecause(need: UnservedPin, costs: readonly (number | null)[], places: readonly FreePin[], chosen: number): string {
  const able = costs.flatMap((cost, index) => (cost === null ? [] : [index]));
  const { offer } = places[chosen]!;
  const limit =
    offer.limitA === null
      ? ''
      : `, ${need.currentA < 0.1 ? `${Math.round(need.currentA * 1000)} mA` : `${Number(need.currentA.toFixed(2))} A`} of its ${offer.limitA} A`;
  const speed = need.pwmHz === null ? '' : `, switches at ${need.pwmHz} Hz`;
  const shared =
    need.members[0]!.length > 1 || need.members[0]![0]!.pins.length > 1
      ? `; ${need.members[0]!.flatMap(({ pins }) => pins).length} pins of this group share it`
      : '';
  const others = able.length === 1 ? 'the only free pin that can' : `least cost of ${able.length} free pins that can`;
  return `${offer.can.find((one) => need.wants.includes(one))}${limit}${speed}: ${others}${shared}`;
}

function toWouldTake(need: UnservedPin, needs: number, places: number): string {
  const what = need.wants.join(' or ');
  const pair = need.members.length > 1 ? 'pair of pins' : 'pin';
  const limits = [need.currentA > 0 ? `${Number(need.currentA.toFixed(2))} A` : '', need.pwmHz === null ? '' : `${need.pwmHz} Hz`].filter(
    Boolean,
  );
  const able = `${pair} for ${what}${limits.length ? ` (${limits.join(', ')})` : ''}`;
  if (places === 0) return `no free ${able} in reach: add a box that has one, or mate the looms`;
  return `${needs} needs for ${places} ${places === 1 ? 'place' : 'places'}: one more ${able}, or one of these needs elsewhere`;
}
