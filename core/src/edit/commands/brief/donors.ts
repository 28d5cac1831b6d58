import type { Donor, DonorWire } from '../../../model';
import { createId, putNew } from '../../createId';
import { createCommand, type Command } from '../command';

export const importDonor = (id: string, donor: Donor): Command =>
  createCommand(`import donor ${donor.name}`, (draft) => {
    putNew(draft.donors, id, donor);
  });

export const createDonorId = (donors: Readonly<Record<string, Donor>>): string => createId(donors, 'donor');

const change = (at: { donorId: string; wireId: string }, label: string, part: Partial<DonorWire>): Command => ({
  label,
  apply: (draft) => void Object.assign(draft.donors[at.donorId]!.wires[at.wireId]!, part),
});

const WORDS = { lengthMm: 'length', newLengthMm: 'new length', newName: 'new name', note: 'note' } as const;

/** number: what the wire is called. */
export const setDonorWire = <Key extends keyof typeof WORDS>(
  at: { donorId: string; wireId: string; number: string },
  key: Key,
  value: DonorWire[Key],
): Command => change(at, `${WORDS[key]}, donor wire ${at.number}`, { [key]: value });

/** What becomes of a donor wire; a new length means nothing where it stays as it is or goes, nor a new name where it
 * serves what it served. */
export const decideDonorWire = (at: { donorId: string; wireId: string; number: string }, decision: DonorWire['decision']): Command =>
  change(at, `${decision ?? 'undecided'}, donor wire ${at.number}`, {
    decision,
    ...(decision === null || decision === 'keep' || decision === 'remove' ? { newLengthMm: null } : {}),
    ...(decision === 'repurpose' ? {} : { newName: '' }),
  });
