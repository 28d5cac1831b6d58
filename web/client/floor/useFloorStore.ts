import { useEffect, useState, useSyncExternalStore } from 'react';
import type { CarriedWork, ConnectorFamily, Job, LoomPlan, Step } from 'wattograph-core';
import type { Person } from '../../server/accounts/rights';
import type { FloorEvent } from '../../server/releases';
import { FloorStore } from './floorStore';
import { setPerson } from '../person';
import { registerServiceWorker } from '../serviceWorker';

/** A loom of a revision as the bench works from it. */
export interface BenchPack {
  release: number;
  newest: number;
  job: Job;
  plan: LoomPlan;
  steps: Step[];
  /** part families of its ends */
  families: Record<string, ConnectorFamily>;
  carried: CarriedWork;
  /** tools of the shop, to read with */
  instruments: string[];
  /** minutes without a tick after which a lane is free again */
  leaseMin: number;
}

/** What happens to a loom on this device; null until what the device kept before is known. */
export function useFloorStore(
  person: Person,
  jobId: string,
  { release, plan, carried }: Pick<BenchPack, 'release' | 'carried'> & { plan: Pick<LoomPlan, 'loomId'> },
  events: FloorEvent[],
): FloorStore | null {
  const [store] = useState(() => {
    setPerson(person);
    return new FloorStore(jobId, release, plan.loomId, events, carried);
  });
  useEffect(() => {
    registerServiceWorker();
    return store.begin();
  }, [store]);
  const isOpen = useSyncExternalStore(
    store.subscribe,
    () => store.get().isOpen,
    () => false,
  );
  return isOpen ? store : null;
}

/** Is this the browser? What the device keeps is known to it alone, and the server draws before. */
export const useIsClient = (): boolean =>
  useSyncExternalStore(
    () => () => undefined,
    () => true,
    () => false,
  );
