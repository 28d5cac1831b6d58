import { useEffect, useState, useSyncExternalStore } from 'react';
import type {
  BenchTool,
  CarriedWork,
  CrimpAsking,
  CrimpDeed,
  CrimpSeries,
  ConnectorFamily,
  Job,
  LoomPlan,
  ShopStandard,
  Step,
} from 'wattograph-core';
import type { Person } from '../../server/accounts/rights';
import type { FloorEvent } from '../../server/floorEvent';
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

/** Crimps of a loom by how they are made, what the shop asks of them, and the tools by the words of their contacts. */
export interface Crimping {
  series: CrimpSeries[];
  /** of ends of other looms with crimps made the same way: by loom and end, or by loom for its splices */
  elsewhere: Record<string, string>;
  sampling: CrimpAsking['standard'];
  /** length kept for new terminations where an end says nothing of its own */
  kept: Pick<ShopStandard, 'reterminations' | 'reterminationMm'>;
  tools: Record<string, BenchTool>;
  /** what earlier revisions know of them */
  earlier: CrimpDeed[];
}

/** What the steps of a loom take by the figures of the shop, and what counts as a pause. */
export interface FloorTimes {
  /** by step, min */
  minutes: Record<string, number>;
  pauseMin: number;
  sessionMin: number;
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
