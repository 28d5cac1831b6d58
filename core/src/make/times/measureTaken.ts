import { compareIds, pushTo } from '../../units';
import type { FloorDeed } from '../floor/listClaims';

/** Told of a time between two of one's own ticks: it was work, or it was none; its words are the id of what ended it. */
export const TIME_KINDS = ['worked', 'paused'] as const;

/** What happened on a floor, as far as it says how long something took. */
export interface TimedDeed extends FloorDeed {
  id: string;
  words: string;
}

/** A time in which one person ticked nothing: a pause, or work if he said so. */
export interface Gap {
  /** of what ended it */
  eventId: string;
  itemId: string;
  author: string;
  minutes: number;
  isWork: boolean;
}

/** What a step took so far. */
export interface Taken {
  /** of everybody, min */
  minutes: number;
  byAuthor: Map<string, number>;
  /** longer than what counts by itself, and short enough to be work at all */
  gaps: Gap[];
}

/** said by whoever plans, at a desk */
const ASIDE: ReadonlySet<string> = new Set(['answer', 'solved', ...TIME_KINDS]);
const MINUTE_MS = 60_000;

/**
 * Minutes that steps took (craft D6): from one sign of life of a person to his next one, counted for the step of the later; a longer time
 * than a pause counts only if he says that it was work, a shorter one unless he says that it was none. Clocks of tablets go by themselves:
 * a time that would be negative is none.
 *
 * @param pauseMin a longer time is a pause
 * @param sessionMin a time so long is no work, whatever is said
 */
export function measureTaken(
  deeds: readonly TimedDeed[],
  { pauseMin, sessionMin }: { pauseMin: number; sessionMin: number },
): Map<string, Taken> {
  const said = new Map<string, boolean>();
  for (const { kind, words, author } of deeds)
    if (kind === 'worked' || kind === 'paused') said.set(`${author} ${words}`, kind === 'worked');
  const byAuthor = new Map<string, TimedDeed[]>();
  for (const deed of deeds) if (!ASIDE.has(deed.kind)) pushTo(byAuthor, deed.author, deed);
  const taken = new Map<string, Taken>();
  for (const author of [...byAuthor.keys()].sort(compareIds)) {
    const own = byAuthor.get(author)!.sort((a, b) => a.atMs - b.atMs);
    own.forEach(({ id, stepId, itemId, kind, atMs }, at) => {
      // a lane is of no step: whoever takes one begins there
      if (at === 0 || kind === 'take' || kind === 'leave') return;
      const minutes = (atMs - own[at - 1]!.atMs) / MINUTE_MS;
      if (minutes >= sessionMin) return;
      const isLong = minutes > pauseMin;
      const isWork = said.get(`${author} ${id}`) ?? !isLong;
      const here = taken.get(stepId) ?? { minutes: 0, byAuthor: new Map<string, number>(), gaps: [] };
      taken.set(stepId, here);
      if (isLong || !isWork) here.gaps.push({ eventId: id, itemId, author, minutes, isWork });
      if (!isWork) return;
      here.minutes += minutes;
      here.byAuthor.set(author, (here.byAuthor.get(author) ?? 0) + minutes);
    });
  }
  return taken;
}
