import { useLocalStorage } from '@mantine/hooks';
import { useMemo, useState } from 'react';
import { isPinning, listInHand, type Asking, type HandDeed, type InHand, type Step } from 'wattograph-core';
import { readDevice } from '../../client/device';
import type { FloorStore, Happened } from '../../client/floor/floorStore';
import { listDoubtful, type PinDeed } from './PinCard';

/** Cavities in hand, and what is done with them, on this page. */
export interface Pins {
  inHand: ReadonlyMap<string, InHand>;
  asking: Asking;
  /** does one cavity fill the screen where a step goes cavity by cavity */
  isOne: boolean;
  setOne: (isOne: boolean) => void;
  /** does whoever is here have one of its cavities in hand */
  isTaken: (step: Step) => boolean;
  /** what an interruption left doubtful in a step */
  listDoubtful: (step: Step) => InHand[];
  deed: (step: Step, itemId: string, deed: PinDeed, words: string) => void;
}

/** What is in whose hand. deeds: all that happened on this loom, in order. */
export function usePins(
  store: FloorStore,
  deeds: readonly HandDeed[],
  { loomId, ...asked }: Pick<Asking, 'author' | 'nowMs' | 'leaseMin'> & { loomId: string },
): Pins {
  const { author, nowMs, leaseMin } = asked;
  const inHand = useMemo(() => listInHand(deeds), [deeds]);
  const [takenHere, setTakenHere] = useState<ReadonlySet<string>>(() => new Set());
  const [isOne, setOne] = useLocalStorage({ key: 'wattograph.pinOne', defaultValue: false, getInitialValueInEffect: false });
  const asking = useMemo(() => ({ author, nowMs, leaseMin, takenHere, device: readDevice() }), [author, nowMs, leaseMin, takenHere]);
  return {
    ...{ inHand, asking, isOne, setOne },
    isTaken: (step) => step.items.some(({ id }) => inHand.get(`${step.id} ${id}`)?.author === author),
    listDoubtful: (step) => (isPinning(step) ? listDoubtful(step, inHand, asking) : []),
    deed: (step, itemId, deed, words) => {
      const cavity = step.items.find(({ id }) => id === itemId)?.cavity ?? itemId;
      const toEvent = (kind: Happened['kind'], said = words, of = itemId): Happened => ({
        ...{ loomId, stepId: step.id, itemId: of, kind, words: said, author },
      });
      if (deed === 'hand' || deed === 'over') setTakenHere((now) => new Set([...now, `${step.id} ${itemId}`]));
      const told: Record<PinDeed, Happened[]> = {
        hand: [toEvent('hand')],
        down: [toEvent('down')],
        tick: [toEvent('tick')],
        good: [toEvent('tick')],
        over: [toEvent('down'), toEvent('hand')],
        left: [toEvent('down'), toEvent('problem', `cavity ${cavity} left doubtful: ${words}`, 'step')],
      };
      store.addMany(told[deed]);
    },
  };
}
