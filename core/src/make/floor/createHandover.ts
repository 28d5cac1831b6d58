import { compareIds, toCount } from '../../units';
import type { Claim, FloorDeed } from './listClaims';
import type { Work } from './listWork';

/** What a shift leaves behind for the next (craft D4). */
export interface Handover {
  /** what was ticked in the shift and still stands, by person: steps with how much of each */
  done: { author: string; steps: { title: string; items: number; of: number }[] }[];
  /** begun and not finished, whoever began it: look at it before it goes on */
  begun: { title: string; done: number; of: number; author: string }[];
  /** steps that wait, by the step that they wait for, those that keep most waiting first */
  waiting: { forTitle: string; steps: number }[];
  /** why work is held, each once */
  held: string[];
  /** lanes that somebody is in, or was until a moment ago */
  here: { lane: string; authors: string[] }[];
}

/**
 * What was done in a shift, what stands half done, what waits and for what.
 *
 * @param sinceMs when the shift began, by the clocks of the tablets
 */
export function createHandover(
  work: readonly Work[],
  deeds: readonly FloorDeed[],
  claims: ReadonlyMap<string, readonly Claim[]>,
  sinceMs: number,
): Handover {
  const stands = listStanding(deeds);
  return {
    done: listDone(work, stands, sinceMs),
    begun: work.flatMap(({ step, state, done }) => {
      if (done === 0 || state === 'done' || state === 'held') return [];
      const last = step.items.map(({ id }) => stands.get(`${step.id} ${id}`)).reduce(later, undefined);
      return [{ title: step.title, done, of: step.items.length, author: last?.author ?? '' }];
    }),
    waiting: listWaiting(work),
    held: [...new Set(work.flatMap(({ step }) => step.items.flatMap(({ heldBecause }) => (heldBecause === null ? [] : [heldBecause]))))],
    here: [...claims].sort(([a], [b]) => compareIds(a, b)).map(([lane, here]) => ({ lane, authors: here.map(({ author }) => author) })),
  };
}

const later = (a: FloorDeed | undefined, b: FloorDeed | undefined) => (a && b ? (b.atMs > a.atMs ? b : a) : (a ?? b));

/** The tick that stands of each item, by step and item. */
function listStanding(deeds: readonly FloorDeed[]): Map<string, FloorDeed> {
  const stands = new Map<string, FloorDeed>();
  for (const deed of deeds) {
    const key = `${deed.stepId} ${deed.itemId}`;
    if (deed.kind === 'tick') stands.set(key, deed);
    else if (deed.kind === 'untick') stands.delete(key);
  }
  return stands;
}

function listDone(work: readonly Work[], stands: ReadonlyMap<string, FloorDeed>, sinceMs: number): Handover['done'] {
  const byAuthor = new Map<string, { title: string; items: number; of: number }[]>();
  for (const { step } of work) {
    const counts = new Map<string, number>();
    for (const { id } of step.items) {
      const tick = stands.get(`${step.id} ${id}`);
      if (tick && tick.atMs >= sinceMs) counts.set(tick.author, (counts.get(tick.author) ?? 0) + 1);
    }
    for (const [author, items] of counts) {
      const here = byAuthor.get(author) ?? [];
      byAuthor.set(author, here);
      here.push({ title: step.title, items, of: step.items.length });
    }
  }
  return [...byAuthor.keys()].sort(compareIds).map((author) => ({ author, steps: byAuthor.get(author)! }));
}

function listWaiting(work: readonly Work[]): Handover['waiting'] {
  const counts = new Map<string, number>();
  const states = new Map(work.map((one) => [one.step.id, one.state]));
  for (const { state, waitsFor } of work) {
    if (state !== 'waiting') continue;
    // what can be done now, or is held: the rest of a chain waits for that as well
    for (const { step } of waitsFor) if (states.get(step.id) !== 'waiting') counts.set(step.title, (counts.get(step.title) ?? 0) + 1);
  }
  return [...counts]
    .map(([forTitle, steps]) => ({ forTitle, steps }))
    .sort((a, b) => b.steps - a.steps || compareIds(a.forTitle, b.forTitle));
}

/** "Crimp throttle, 4 of 6" */
export const toHandoverLine = ({ title, items, of }: { title: string; items: number; of: number }): string =>
  items === of ? title : `${title}, ${items} of ${of}`;

/** "3 steps wait for cut and mark AWG 20 red" */
export const toWaitingLine = ({ forTitle, steps }: Handover['waiting'][number]): string =>
  `${toCount(steps, 'step waits', 'steps wait')} for ${forTitle.slice(0, 1).toLowerCase()}${forTitle.slice(1)}`;
