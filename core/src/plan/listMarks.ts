import type { Catalogue, Conductor } from '../catalogue';
import type { Loom } from '../model';
import type { PlannedWire, SizedWire } from './types';

/** Wire numbers: loom prefix, circuit, and a letter where a circuit is more than one piece (A nearest its source). */
export function listMarks<T extends SizedWire>(
  loom: Loom,
  wires: readonly T[],
  catalogue: Catalogue,
): (T & Pick<PlannedWire, 'number' | 'labelId'>)[] {
  const pieces = new Map<string, number>();
  for (const { circuitId } of wires) pieces.set(circuitId, (pieces.get(circuitId) ?? 0) + 1);
  const used = new Map<string, number>();
  return wires.map((wire) => {
    const index = used.get(wire.circuitId) ?? 0;
    used.set(wire.circuitId, index + 1);
    const letter = pieces.get(wire.circuitId) === 1 ? '' : toLetters(index);
    return {
      ...wire,
      number: `${loom.prefix}-${loom.circuits[wire.circuitId]!.number}${letter}`,
      labelId: chooseLabel(wire.conductor, catalogue),
    };
  });
}

/** 0 → A, 25 → Z, 26 → AA. */
function toLetters(index: number): string {
  return index < 26 ? String.fromCharCode(65 + index) : toLetters(Math.floor(index / 26) - 1) + toLetters(index % 26);
}

function chooseLabel({ odMm }: Conductor, catalogue: Catalogue): string | null {
  return catalogue.labels.find((label) => label.suppliedBoreMm >= 1.1 * odMm && label.recoveredBoreMm <= odMm)?.id ?? null;
}
