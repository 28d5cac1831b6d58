import type { RingOut } from 'wattograph-core';
import type { BenchPack } from '../../client/floor/useFloorStore';

/** A loom of a revision as it is proved. */
export interface ProvePack extends BenchPack {
  ringOut: RingOut;
}
