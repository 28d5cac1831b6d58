import type { ShopStandard } from '../../catalogue';
import type { Job } from '../../model';
import type { LoomPlan } from '../../plan';

/** Largest current in each cavity of a break, A, as far as it is known. */
export function listBreakCurrents(job: Job, looms: readonly LoomPlan[], mateId: string): Record<string, number> {
  const { a } = job.mates[mateId]!;
  const plan = looms.find(({ loomId }) => loomId === a.loomId);
  const result: Record<string, number> = {};
  plan?.wires.forEach(({ from, to }, index) => {
    for (const end of [from, to])
      if (end.kind === 'cavity' && end.endId === a.endId)
        result[end.cavity] = Math.max(result[end.cavity] ?? 0, plan.currents[index]!.designA ?? 0);
  });
  return result;
}

/** Cavities of a break that the shop keeps to spare: its share of all, at least one. */
export const countWantedSpares = (ways: number, { spareShare }: Pick<ShopStandard, 'spareShare'>): number =>
  Math.max(1, Math.ceil(ways * spareShare));
