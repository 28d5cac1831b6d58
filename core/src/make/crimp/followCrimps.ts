import type { ShopStandard } from '../../catalogue';
import { judgeSamples } from './judgeSamples';
import { CRIMP_STEP, isChangeover, type CrimpPlace, type CrimpSeries, type SampleReason, type SampleSet } from './types';

/** What happened on a floor, as far as it says how crimps came out. */
export interface CrimpDeed {
  /** a picture of samples has the same; left out: nobody asks for it */
  id?: string;
  kind: string;
  loomId: string;
  stepId: string;
  itemId: string;
  words: string;
  author: string;
  /** by the clock of the tablet, ms */
  atMs: number;
  /** of samples; null, or left out: it is none */
  samples?: SampleSet | null;
}

/** A sample that failed, and what it takes back. */
export interface Quarantine {
  series: CrimpSeries;
  author: string;
  /** when it failed, and since when what it takes back was made: its first crimp; ms */
  atMs: number;
  sinceMs: number;
  /** crimps that are to be done over, those that were not yet, on whichever loom */
  places: CrimpPlace[];
  /** how many it took back, done over or not */
  took: number;
}

/** Whoever follows: who asks, when, and what the shop goes by. */
export interface CrimpAsking {
  author: string;
  nowMs: number;
  standard: Pick<ShopStandard, 'sampleFirst' | 'sampleEvery' | 'sampleWarnShare' | 'crimpHeightMm' | 'sessionMin'>;
}

/** How a series stands for whoever asks. */
export interface SeriesState {
  series: CrimpSeries;
  /** why samples are due before the next crimp; null: none are */
  due: Exclude<SampleReason, 'none'> | null;
  /** how many */
  dueCount: number;
  /** the last set that counts in this session, and how it came out; null: there is none */
  last: { atMs: number; grade: 'pass' | 'warn' | 'none'; words: string } | null;
  /** crimps by whoever asks since then */
  since: number;
  /** crimps of the loom, by anybody, that no set stands for, before or after them, though all else of the series is done */
  isUnproved: boolean;
}

/** How the crimps of a loom stand. */
export interface CrimpStates {
  states: SeriesState[];
  quarantines: Quarantine[];
  /** when the session of whoever asks began, ms; null: none is on */
  sessionMs: number | null;
}

interface Crimp {
  place: CrimpPlace;
  atMs: number;
}

/** One person at one series. */
class Line {
  /** made since the last good set: what a bad one takes back */
  readonly open = new Map<string, Crimp>();
  last: { index: number; atMs: number; grade: 'pass' | 'warn' | 'none'; words: string } | null = null;
  since = 0;
  changeover: 'reel' | 'lot' | 'tool' | null = null;
}

const toKey = ({ loomId, stepId, itemId }: Pick<CrimpPlace, 'loomId' | 'stepId' | 'itemId'>) => `${loomId} ${stepId} ${itemId}`;

/**
 * Follow crimps and samples in the order in which they happened (craft D3). A first-off is due for each person, series and session; one more sample
 * after so many crimps on whichever loom, at another reel, lot or setting, and when the last of the loom is made. A bad sample takes back what
 * the same person made of the series since the last good one, on other looms and in a session before too, and asks everybody for new samples:
 * the die is the same for all.
 *
 * @param deeds in order, of revisions before too: a crimp is known by its step and item
 */
export function followCrimps(series: readonly CrimpSeries[], deeds: readonly CrimpDeed[], asking: CrimpAsking): CrimpStates {
  const walk = new Walk(series, asking);
  deeds.forEach((deed, index) => walk.add(deed, index));
  return walk.finish(deeds);
}

class Walk {
  private readonly seriesOf = new Map<string, CrimpSeries>();
  private readonly byId: ReadonlyMap<string, CrimpSeries>;
  private readonly places = new Map<string, CrimpPlace>();
  /** by series, then by person */
  private readonly lines = new Map<string, Map<string, Line>>();
  private readonly failedAt = new Map<string, number>();
  private readonly quarantines: Quarantine[] = [];
  private readonly standing = new Set<string>();

  constructor(
    private readonly series: readonly CrimpSeries[],
    private readonly asking: CrimpAsking,
  ) {
    this.byId = new Map(series.map((one) => [one.id, one]));
    for (const one of series)
      for (const place of [...one.places, ...one.elsewhere]) {
        this.seriesOf.set(toKey(place), one);
        this.places.set(toKey(place), place);
      }
  }

  add(deed: CrimpDeed, index: number): void {
    if (deed.stepId === CRIMP_STEP) this.addToSeries(deed, index);
    else if (deed.kind === 'tick' || deed.kind === 'untick') this.addCrimp(deed);
  }

  private lineOf(seriesId: string, author: string): Line {
    const here = this.lines.get(seriesId) ?? new Map<string, Line>();
    this.lines.set(seriesId, here);
    const line = here.get(author) ?? new Line();
    here.set(author, line);
    return line;
  }

  private linesOf = (seriesId: string): Line[] => [...(this.lines.get(seriesId)?.values() ?? [])];

  private addCrimp({ kind, author, atMs, ...of }: CrimpDeed): void {
    const key = toKey(of);
    const series = this.seriesOf.get(key);
    if (!series) return;
    // taken off or made anew: whatever a bad sample took back is done over by it
    for (const one of this.quarantines) one.places = one.places.filter((place) => toKey(place) !== key);
    for (const line of this.linesOf(series.id)) line.open.delete(key);
    this.standing.delete(key);
    if (kind === 'untick') return;
    this.standing.add(key);
    const line = this.lineOf(series.id, author);
    line.open.set(key, { place: this.places.get(key)!, atMs });
    line.since += 1;
  }

  private addToSeries({ kind, itemId, author, atMs, words, samples }: CrimpDeed, index: number): void {
    const series = this.byId.get(itemId);
    if (!series) return;
    const line = this.lineOf(itemId, author);
    if (kind === 'changeover' && isChangeover(words)) line.changeover = words;
    if (kind !== 'sample' || !samples) return;
    const { grade } = judgeSamples(samples, series, this.asking.standard);
    if (grade === 'fail') {
      this.failedAt.set(itemId, index);
      const taken = [...line.open.values()];
      line.open.clear();
      line.last = null;
      if (taken.length === 0) return;
      const places = taken.map(({ place }) => place);
      const sinceMs = Math.min(...taken.map((one) => one.atMs));
      this.quarantines.push({ series, author, atMs, sinceMs, places, took: places.length });
      return;
    }
    const isNone = samples.reason === 'none';
    line.last = { index, atMs, grade: isNone ? 'none' : grade, words: isNone ? words : '' };
    line.since = 0;
    line.changeover = null;
    // what nobody sampled stays open to the next set
    if (!isNone) line.open.clear();
  }

  finish(deeds: readonly CrimpDeed[]): CrimpStates {
    const sessionMs = findSession(deeds, this.seriesOf, this.asking);
    return {
      states: this.series.map((one) => this.toState(one, sessionMs)),
      quarantines: this.quarantines.filter(({ places }) => places.length > 0),
      sessionMs,
    };
  }

  private toState(series: CrimpSeries, sessionMs: number | null): SeriesState {
    const { author, standard } = this.asking;
    const line = this.lineOf(series.id, author);
    const failed = this.failedAt.get(series.id) ?? -1;
    const last = line.last && sessionMs !== null && line.last.atMs >= sessionMs && line.last.index > failed ? line.last : null;
    const isAll = series.places.every((place) => this.standing.has(toKey(place)));
    const isHere = (line: Line) => series.places.some((place) => line.open.has(toKey(place)));
    const isUnproved = this.linesOf(series.id).some(isHere);
    const since = last === null ? 0 : line.since;
    const state = { series, last: last && { atMs: last.atMs, grade: last.grade, words: last.words }, since, isUnproved };
    if (standard.sampleFirst === 0) return { ...state, due: null, dueCount: 0, isUnproved: false };
    if (last === null && failed >= 0 && (line.last === null || line.last.index < failed))
      return { ...state, due: 'mended', dueCount: standard.sampleFirst };
    if (isAll && isHere(line)) return { ...state, due: 'last', dueCount: 1 };
    if (isAll) return { ...state, due: null, dueCount: 0 };
    if (last === null) return { ...state, due: 'first', dueCount: standard.sampleFirst };
    if (line.changeover !== null) return { ...state, due: line.changeover, dueCount: 1 };
    if (since >= standard.sampleEvery) return { ...state, due: 'every', dueCount: 1 };
    return { ...state, due: null, dueCount: 0 };
  }
}

/** When the session of whoever asks began: back from now, as long as no pause between what was crimped, sampled and gauged was too long. */
function findSession(deeds: readonly CrimpDeed[], seriesOf: ReadonlyMap<string, CrimpSeries>, asking: CrimpAsking): number | null {
  const { author, nowMs, standard } = asking;
  const pauseMs = standard.sessionMin * 60_000;
  const times = deeds
    .filter((deed) => deed.author === author && (deed.stepId === CRIMP_STEP || seriesOf.has(toKey(deed))))
    .map(({ atMs }) => Math.min(atMs, nowMs))
    .sort((a, b) => b - a);
  let began: number | null = null;
  for (const atMs of times) {
    if ((began ?? nowMs) - atMs >= pauseMs) break;
    began = atMs;
  }
  return began;
}
