import isEqual from 'fast-deep-equal';
import type { Finding, LoomPlan } from 'wattograph-core';

/** A list in which what is as it was before stands as its index in the list before. */
export type Packed<T extends object> = (T | number)[];

const LISTS = ['wires', 'splices', 'barrels', 'bundles', 'coverings', 'heats', 'terminations', 'plugs'] as const;
type Lists = (typeof LISTS)[number];
type PackedLoom = Omit<LoomPlan, Lists> & { [K in Lists]: Packed<LoomPlan[K][number]> };

/** What a plan and its findings come to against those before them: a drag changes little of a large loom. */
export interface PlanDelta {
  looms: (PackedLoom | number)[];
  findings: Packed<Finding>;
}

export interface Planned {
  looms: LoomPlan[];
  findings: Finding[];
}

const pack = <T extends object>(before: readonly T[] | undefined, now: readonly T[]): Packed<T> =>
  now.map((one, index) => (before?.[index] !== undefined && isEqual(before[index], one) ? index : one));

function unpack<T extends object>(before: readonly T[] | undefined, packed: Packed<T>): T[] {
  const same = before !== undefined && before.length === packed.length && packed.every((one) => typeof one === 'number');
  return same ? (before as T[]) : packed.map((one) => (typeof one === 'number' ? before![one]! : one));
}

/** Only what is not as it was in the last plan that was sent. */
export function toDelta(before: Planned | null, now: Planned): PlanDelta {
  return {
    looms: now.looms.map((loom, index) => {
      const last = before?.looms[index];
      if (last === loom) return index;
      const known = last?.loomId === loom.loomId ? last : undefined;
      return { ...loom, ...Object.fromEntries(LISTS.map((list) => [list, pack<object>(known?.[list], loom[list])])) } as PackedLoom;
    }),
    findings: pack(before?.findings, now.findings),
  };
}

/** The whole plan again. What did not change is the same object as before, so that nothing of it is drawn again. */
export function fromDelta(before: Planned | null, delta: PlanDelta): Planned {
  return {
    looms: delta.looms.map((packed, index) => {
      const last = before?.looms[index];
      if (typeof packed === 'number') return last!;
      const known = last?.loomId === packed.loomId ? last : undefined;
      return { ...packed, ...Object.fromEntries(LISTS.map((list) => [list, unpack<object>(known?.[list], packed[list])])) } as LoomPlan;
    }),
    findings: unpack(before?.findings, delta.findings),
  };
}
