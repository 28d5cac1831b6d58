import type { ShopStandard } from '../shop/standard';
import type { Loom } from './loom';
import type { Bundling } from './segment';

/** How the wires of a run lie: as it says itself, else as its loom says, else as the shop does. */
export const findBundling = (
  { bundling, segments }: Pick<Loom, 'bundling' | 'segments'>,
  segmentId: string,
  standard: Pick<ShopStandard, 'bundling'>,
): Bundling => segments[segmentId]!.bundling ?? bundling ?? standard.bundling;
