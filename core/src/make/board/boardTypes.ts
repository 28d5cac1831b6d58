/** What is held at an end: the room that its housing takes beyond the wires, and half of its width, mm. */
export interface Fixture {
  endId: string;
  depthMm: number;
  halfMm: number;
}

/** A run of the loom as it is laid on a board, parents before children. */
export interface BoardPiece {
  segmentId: string;
  /** index of the run that it goes on from; -1: from the datum */
  parent: number;
  lengthMm: number;
  /** half of what it measures over its covering, mm */
  radiusMm: number;
  /** least radius of its middle line, mm */
  bendMm: number;
  /** it goes straight on from its parent; else it forks off, or begins at the datum */
  isOnward: boolean;
  /** where it leaves as seen from above, looking on from the datum; null: not surveyed */
  side: 'left' | 'right' | null;
  /** at its far node; null: it goes on there */
  fixture: Fixture | null;
}

export interface BoardTree {
  pieces: BoardPiece[];
  /** at the datum */
  datum: Fixture | null;
  /** between two that are not neighbours, mm */
  clearMm: number;
}

/** A bend within a run: so far from its near side, by so much, to the left where it is positive. */
export interface Fold {
  atMm: number;
  turnDeg: number;
}

/**
 * How a loom is spread: by how much each fork turns out of what it leaves, to the left where it is positive, of a run at the datum from
 * straight right; folds, null where a run is straight.
 */
export interface BoardForm {
  turns: number[];
  folds: (Fold | null)[];
}

/** A straight part of a run, or of a housing. x to the right, y up, mm. */
export interface Rod {
  piece: number;
  /** of the run's own way, mm from its near node; of a housing from the end of its run on */
  fromMm: number;
  lengthMm: number;
  x: number;
  y: number;
  /** direction, a unit vector */
  dx: number;
  dy: number;
  radiusMm: number;
  isFixture: boolean;
}

export interface Box {
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

/** Rectangle of the board that may be used, mm. */
export interface BoardSize {
  widthMm: number;
  heightMm: number;
}
