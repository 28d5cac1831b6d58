import type { Tree } from '../types';

type TreeSegment = Tree['segments'][string];

/** The node at which a wire goes out of one run into another that meets it. */
export const findTurn = (one: TreeSegment, other: TreeSegment): string =>
  one.farNodeId === other.nearNodeId || one.farNodeId === other.farNodeId ? one.farNodeId : one.nearNodeId;
