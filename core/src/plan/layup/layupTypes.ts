/** What a lay-up is asked of: one line of runs that goes on and on, and everything that lies in it. */
export interface LayupStrip {
  /** of its first run */
  id: string;
  /** the runs along it, from the datum outwards */
  segmentIds: readonly string[];
  /** the mark at which each of them begins */
  segmentMarks: readonly number[];
  /** where something begins or ends, mm from its start; the first is 0, the last its length */
  marks: readonly LayupMark[];
  threads: readonly Thread[];
}

/** A place along a strip at which something begins or ends, or that has a name. */
export interface LayupMark {
  mm: number;
  kind: 'start' | 'breakout' | 'pass' | 'splice' | 'end';
  /** null: at a splice */
  nodeId: string | null;
}

/**
 * What keeps one place in a layer: a wire, a twisted group or a cable; over a splice that lies in the strip the wire that goes on is the
 * same thread.
 */
export interface Thread {
  id: string;
  kind: 'wire' | 'twist' | 'cable';
  /** mm, its thickest part */
  odMm: number;
  /** copper of its thickest conductor, mm² */
  areaMm2: number;
  /** of marks: from which to which it lies in the strip */
  from: ThreadEnd;
  to: ThreadEnd;
  /** marks at which it is spliced to another thread: that one lies beside it, or a layer further */
  joints: readonly number[];
  parts: readonly { wireIds: readonly string[]; fromMark: number; toMark: number }[];
}

/** How a thread begins or ends: with the strip, out at a breakout, or at a splice beside the thread that it is joined to. */
export interface ThreadEnd {
  mark: number;
  kind: 'strip' | 'breakout' | 'splice';
  /** side by which it comes out: degrees from 12 o'clock, clockwise seen from the datum; null: any, or it does not */
  sideDeg: number | null;
  /** the thread it is joined to at a splice */
  besideId: string | null;
}

/** What a shop holds to when it lays up: fields of its standard (calculations 6, craft A1). */
export interface LayupRules {
  /** lay length over the outside diameter of its layer */
  ratio: number;
  leastRatio: number;
  mostRatio: number;
  leastLayMm: number;
  /** how much tighter than round a layer may lie, share of the full turn */
  squeeze: number;
  /** mm: what there is to fill with; empty: as thick as what it lies beside */
  fillerOdsMm: readonly number[];
  /** cost of a metre of filler, of each piece of it, and of laying anew at one place, in the same money */
  fillerPerM: number;
  fillerEach: number;
  relayCost: number;
  /** laid anew where it gets so much thinner, share */
  relayThinner: number;
}

/** Which threads lie in which layer from one mark to another, from the core outwards; the next stretch is laid anew. */
export interface Stretch {
  fromMark: number;
  toMark: number;
  layers: readonly (readonly string[])[];
  /** dead wire among the core, so that it is round; a core of one and no thread: 1 */
  coreFillers: number;
}

/** Stretches of a strip, one after another over its whole length. */
export interface LayupDecision {
  stretches: readonly Stretch[];
}

export type Hand = 'right' | 'left';

/** A place in a layer: a thread, or filler all along. */
export interface LaidSlot {
  /** null: filler from start to end */
  threadId: string | null;
  odMm: number;
  /** of its middle from the middle of the bundle, mm */
  pitchRadiusMm: number;
  /** where it starts: degrees from 12 o'clock, clockwise seen from the datum */
  startDeg: number;
  /** wire per length of axis */
  takeUp: number;
  /** where dead wire lies in its place, marks */
  fillers: readonly { fromMark: number; toMark: number }[];
  /** how far from the middle of its branch's side it comes up, degrees; null: where no side is known */
  offSideDeg: number | null;
}

export interface LaidLayer {
  /** null: one element, not twisted */
  hand: Hand | null;
  layMm: number | null;
  innerOdMm: number;
  outerOdMm: number;
  fillerOdMm: number;
  /** where it lies at all, marks */
  fromMark: number;
  toMark: number;
  /** in their order round it, clockwise seen from the datum */
  slots: readonly LaidSlot[];
}

export interface LaidStretch {
  fromMark: number;
  toMark: number;
  layers: readonly LaidLayer[];
}

/** A thread that has to come out through a layer, or go in through one. */
export interface Crossing {
  threadId: string;
  mark: number;
  /** layers that it passes, counted from the core */
  layers: readonly number[];
}

/** What the layers of a stretch come to. */
export interface LayupCost {
  /** threads that do not lie where they were pinned */
  unpinned: number;
  crossings: number;
  fillers: number;
  fillerMm: number;
  /** most */
  odMm: number;
}
