import type { Resin } from '../model';

/** One that stays a little soft, and one for heat. */
export const RESINS: readonly Resin[] = [
  {
    ...{ id: 'resin-soft', name: 'flexible potting resin', partA: 100, partB: 12, densityGPerMl: 1.1 },
    ...{ potLifeMin: 40, cureH: 16, halvingK: 10, limitC: 130 },
  },
  {
    ...{ id: 'resin-hot', name: 'heat-proof potting resin', partA: 100, partB: 28, densityGPerMl: 1.25 },
    ...{ potLifeMin: 25, cureH: 24, halvingK: 10, limitC: 180 },
  },
];
