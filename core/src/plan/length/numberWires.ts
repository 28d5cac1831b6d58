import type { Catalogue, ShopStandard } from '../../catalogue';
import type { Job, Loom } from '../../model';
import { toLetters } from '../../units';
import { chooseLabel } from '../mark/chooseLabel';
import { createAmbients } from '../terminate/measureContactRating';
import type { SizedWire } from '../types';

/** The number of a wire and the sleeve it is printed on; null where none fits. */
export interface WireMark {
  number: string;
  labelId: string | null;
}

/**
 * Marks of wires, in their order: loom prefix, circuit, and a letter where a circuit is more than one piece (A nearest its source). A mark stands
 * how hot it gets at the hotter end of its wire.
 */
export function numberWires(
  { job, loom, catalogue, standard }: { job: Job; loom: Loom; catalogue: Catalogue; standard: ShopStandard },
  wires: readonly SizedWire[],
): WireMark[] {
  const ambientAt = createAmbients(job, loom, standard);
  const pieces = new Map<string, number>();
  for (const { circuitId } of wires) pieces.set(circuitId, (pieces.get(circuitId) ?? 0) + 1);
  const used = new Map<string, number>();
  return wires.map(({ circuitId, conductor, from, to }) => {
    const index = used.get(circuitId) ?? 0;
    used.set(circuitId, index + 1);
    const letter = pieces.get(circuitId) === 1 ? '' : toLetters(index).toUpperCase();
    const number = `${loom.prefix}-${loom.circuits[circuitId]!.number}${letter}`;
    const ambientC = Math.max(...[from, to].map((end) => ('endId' in end ? ambientAt(loom.ends[end.endId]!.nodeId) : -Infinity)));
    return { number, labelId: chooseLabel(catalogue, conductor.odMm, number, standard, ambientC)?.stock.id ?? null };
  });
}
