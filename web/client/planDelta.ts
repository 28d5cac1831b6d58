import isEqual from 'fast-deep-equal';
import type { Finding, LoomPlan, PowerPlan } from 'wattograph-core';

/** A list in which what is as it was before stands as its index in the list before, and what changed in part as its changes. */
export type Packed<T extends object> = (T | number | Changes)[];

/** What changed of the record at the same place of the list before: values, and what its lists come to against those before. */
type Changes = readonly [values: object, lists: Readonly<Record<string, Packed<object>>>];

const LISTS = [
  ...(['wires', 'splices', 'barrels', 'bundles', 'layups', 'coverings', 'endDress', 'breakoutDress', 'feeds', 'screens', 'studs'] as const),
  ...(['heats', 'currents', 'terminations', 'plugs'] as const),
] as const;
const POWER_LISTS = ['states', 'nets', 'loads', 'protections'] as const;
type Lists = (typeof LISTS)[number];
type PowerLists = (typeof POWER_LISTS)[number];
type PackedLoom = Omit<LoomPlan, Lists> & { [K in Lists]: Packed<LoomPlan[K][number]> };

type PackedPower = Omit<PowerPlan, PowerLists> & { [K in PowerLists]: Packed<PowerPlan[K][number]> };

/** What a plan comes to against the one before it: a drag changes little of a large loom. */
export interface PlanDelta {
  looms: (PackedLoom | number)[];
  power: PackedPower;
}

/** A plan as the page has it. */
export interface SentPlan {
  looms: LoomPlan[];
  power: PowerPlan;
}

/** A plan with what was found in it. */
export interface Planned extends SentPlan {
  findings: Finding[];
}

type Fields = Record<string, unknown>;

const pack = <T extends object>(before: readonly T[] | undefined, now: readonly T[], packOne: PackOne): Packed<T> =>
  now.map((one, index) => {
    const was = before?.[index];
    return was === undefined ? one : was === one ? index : (packOne(was as Fields, one as Fields, index) as T);
  });

/** A record that is not the same object as the one before: its place where it says the same. */
type PackOne = (before: Fields, now: Fields, index: number) => object | number;

const packWhole: PackOne = (before, now, index) => (isEqual(before, now) ? index : now);

/** Its changes, as long as it has the same fields; its own lists of records by their places. */
const packChanges: PackOne = (before, now, index) => {
  const values: Fields = {};
  const lists: Record<string, Packed<object>> = {};
  let isOther = false;
  for (const key in now) {
    const [was, is] = [before[key], now[key]];
    if (was === is) continue;
    if (was === undefined) return now;
    if (isRecords(was) && isRecords(is)) {
      const packed = pack(was, is, packWhole);
      if (was.length === is.length && packed.every((one, at) => one === at)) continue;
      lists[key] = packed;
    } else if (isEqual(was, is)) continue;
    else values[key] = is;
    isOther = true;
  }
  for (const key in before) if (!(key in now)) return now;
  return isOther ? ([values, lists] satisfies Changes) : index;
};

const isRecords = (value: unknown): value is object[] => Array.isArray(value) && typeof value[0] === 'object' && !Array.isArray(value[0]);

function unpack<T extends object>(before: readonly T[] | undefined, packed: Packed<T>): T[] {
  const same = before !== undefined && before.length === packed.length && packed.every((one, index) => one === index);
  if (same) return before as T[];
  return packed.map((one, index) => {
    if (typeof one === 'number') return before![one]!;
    return isChanges(one) ? unpackChanges(before![index]!, one) : one;
  });
}

/** What is in these lists are records, never lists. */
export const isChanges = (one: object | number): one is Changes => Array.isArray(one);

const unpackChanges = <T extends object>(before: T, [values, lists]: Changes): T => ({
  ...before,
  ...values,
  ...Object.fromEntries(Object.entries(lists).map(([key, packed]) => [key, unpack((before as Record<string, object[]>)[key], packed)])),
});

/** Findings by what they are of: one more at the head does not move the others. null: they say the same. */
export function packFindings(before: readonly Finding[], now: readonly Finding[]): Packed<Finding> | null {
  if (isEqual(before, now)) return null;
  const places = new Map(before.map(({ key }, index) => [key, index]));
  return now.map((one) => {
    const at = places.get(one.key);
    return at !== undefined && isEqual(before[at], one) ? at : one;
  });
}

/** A record with each of its lists packed against the one before. */
function packLists<T extends object, K extends keyof T>(lists: readonly K[], before: T | undefined, now: T): object {
  const listOf = (record: T | undefined, list: K) => record?.[list] as readonly object[] | undefined;
  return { ...now, ...Object.fromEntries(lists.map((list) => [list, pack(listOf(before, list), listOf(now, list)!, packChanges)])) };
}

function unpackLists<T extends object>(lists: readonly (keyof T)[], before: T | undefined, packed: object): T {
  const listOf = (record: object | undefined, list: keyof T) => (record as Record<keyof T, object[]> | undefined)?.[list];
  return {
    ...packed,
    ...Object.fromEntries(lists.map((list) => [list, unpack(listOf(before, list), listOf(packed, list) as Packed<object>)])),
  } as T;
}

/** The findings again. What did not change is the same object as before. */
export const unpackFindings = (before: readonly Finding[], packed: Packed<Finding>): Finding[] => unpack(before, packed);

/** A plan against one that the page was given; null: it says the same. */
export const toFirstDelta = (given: SentPlan, { looms, power }: SentPlan): PlanDelta | null =>
  isEqual([given.looms, given.power], [looms, power]) ? null : toDelta(given, { looms, power });

/** Only what is not as it was in the last plan that was sent. */
export function toDelta(before: SentPlan | null, now: SentPlan): PlanDelta {
  return {
    looms: now.looms.map((loom, index) => {
      const last = before?.looms[index];
      if (last === loom) return index;
      const known = last?.loomId === loom.loomId ? last : undefined;
      return packLists(LISTS, known, loom) as PackedLoom;
    }),
    power: packLists(POWER_LISTS, before?.power, now.power) as PackedPower,
  };
}

/** The whole plan again. What did not change is the same object as before, so that nothing of it is drawn again. */
export function fromDelta(before: SentPlan | null, delta: PlanDelta): SentPlan {
  return {
    looms: delta.looms.map((packed, index) => {
      const last = before?.looms[index];
      if (typeof packed === 'number') return last!;
      const known = last?.loomId === packed.loomId ? last : undefined;
      return unpackLists<LoomPlan>(LISTS, known, packed);
    }),
    power: unpackLists<PowerPlan>(POWER_LISTS, before?.power, delta.power),
  };
}
