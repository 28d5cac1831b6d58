import { toSizeWords, type Catalogue, type Conductor, type ShopStandard } from '../catalogue';
import type { Job, Loom } from '../model';
import { findFamily } from '../catalogue';
import type { RunWire, SizedWire } from './types';

/**
 * Conductor of every wire: pinned by the planner, else the smallest that is at least the shop minimum and that the contacts
 * at its cavities accept. Where none is accepted by all, the shop minimum stands and the check of the ends says so.
 */
export function chooseConductors(
  job: Job,
  loom: Loom,
  wires: readonly RunWire[],
  catalogue: Catalogue,
  standard: ShopStandard,
): SizedWire[] {
  const rangesBySize = new Map<string, [number, number][]>();
  for (const { cavitySize, minAreaMm2, maxAreaMm2 } of catalogue.contacts) {
    rangesBySize.set(cavitySize, [...(rangesBySize.get(cavitySize) ?? []), [minAreaMm2, maxAreaMm2]]);
  }
  const rangesAt = new Map<string, [number, number][] | null>();
  for (const [endId, end] of Object.entries(loom.ends)) {
    const family = findFamily(job, catalogue, end.familyId);
    rangesAt.set(endId, family && end.kind === 'connector' ? (rangesBySize.get(family.cavitySize) ?? []) : null);
  }
  const accepts = (wire: RunWire, { areaMm2 }: Conductor) =>
    [wire.from, wire.to].every((end) => {
      const ranges = end.kind === 'cavity' ? rangesAt.get(end.endId) : null;
      return !ranges || ranges.some(([least, most]) => areaMm2 >= least - 1e-9 && areaMm2 <= most + 1e-9);
    });

  type Choice = Pick<SizedWire, 'conductor' | 'ruledBy' | 'because'>;
  const choose = (wire: RunWire): Choice => {
    const circuit = loom.circuits[wire.circuitId]!;
    const table = catalogue.wires[circuit.wireTable];
    if (circuit.sizePin) {
      const conductor = table.find(({ size }) => size === circuit.sizePin!.size);
      if (conductor) return { conductor, ruledBy: 'pinned', because: circuit.sizePin.reason };
    }
    const least = table.findIndex(({ size }) => size === standard.minimumSize[circuit.wireTable]);
    const minimum = table[least];
    if (!minimum)
      throw new Error(`shop standard: expected a size of the ${circuit.wireTable} table, got "${standard.minimumSize[circuit.wireTable]}"`);
    if (accepts(wire, minimum)) return { conductor: minimum, ruledBy: 'minimum', because: `shop minimum ${toSizeWords(minimum)}` };
    const accepted = table.slice(least).find((conductor) => accepts(wire, conductor));
    if (accepted) return { conductor: accepted, ruledBy: 'contact', because: `smallest above the shop minimum that the contacts take` };
    return { conductor: minimum, ruledBy: 'none', because: 'no size of this table is taken at both ends' };
  };
  const toSized = ({ id, circuitId, from, to, pieces }: RunWire, { conductor, ruledBy, because }: Choice): SizedWire => ({
    id,
    circuitId,
    from,
    to,
    pieces,
    conductor,
    ruledBy,
    because,
  });
  // wires between the same two ends that nobody pinned choose alike
  const known = new Map<string, Choice>();
  return wires.map((wire) => {
    const circuit = loom.circuits[wire.circuitId]!;
    if (circuit.sizePin) return toSized(wire, choose(wire));
    const key = `${circuit.wireTable} ${wire.from.kind === 'cavity' ? wire.from.endId : ''} ${wire.to.kind === 'cavity' ? wire.to.endId : ''}`;
    let choice = known.get(key);
    if (!choice) known.set(key, (choice = choose(wire)));
    return toSized(wire, choice);
  });
}
