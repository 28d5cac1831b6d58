import { toSizeWords, type Conductor } from '../../catalogue';
import type { Loom } from '../../model';
import type { SizeRange } from './createSizes';
import type { ConductorRule, RoutedWire, SizedWire } from '../types';

/** A conductor that heat, a fuse or a drop budget asks for, thicker than the ends alone would have it. */
export interface MinimumSize {
  conductor: Conductor;
  ruledBy: Extract<ConductorRule, 'contact' | 'drop' | 'heat' | 'fuse' | 'alike'>;
  because: string;
}

/** Every wire with the conductor that its ends, its pin or its cable ask for by themselves: the smallest that it may have. */
export function chooseLeast(loom: Loom, wires: readonly RoutedWire[], ranges: readonly SizeRange[]): SizedWire[] {
  return wires.map(({ id, circuitId, from, to, pieces }, index) => {
    const { conductors, ruledBy } = ranges[index]!;
    const conductor = conductors[0]!;
    return { id, circuitId, from, to, pieces, conductor, ruledBy, because: toBecause(loom, circuitId, conductor, ruledBy) };
  });
}

/**
 * Conductor of every wire, with the rule that governs: pinned by the planner, else the smallest that is at least the shop minimum,
 * that its contacts take, and that the sums of the whole vehicle ask for (calculations 3). least: see chooseLeast; minimums: by wire id.
 */
export function chooseConductors({ least }: { least: readonly SizedWire[] }, minimums: ReadonlyMap<string, MinimumSize>): SizedWire[] {
  return least.map((wire) => {
    const minimum = minimums.get(wire.id);
    if (!minimum || wire.ruledBy === 'pinned' || wire.ruledBy === 'cable' || minimum.conductor.areaMm2 <= wire.conductor.areaMm2)
      return wire;
    const { id, circuitId, from, to, pieces } = wire;
    return { id, circuitId, from, to, pieces, conductor: minimum.conductor, ruledBy: minimum.ruledBy, because: minimum.because };
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
