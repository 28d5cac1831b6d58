import { isRungOut, type CarriedWork, type ProvedStep } from 'wattograph-core';
import type { FloorEvent } from '../floorEvent';

export interface ProvedLooms {
  looms: { loomId: string; name: string; steps: readonly ProvedStep[]; carried: CarriedWork }[];
  /** what happened on the floor, as far as it is stored */
  stored: readonly FloorEvent[];
}

/**
 * Finds the names of looms that are not rung out as they are now, by what is stored and what of a request was told before. It is read when it is
 * first asked for.
 */
export function createUnproved(read: () => Promise<ProvedLooms>): (before: readonly FloorEvent[]) => Promise<string[]> {
  let all: Promise<ProvedLooms> | undefined;
  let known: { told: number; names: string[] } | null = null;
  return async (before) => {
    // a reading of the vehicle leaves its looms as they are
    const told = before.filter(({ loomId }) => loomId !== '');
    if (known?.told === told.length) return known.names;
    const { looms, stored } = await (all ??= read());
    const isOpen = ({ loomId, steps, carried }: ProvedLooms['looms'][number]) =>
      !isRungOut(
        steps,
        [...stored, ...told].filter((one) => one.loomId === loomId),
        carried,
      );
    const names = looms.filter(isOpen).map(({ name }) => name);
    known = { told: told.length, names };
    return names;
  };
}
