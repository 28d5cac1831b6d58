/** Kinds of work, in the order of a shop's day: where nothing forces another order, steps follow this one. */
export const OPERATIONS = [
  'undo',
  'cut',
  'twist',
  'mark',
  'screen',
  'seal',
  'thread',
  'crimp',
  'bunch',
  'seat',
  'plug',
  'ring',
  'pot',
  'wait',
  'yes',
  'visit',
  'fabricate',
  'lay',
  'splice',
  'layup',
  'tie',
  'photo',
  'slide',
  'cover',
  'fit',
  'label',
  'boot',
  'shrink',
  'close',
  'test',
  'depin',
  'sign',
  'route',
  'clip',
  'torque',
] as const;
export type Operation = (typeof OPERATIONS)[number];

/** The item of a test under which the pairs are read. */
export const PAIRS = 'pairs';

/** and the one under which each leg is moved while it is logged. */
export const WIGGLE = 'wiggle';

/** and the one under which every net is read against all others. */
export const ISOLATION = 'isolation';

/** One thing that work asks for: a length in mm, or words. */
export interface Ask {
  what: string;
  value: number | string;
}

/** A reading that work is proved by, and what passes. */
export interface ExpectedReading {
  /** of the item */
  id: string;
  words: string;
  unit: 'N' | 'Ω' | 'mV' | 'MΩ' | 'Nm';
  /** null: no limit on this side */
  least: number | null;
  most: number | null;
}

/** One thing to tick inside a step: a wire to cut, a cavity to crimp. */
export interface StepItem {
  id: string;
  words: string;
  /** all that the work itself asks for: as long as this is the same, work done once counts in a later revision */
  asks: Ask[];
  wireIds: string[];
  cavity: string | null;
  /** what is read with an instrument before it is ticked; empty: nothing */
  reads: ExpectedReading[];
  /** why it cannot be done yet, or null */
  heldBecause: string | null;
}

/** One step of a build, with what it needs before it. */
export interface Step {
  id: string;
  operation: Operation;
  title: string;
  endId: string | null;
  segmentId: string | null;
  spliceId: string | null;
  items: StepItem[];
  tool: string;
  parts: string[];
  /** what can hurt here, in a line; null where nothing special does */
  caution: string | null;
  /** what it takes by itself, min; absent: by the figures of the shop */
  minutes?: number;
  /** steps that must be done first, with the reason */
  needs: { stepId: string; because: string }[];
}
