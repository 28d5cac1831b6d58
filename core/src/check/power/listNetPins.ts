import type { Job, PinNeed, PinOffer } from '../../model';
import type { PinPlace, PlannedNet } from '../../plan';

/** A pin of a net with what it needs or offers, and where it stands in its circuit. */
export interface NetPin extends PinPlace {
  circuitId: string;
  /** position among the circuit's terminations */
  index: number;
  need: PinNeed | null;
  offer: PinOffer | null;
}

/** Every pin of a net, loom by loom, in the order of its circuits. */
export function listNetPins(job: Job, net: Pick<PlannedNet, 'circuits'>): NetPin[] {
  return net.circuits.flatMap(({ loomId, circuitId }) =>
    job.looms[loomId]!.circuits[circuitId]!.terminations.map(({ endId, cavity }, index) => {
      const end = job.looms[loomId]!.ends[endId]!;
      const isStud = end.kind === 'ring';
      return {
        loomId,
        endId,
        cavity,
        circuitId,
        index,
        need: end.pins[cavity] ?? (isStud ? (Object.values(end.pins)[0] ?? null) : null),
        offer: end.offers[cavity] ?? (isStud ? (Object.values(end.offers)[0] ?? null) : null),
      };
    }),
  );
}

/** "pedal 3", as it stands in a sentence. */
export const toPinWords = (job: Job, { loomId, endId, cavity }: PinPlace) => `${job.looms[loomId]!.ends[endId]!.name} ${cavity}`;

/** Takes one pin out of its circuit. */
export const toTakeOut = ({ loomId, circuitId, index }: NetPin) => [
  { op: 'remove' as const, path: `/looms/${loomId}/circuits/${circuitId}/terminations/${index}` },
];

/** The box that a pin belongs to: its unit, device or end. */
export function toBox(job: Job, { loomId, endId }: Pick<PinPlace, 'loomId' | 'endId'>): string {
  const found = Object.entries(job.devices).find(([, { at }]) => at?.loomId === loomId && at.endId === endId);
  return found ? found[1].unit || found[0] : `${loomId}/${endId}`;
}
