import type { PathStep, PlannedLoad } from '../types';

/** A point on the way of a current, and what is lost up to it, V. */
export interface VoltageStep {
  words: string;
  lostV: number;
}

/** What is lost along the way out to a load, from the source on, and along the way back, from battery negative on. */
export function listVoltageSteps({ steps }: Pick<PlannedLoad, 'steps'>): { out: VoltageStep[]; back: VoltageStep[] } {
  const of = (way: PathStep['way']) => steps.filter((step) => step.way === way);
  return { out: climb(of('out')), back: climb(of('back').reverse()) };
}

function climb(steps: readonly PathStep[]): VoltageStep[] {
  let lostV = 0;
  return [
    { words: 'source', lostV },
    ...steps.map(({ dropV, words, kind }) => {
      lostV += dropV;
      return { words: kind === 'wire' ? words : `${kind} ${words}`, lostV };
    }),
  ];
}
