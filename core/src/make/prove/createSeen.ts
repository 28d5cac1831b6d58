import { isPassing } from '../judgeReadings';
import { createGroups } from './createGroups';
import { OPEN_MV, OPEN_OHM, toPairKey, toProbe, toProbeKey, type Probe, type ProofTest, type RingOut } from './types';

/** below this two probes of one net are joined, well or badly, Ω */
const OPEN_ABOVE_OHM = 1000;
/** below this two probes of different nets are joined by something that should not be there, Ω */
const JOINED_BELOW_OHM = 30;
/** a supply that gives so much, mV, is at its limit: nothing flows */
const OPEN_ABOVE_MV = 10_000;

/** What a set of readings says of the copper of a loom. */
export interface Seen {
  /** ohms between two probes; undefined: not read */
  between: (a: string, b: string) => number | undefined;
  /** the same for all probes that are joined as far as was read */
  partOf: (probe: string) => string;
  /** were probes of two parts read, and found apart */
  isApart: (partA: string, partB: string) => boolean;
  /** probes of a part */
  listPart: (part: string) => readonly string[];
  /** does the net keep to itself; undefined: not read */
  isIsolated: (netId: string) => boolean | undefined;
  /** have all joins of the net been read */
  isRead: (netId: string) => boolean;
}

/** A reading between two probes as ohms. Throws where millivolts are of no known current. */
export function toOhm({ unit, atA }: Pick<ProofTest, 'unit' | 'atA'>, value: number): number {
  if (unit !== 'mV') return value;
  if (value >= OPEN_ABOVE_MV) return OPEN_OHM;
  if (atA === null) throw new Error('prove: expected the current at which millivolts were read');
  return value / 1000 / atA;
}

/** Value of an open circuit in the unit of a test. */
export const toOpen = ({ unit }: Pick<ProofTest, 'unit'>): number => (unit === 'mV' ? OPEN_MV : OPEN_OHM);

export const isOpen = (ohm: number): boolean => ohm >= OPEN_ABOVE_OHM;

/** The same of a reading as the meter shows it. */
export const isOpenReading = ({ unit }: Pick<ProofTest, 'unit'>, value: number): boolean =>
  unit === 'mV' ? value >= OPEN_ABOVE_MV : unit === 'Ω' && isOpen(value);

/** What was read, put together; values by name of the test, in its unit. */
export function createSeen({ tests, nets }: RingOut, values: ReadonlyMap<string, number>): Seen {
  const byId = new Map(tests.map((test) => [test.id, test]));
  const netOf = new Map(nets.flatMap(({ id, probes }) => probes.map((probe) => [toProbeKey(probe), id])));
  const ohms = new Map<string, number>();
  const { join, find } = createGroups();
  const open: [string, string][] = [];
  const keys = new Set(netOf.keys());
  for (const [id, value] of values) {
    const pair = toPair(id);
    if (!pair) continue;
    const [a, b] = pair;
    const ohm = toOhm(byId.get(id) ?? { unit: 'Ω', atA: null }, value);
    ohms.set(toPairKey(a, b), ohm);
    keys.add(a).add(b);
    const isOfOne = netOf.get(a) !== undefined && netOf.get(a) === netOf.get(b);
    if (ohm < (isOfOne ? OPEN_ABOVE_OHM : JOINED_BELOW_OHM)) join(a, b);
    else open.push([a, b]);
  }
  const apart = new Set(open.map(([a, b]) => toPairKey(find(a), find(b))));
  const parts = new Map<string, string[]>();
  for (const key of keys) parts.set(find(key), [...(parts.get(find(key)) ?? []), key]);
  const isolated = new Map<string, boolean>();
  const unread = new Set<string>();
  for (const test of tests) {
    const value = values.get(test.id);
    if (test.kind === 'isolate' && value !== undefined) isolated.set(test.netId, isPassing(test, value));
    else if (test.kind === 'join' && value === undefined) unread.add(test.netId);
  }
  return {
    between: (a, b) => ohms.get(toPairKey(a, b)),
    partOf: find,
    isApart: (a, b) => apart.has(toPairKey(a, b)),
    listPart: (part) => parts.get(part) ?? [],
    isIsolated: (netId) => isolated.get(netId),
    isRead: (netId) => !unread.has(netId),
  };
}

/** The two probes of the name of a reading; null: it is not between two. */
export function toPair(id: string): [string, string] | null {
  const words = id.split(' ');
  return words.length === 4 ? [`${words[0]} ${words[1]}`, `${words[2]} ${words[3]}`] : null;
}

/** Do two probes belong to one end? */
export const isOfOneEnd = (a: string, b: string): boolean => toProbe(a).endId === toProbe(b).endId;

export const nameProbe = ({ ends }: Pick<RingOut, 'ends'>, { endId, cavity }: Probe): string =>
  `${ends.find(({ id }) => id === endId)?.name ?? endId} · ${cavity}`;
