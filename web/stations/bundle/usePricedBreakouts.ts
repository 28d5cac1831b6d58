import { startTransition, useEffect, useState } from 'react';
import { findStandard, type PlannedLayup } from 'wattograph-core';
import { priceWaysOn } from '../../client/breakoutPricer';
import type { PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import type { BreakoutsAnswer } from '../../workers/breakouts.worker';

/** a cursor that only passes a line of runs asks nothing, ms */
const REST_MS = 120;

/** The breakouts of a line of runs with what each way on comes to; null: not known yet. What was asked once stays known. */
export function usePricedBreakouts({ job, plan }: PlannedLoom, layup: PlannedLayup): BreakoutsAnswer | null {
  const standard = findStandard(job, useShop());
  const [known, setKnown] = useState<ReadonlyMap<PlannedLayup, { standard: unknown; answer: BreakoutsAnswer }>>(new Map());
  const found = known.get(layup);
  const answer = found?.standard === standard ? found.answer : null;
  useEffect(() => {
    if (answer !== null) return undefined;
    let giveUp = () => {};
    const timer = setTimeout(() => {
      const ids = new Set(layup.threads.flatMap(({ parts }) => parts.flatMap(({ wireIds }) => wireIds)));
      giveUp = priceWaysOn({ layup, standard, wires: plan.wires.filter(({ id }) => ids.has(id)) }, (told) =>
        // of the lay-ups of this plan alone: those of older plans are not asked for again
        startTransition(() =>
          setKnown(
            (before) => new Map([...before].filter(([one]) => plan.layups.includes(one)).concat([[layup, { standard, answer: told }]])),
          ),
        ),
      );
    }, REST_MS);
    return () => {
      clearTimeout(timer);
      giveUp();
    };
  }, [answer, layup, standard, plan]);
  return answer;
}
