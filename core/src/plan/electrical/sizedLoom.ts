import type { LoomPlan, SizedWire } from '../types';

/** A loom as far as its wires are sized: what the sums of the vehicle take from it. */
export interface SizedLoom extends Pick<LoomPlan, 'loomId' | 'bundles' | 'layups' | 'coverings' | 'heats' | 'currents'> {
  wires: readonly SizedWire[];
  /** of each wire */
  lengthsMm: readonly number[];
}
