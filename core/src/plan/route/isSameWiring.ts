import type { JoinedWire, WireEnd } from '../../netlist';

const isSameEnd = (a: WireEnd, b: WireEnd) =>
  a.kind === 'cavity'
    ? b.kind === 'cavity' && a.endId === b.endId && a.cavity === b.cavity
    : b.kind === 'splice' && a.spliceId === b.spliceId;

/** Are the same wires, in the same order, between the same ends, whatever way they go? */
export const isSameWiring = (before: readonly JoinedWire[], wires: readonly JoinedWire[]): boolean =>
  before.length === wires.length &&
  wires.every(({ id, circuitId, from, to }, index) => {
    const known = before[index]!;
    return known.id === id && known.circuitId === circuitId && isSameEnd(known.from, from) && isSameEnd(known.to, to);
  });
