import type { LoomPlan } from './types';

/** What an edit changed in a plan: each list has only what is different. Lengths and diameters in mm, mass in g. */
export interface PlanChanges {
  cuts: { wireId: string; number: string; fromMm: number | null; toMm: number | null }[];
  diameters: { segmentId: string; fromMm: number | null; toMm: number | null }[];
  sleeves: { segmentId: string; from: string | null; to: string | null }[];
  massG: number;
}

/** Differences between two plans of one loom; null stands for what was not there. */
export function comparePlans(before: LoomPlan, after: LoomPlan): PlanChanges {
  const pair = <T, K>(
    list: (plan: LoomPlan) => readonly T[],
    id: (one: T) => string,
    make: (id: string, from: T | undefined, to: T | undefined) => K | null,
  ): K[] => {
    const old = new Map(list(before).map((one) => [id(one), one]));
    const now = new Map(list(after).map((one) => [id(one), one]));
    return [...new Set([...old.keys(), ...now.keys()])].flatMap((key) => make(key, old.get(key), now.get(key)) ?? []);
  };
  return {
    cuts: pair(
      (plan) => plan.wires,
      ({ id }) => id,
      (wireId, from, to) =>
        from?.cutMm === to?.cutMm ? null : { wireId, number: (to ?? from)!.number, fromMm: from?.cutMm ?? null, toMm: to?.cutMm ?? null },
    ),
    diameters: pair(
      (plan) => plan.bundles,
      ({ segmentId }) => segmentId,
      (segmentId, from, to) =>
        from && to && Math.abs(from.odMm - to.odMm) < 0.005 ? null : { segmentId, fromMm: from?.odMm ?? null, toMm: to?.odMm ?? null },
    ),
    sleeves: pair(
      (plan) => plan.coverings,
      ({ segmentId }) => segmentId,
      (segmentId, from, to) => {
        const words = (one: typeof from) => (one ? `${one.itemName}, ${one.cutMm} mm` : null);
        return words(from) === words(to) ? null : { segmentId, from: words(from), to: words(to) };
      },
    ),
    massG: after.massG.total - before.massG.total,
  };
}
