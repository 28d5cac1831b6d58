import type { End, Job, PinNeed, PinOffer } from '../model';
import { createKeeper } from '../units';
import type { CircuitPlace, PinPlace } from './types';

/** A pin of a net with what it needs or offers, and where it stands in its circuit. */
export interface NetPin extends PinPlace {
  circuitId: string;
  /** position among the circuit's terminations */
  index: number;
  need: PinNeed | null;
  offer: PinOffer | null;
}

/** Every pin of a net, loom by loom, in the order of its circuits. */
export function listNetPins({ looms }: Pick<Job, 'looms'>, { circuits }: { circuits: readonly CircuitPlace[] }): readonly NetPin[] {
  const readOf = circuits.flatMap(({ loomId }) => [looms[loomId]!.circuits, looms[loomId]!.ends]);
  return remember(circuits, readOf, () =>
    circuits.flatMap(({ loomId, circuitId }) =>
      looms[loomId]!.circuits[circuitId]!.terminations.map(({ endId, cavity }, index) => {
        const end = looms[loomId]!.ends[endId]!;
        return { loomId, endId, cavity, circuitId, index, ...findPin(end, cavity) };
      }),
    ),
  );
}

/** asked for by rule after rule, and again after every edit */
const remember = createKeeper<readonly CircuitPlace[], readonly NetPin[]>();

/** What a pin of an end needs or offers; any ring of a stud stands for all of them. */
export function findPin({ kind, pins, offers }: End, cavity: string): { need: PinNeed | null; offer: PinOffer | null } {
  const isStud = kind === 'ring';
  return {
    need: pins[cavity] ?? (isStud ? (Object.values(pins)[0] ?? null) : null),
    offer: offers[cavity] ?? (isStud ? (Object.values(offers)[0] ?? null) : null),
  };
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
