import type { ShopStandard } from '../../catalogue';

type Bands = Pick<ShopStandard, 'currentBandShare' | 'currentBandA' | 'supplyFactor' | 'supplyExtraA'>;

/** What a supply is limited to where so much is expected, A (craft E2): 1.25 · expected + 0.2. */
export const toSupplyLimit = (expectedA: number, { supplyFactor, supplyExtraA }: Bands): number => supplyFactor * expectedA + supplyExtraA;

/** A current is right within a share of what is expected, and never nearer than so much. */
export function toCurrentLimits(expectedA: number, { currentBandShare, currentBandA }: Bands): { least: number; most: number } {
  const band = Math.max(currentBandShare * expectedA, currentBandA);
  return { least: Math.max(0, expectedA - band), most: expectedA + band };
}
