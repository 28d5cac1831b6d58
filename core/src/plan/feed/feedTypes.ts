import type { FeedPiece } from './orderFeed';

/** An end in its turn at a hole. */
export interface PlannedFeedPiece extends FeedPiece {
  /** of the end */
  id: string;
  /** its housing, its rings or its bare wires, as it goes through */
  goesAs: 'housing' | 'rings' | 'wires';
  throughMm: number;
  needMm: number;
  passes: boolean;
}

/** How a loom is led through one hole. */
export interface PlannedFeed {
  nodeId: string;
  boreMm: number;
  /** of the bore, that is not to be had: what stays free, and what another loom takes that goes through the same hole */
  leaveMm: number;
  /** of that, what other looms take, mm */
  besideMm: number;
  /** what goes through: the part beyond the hole, or the part with the datum */
  direction: 'outward' | 'inward';
  because: string;
  /** the whole bundle over its covering, mm */
  wholeMm: number;
  /** in their order; those that do not pass come last */
  pieces: PlannedFeedPiece[];
  /** ends whose housing or rings nobody knows the size of */
  unknownIds: string[];
  /** the fewest ends that have to be pinned in the vehicle for the rest to pass */
  offIds: string[];
  /** the least hole, in whole mm, through which all goes as it is */
  leastBoreMm: number;
}
