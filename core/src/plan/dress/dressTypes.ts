/** A piece of what finishes an end or a breakout. */
export interface DressPiece {
  role: 'build-up' | 'boot' | 'step' | 'label' | 'transition' | 'over-sleeve' | 'wrap';
  /** table of the shop that it is in */
  table: 'coverings' | 'boots' | 'transitions' | 'labels';
  itemId: string;
  itemName: string;
  /** what is cut off, longer than it lies where it shortens; of a moulded part its length, mm */
  cutMm: number;
  /** where it lies, mm along the wires away from the joint: from the rear of a housing, or from the middle of a breakout (towards the datum below 0) */
  fromMm: number;
  toMm: number;
  /** thinnest that it lies on, and over it there, mm */
  underMm: number;
  overMm: number;
  isLined: boolean;
  massG: number;
}

/** What each is called where people read it. */
export const DRESS_ROLE_WORDS = {
  ...{ 'build-up': 'build-up', boot: 'boot', step: 'step', label: 'label', transition: 'transition', 'over-sleeve': 'over-sleeve' },
  wrap: 'wrap that opens',
} as const satisfies Record<DressPiece['role'], string>;

/** What slides on before ends are closed: all but what is laid round a joint from the side. */
export const listSlid = (pieces: readonly DressPiece[]): DressPiece[] => pieces.filter(({ role }) => role !== 'wrap');

/** How what slides on an end stands back while that end is made. */
export interface Parking {
  /** nothing slides; all of it stands back on loose wire; the leg is covered before its end is made and the rest stands on it; over the made end */
  order: 'none' | 'push-back' | 'cover-first' | 'after-end';
  /** what stands back, from the breakout to the end, with the length that it takes there, mm */
  pieces: { name: string; lengthMm: number }[];
  /** all of that and the bare wire in front of it, mm */
  needMm: number;
  /** what there is to stand on, mm */
  roomMm: number;
  fits: boolean;
  because: string;
}

/** The end of a leg, from the wire outwards. */
export interface PlannedEndDress {
  endId: string;
  /** the run that ends there */
  segmentId: string;
  /** over the covering of the leg */
  leadMm: number;
  /** of the housing's rear; null: nothing there holds a boot */
  bodyMm: number | null;
  /** from the wire outwards */
  pieces: DressPiece[];
  ruledBy: 'pinned' | 'zone' | 'standard';
  because: string;
  /** nothing of the shop closes from body to leg */
  problem: null | 'none-fits';
  parking: Parking;
}

/** A breakout, from the wire outwards. */
export interface PlannedBreakoutDress {
  nodeId: string;
  trunkSegmentId: string;
  legSegmentIds: string[];
  trunkMm: number;
  legsMm: number[];
  /** round that holds all legs together */
  togetherMm: number;
  pieces: DressPiece[];
  ruledBy: 'pinned' | 'zone' | 'standard';
  because: string;
  problem: null | 'none-fits';
  /** what it stands back on while the ends beyond are made, and whether that is long enough; null: nothing slides */
  parking: Parking | null;
}
