import type { WireEnd } from '../../netlist';
import type { PlannedWire } from '../types';

/**
 * Wires with those that say the same as before as the objects that they were before: what is made of them, and what is sent of them, is
 * found. before: in the same order.
 */
export function keepWires(before: readonly PlannedWire[] | undefined, now: readonly PlannedWire[]): PlannedWire[] {
  return now.map((wire, at) => {
    const known = before?.[at];
    return known !== undefined && isSameFigures(known, wire) && isSameWay(known, wire) && isSameRest(known, wire) ? known : wire;
  });
}

// field by field: there are thousands of wires, and most say the same
const isSameFigures = (one: PlannedWire, other: PlannedWire) =>
  one.lengthMm === other.lengthMm &&
  one.cutMm === other.cutMm &&
  one.sigmaMm === other.sigmaMm &&
  one.roughMm === other.roughMm &&
  one.firstCutMm === other.firstCutMm &&
  one.massG === other.massG;

const isSameWay = (one: PlannedWire, other: PlannedWire) =>
  one.id === other.id &&
  isSameEnd(one.from, other.from) &&
  isSameEnd(one.to, other.to) &&
  isSameList(one.pieces, other.pieces, (a, b) => a.segmentId === b.segmentId && a.fromMm === b.fromMm && a.toMm === b.toMm) &&
  isSameList(one.addends, other.addends, (a, b) => a.mm === b.mm && a.of === b.of && a.kind === b.kind && a.words === b.words);

const isSameRest = (one: PlannedWire, other: PlannedWire) =>
  one.conductor === other.conductor &&
  one.because === other.because &&
  one.ruledBy === other.ruledBy &&
  one.number === other.number &&
  one.labelId === other.labelId &&
  one.circuitId === other.circuitId &&
  one.kind === other.kind &&
  isSameList(one.unfittedIds, other.unfittedIds, (a, b) => a === b) &&
  isSameList(one.heldBy, other.heldBy, isSameText) &&
  isSameText(one.colour, other.colour) &&
  isSameText(one.cable, other.cable);

function isSameEnd(one: WireEnd, other: WireEnd): boolean {
  if (one === other) return true;
  if (one.kind === 'splice') return other.kind === 'splice' && one.spliceId === other.spliceId;
  return other.kind === 'cavity' && one.endId === other.endId && one.cavity === other.cavity;
}

function isSameList<T>(one: readonly T[], other: readonly T[], isSame: (a: T, b: T) => boolean): boolean {
  if (one.length !== other.length) return false;
  for (let at = 0; at < one.length; at += 1) if (one[at] !== other[at] && !isSame(one[at]!, other[at]!)) return false;
  return true;
}

/** small, and mostly one object */
const isSameText = (one: unknown, other: unknown) => one === other || JSON.stringify(one) === JSON.stringify(other);
