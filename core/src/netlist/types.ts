/** A cavity, or a ring of a stud, of the vehicle. */
export interface PinPlace {
  loomId: string;
  endId: string;
  cavity: string;
}

export interface CircuitPlace {
  loomId: string;
  circuitId: string;
}

export type WireEnd = { kind: 'cavity'; endId: string; cavity: string } | { kind: 'splice'; spliceId: string };

/** One piece of copper between two ends. */
export interface JoinedWire {
  id: string;
  circuitId: string;
  from: WireEnd;
  to: WireEnd;
}

export const toPinKey = ({ loomId, endId, cavity }: PinPlace) => `${loomId}/${endId}/${cavity}`;

export const toCircuitKey = ({ loomId, circuitId }: CircuitPlace) => `${loomId}/${circuitId}`;
