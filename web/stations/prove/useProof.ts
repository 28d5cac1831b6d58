import { useMemo, useSyncExternalStore } from 'react';
import { examine, listProofs, toProofItem, type Examined, type Proof, type ProofTest } from 'wattograph-core';
import type { FloorState, FloorStore, Happened } from '../../client/floor/floorStore';
import type { FloorEvent } from '../../server/floorEvent';
import type { ProvePack } from './provePack';

/** What is known of a loom on the bench, and how readings are added to it. */
export interface ProofState {
  state: FloorState;
  events: readonly FloorEvent[];
  proofs: ReadonlyMap<string, Proof>;
  /** readings that still hold, by name of the test */
  values: ReadonlyMap<string, number>;
  examined: Examined;
}

/** Readings of a loom as they stand, and what they come to; or those of a practice, which is of no loom. */
export function useProof({ ringOut, steps, plan }: ProvePack, store: FloorStore, practice: readonly FloorEvent[] | null): ProofState {
  const state = useSyncExternalStore(store.subscribe, store.get, store.get);
  const events = useMemo(
    () => practice ?? [...state.events, ...state.waiting].filter(({ loomId }) => loomId === plan.loomId),
    [state.events, state.waiting, plan.loomId, practice],
  );
  const proofs = useMemo(() => listProofs(ringOut, steps, events), [ringOut, steps, events]);
  const values = useMemo(
    () => new Map([...proofs].flatMap(([id, { value, voidBecause }]) => (voidBecause === null ? [[id, value] as const] : []))),
    [proofs],
  );
  const examined = useMemo(() => examine(ringOut, values), [ringOut, values]);
  return { state, events, proofs, values, examined };
}

/** A reading as it is kept under the test of the floor, so that it counts there too; none where the loom has no such test. */
export function toHappened(pack: ProvePack, test: ProofTest, value: number, by: { instrument: string; author: string }): Happened[] {
  const place = toProofItem(pack.steps, test.kind);
  if (!place) return [];
  return [
    {
      ...{ loomId: pack.plan.loomId, ...place, kind: 'reading', words: toReadWords(pack, test), author: by.author },
      ...{ readId: test.id, value, unit: test.unit, instrument: by.instrument.trim() },
    },
  ];
}

const MOST_WORDS = 400;

export function toReadWords({ ringOut }: ProvePack, { from, to, netId }: ProofTest): string {
  const end = (id: string) => ringOut.ends.find((one) => one.id === id)?.name ?? id;
  const net = ringOut.nets.find(({ id }) => id === netId)?.name ?? '';
  return `${net}: ${end(from.endId)} · ${from.cavity} → ${to ? `${end(to.endId)} · ${to.cavity}` : 'all others'}`.slice(0, MOST_WORDS);
}
