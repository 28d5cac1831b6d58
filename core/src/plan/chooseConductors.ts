import { toSizeWords, type Conductor } from '../catalogue';
import type { Loom } from '../model';
import type { SizeRange } from './createSizes';
import type { ConductorRule, RunWire, SizedWire } from './types';

/** A conductor that heat, a fuse or a drop budget asks for, thicker than the ends alone would have it. */
export interface SizeDemand {
  conductor: Conductor;
  ruledBy: Extract<ConductorRule, 'contact' | 'drop' | 'heat' | 'fuse' | 'alike'>;
  because: string;
}

/**
 * Conductor of every wire, with the rule that governs: pinned by the planner, else the smallest that is at least the shop minimum,
 * that its contacts take, and that the sums of the whole vehicle ask for (calculations 3). demands: by wire id.
 */
export function chooseConductors(
  loom: Loom,
  { wires, ranges }: { wires: readonly RunWire[]; ranges: readonly SizeRange[] },
  demands: ReadonlyMap<string, SizeDemand>,
): SizedWire[] {
  return wires.map((wire, index) => {
    const { conductors, ruledBy } = ranges[index]!;
    const least = conductors[0]!;
    const demand = demands.get(wire.id);
    const { id, circuitId, from, to, pieces } = wire;
    const choice =
      demand && ruledBy !== 'pinned' && ruledBy !== 'cable' && demand.conductor.areaMm2 > least.areaMm2
        ? demand
        : { conductor: least, ruledBy, because: toBecause(loom, circuitId, least, ruledBy) };
    return { id, circuitId, from, to, pieces, conductor: choice.conductor, ruledBy: choice.ruledBy, because: choice.because };
  });
}

function toBecause(loom: Loom, circuitId: string, least: Conductor, ruledBy: SizeRange['ruledBy']): string {
  switch (ruledBy) {
    case 'pinned':
      return loom.circuits[circuitId]!.sizePin!.reason;
    case 'cable':
      return `conductor of cable ${loom.circuits[circuitId]!.cable!.groupId}`;
    case 'minimum':
      return `shop minimum ${toSizeWords(least)}`;
    case 'contact':
      return 'smallest above the shop minimum that the contacts and seals take';
    case 'none':
      return 'no size of this table is taken at both ends';
  }
}
