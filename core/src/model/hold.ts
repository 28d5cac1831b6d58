import { literals } from './ids';

/**
 * Work that a doubt can stop, in the order in which a wire meets it (craft G1). A doubt stops the work that it names: before that a wire is
 * made as usual. Covering and power are stopped by themselves, not by what stops a contact.
 */
export const HOLD_OPERATIONS = ['cut', 'crimp', 'seat', 'splice', 'cover', 'energise'] as const;
export type HoldOperation = (typeof HOLD_OPERATIONS)[number];
export const HoldOperationSchema = literals(HOLD_OPERATIONS);

/** "held from cutting" */
export const HOLD_WORDS: Readonly<Record<HoldOperation, string>> = {
  cut: 'cutting',
  crimp: 'crimping',
  seat: 'seating',
  splice: 'splicing',
  cover: 'covering',
  energise: 'power',
};

/** What of a device's pin can be a guess: which cavity it is, how much flows, at how many volts. */
export const DOUBTS = ['place', 'current', 'volts'] as const;
export type Doubt = (typeof DOUBTS)[number];
/** "cavity of throttle pin 5 only guessed" */
export const DOUBT_WORDS: Readonly<Record<Doubt, string>> = { place: 'cavity', current: 'current', volts: 'volts' };
