import type { CoveringKind, MeasureMethod } from '../model';

/** Where a shop stands on each question of practice; every default of a calculation is a field here. */
export interface ShopStandard {
  id: string;
  name: string;
  /** cut lengths are rounded up to a multiple of this */
  cutIncrementMm: number;
  reterminations: number;
  reterminationMm: number;
  /** smallest size for hand-crimped single wires, by wire table */
  minimumSize: Record<'etfe' | 'thinwall', string>;
  /** wire that one splice must save to be worth making */
  spliceCostMm: number;
  spliceFromBreakoutMm: number;
  spliceFromConnectorMm: number;
  spliceApartMm: number;
  spliceMostWires: number;
  ringsOnStud: number;
  /** spread of a measured length, σ = a + b · length */
  sigma: Record<MeasureMethod, { aMm: number; share: number }>;
  roughExtraMm: number;
  /** covering where the zone asks for nothing in particular */
  covering: Exclude<CoveringKind, 'none'>;
  shrinkOverlapMm: number;
  lookAlikeReachMm: number;
  pullToSeatFreeMm: number;
  /** bared conductor at a flying tail */
  tailStripMm: number;
  bendFactor: number;
  bendFactorHeavy: number;
}

/** The shop standard of Larkhollow Looms. */
export const LARKHOLLOW: ShopStandard = {
  id: 'larkhollow',
  name: 'Larkhollow house style',
  cutIncrementMm: 5,
  reterminations: 2,
  reterminationMm: 8,
  minimumSize: { etfe: '22', thinwall: '0.5' },
  spliceCostMm: 250,
  spliceFromBreakoutMm: 40,
  spliceFromConnectorMm: 75,
  spliceApartMm: 40,
  spliceMostWires: 5,
  ringsOnStud: 4,
  sigma: {
    tape: { aMm: 5, share: 0.005 },
    rope: { aMm: 10, share: 0.01 },
    board: { aMm: 3, share: 0 },
    drawing: { aMm: 2, share: 0.005 },
    estimate: { aMm: 0, share: 0.15 },
    fitted: { aMm: 0, share: 0 },
  },
  roughExtraMm: 50,
  covering: 'shrink',
  shrinkOverlapMm: 10,
  lookAlikeReachMm: 250,
  pullToSeatFreeMm: 60,
  tailStripMm: 8,
  bendFactor: 6,
  bendFactorHeavy: 10,
};
