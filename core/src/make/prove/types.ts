import type { CircuitKind } from '../../model';

/** A place that a probe is put to: a cavity of a connector, a ring of a stud, a bare end. */
export interface Probe {
  endId: string;
  cavity: string;
}

/** An end of the loom as a tester sees it; cavities in the order of the face. */
export interface ProvedEnd {
  id: string;
  name: string;
  /** is it a housing, in whose cavities contacts can be exchanged */
  hasCavities: boolean;
  cavities: string[];
  /** cavities that nothing belongs in */
  empty: string[];
}

/** A wire as copper between two joints: probes "end cavity", splices "splice id". */
export interface CopperPiece {
  wireId: string;
  number: string;
  circuitId: string;
  from: string;
  to: string;
  /** at 20 °C, without its ends */
  ohm: number;
  /** cable that it lies in */
  groupId: string | null;
}

/** Probes that the loom joins. */
export interface ProvedNet {
  id: string;
  name: string;
  kind: CircuitKind;
  probes: Probe[];
  wireIds: string[];
  /** nets that a part of the loom joins it with: a terminator, a diode */
  partnerIds: string[];
}

/** A part that is no wire, between two cavities of an end; ohms null: a diode or the like. */
export interface ProvedPart {
  id: string;
  words: string;
  a: Probe;
  b: Probe;
  ohms: number | null;
}

export type ProofUnit = 'Ω' | 'mV' | 'MΩ';

/**
 * One measurement. join: from one probe to another of its net; isolate: its net, tied together, against all other nets tied together;
 * part: across a part; seek: asked for by what was read, to tell what is wrong. to null: all others. atA: at this current, four-wire.
 */
export interface ProofTest {
  id: string;
  kind: 'join' | 'isolate' | 'part' | 'seek';
  netId: string;
  from: Probe;
  to: Probe | null;
  wires: string[];
  unit: ProofUnit;
  atA: number | null;
  expected: number | null;
  least: number | null;
  most: number | null;
}

/** Everything that is measured on a bare loom before anything dear is plugged in. */
export interface RingOut {
  loomId: string;
  ends: ProvedEnd[];
  nets: ProvedNet[];
  copper: CopperPiece[];
  parts: ProvedPart[];
  /** of each joint, Ω */
  jointOhm: Record<string, number>;
  /** in the order in which probes move least */
  tests: ProofTest[];
  /** times that a probe goes on to another end */
  moves: number;
  /** direct voltage of the isolation measurements */
  isolationVolts: number;
}

/** Value of an open circuit, in ohms. */
export const OPEN_OHM = 1_000_000;
/** and in millivolts: the supply is at its limit */
export const OPEN_MV = 1_000_000;

export const toProbeKey = ({ endId, cavity }: Probe): string => `${endId} ${cavity}`;

export function toProbe(key: string): Probe {
  const [endId = '', cavity = ''] = key.split(' ');
  return { endId, cavity };
}

/** Two probes under one name, whichever is said first. */
export const toPairKey = (a: string, b: string): string => (a < b ? `${a} ${b}` : `${b} ${a}`);
