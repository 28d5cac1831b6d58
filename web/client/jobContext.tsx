'use client';

import { createContext, useContext, useEffect, useState, useSyncExternalStore, type ReactNode } from 'react';
import type { Finding, Job, Loom, LoomPlan, PowerPlan } from 'wattograph-core';
import { JobStore, type JobState, type Opened } from './jobStore';
import { ShopProvider } from './shopContext';

const Context = createContext<JobStore | null>(null);

/** Opens a job for everything below it, from what the page came with. */
export function JobProvider({ initial, children, fallback }: { initial: Opened; children: ReactNode; fallback: ReactNode }) {
  const [store, setStore] = useState<JobStore | null>(null);
  const [start] = useState(initial);
  useEffect(() => {
    const opened = new JobStore(start);
    // the store lives as long as this page does: it begins with it and ends with it
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setStore(opened);
    return () => opened.end();
  }, [start]);
  return store ? <StoreProvider store={store}>{children}</StoreProvider> : fallback;
}

/** Gives everything below it a job that is open already. */
export function StoreProvider({ store, children }: { store: JobStore; children: ReactNode }) {
  return (
    <Context value={store}>
      <ShopProvider value={store.shop}>{children}</ShopProvider>
    </Context>
  );
}

export function useJobStore(): JobStore {
  const store = useContext(Context);
  if (!store) throw new Error('useJobStore: expected a JobProvider above');
  return store;
}

/** A part of the job's state; renders again only when that part changes. The part must be picked, not made. */
export function useJob<T>(pick: (state: JobState) => T): T {
  const store = useJobStore();
  return useSyncExternalStore(
    store.subscribe,
    () => pick(store.get()),
    () => pick(store.get()),
  );
}

/** A loom and its plan, of one and the same document; null until the first plan is there. */
export interface PlannedLoom {
  job: Job;
  loomId: string;
  loom: Loom;
  plan: LoomPlan;
}

/** by the looms of a plan, which stay the same when its findings come */
const planned = new WeakMap<object, { job: Job; byLoom: Map<string, PlannedLoom | null>; power: PlannedPower }>();

/** What is shown of a plan, the same objects as long as it is the plan of the same job. */
function toPlanned({ job, looms, power }: PlannedPower) {
  const known = planned.get(looms);
  if (known?.job === job) return known;
  const fresh = { job, byLoom: new Map<string, PlannedLoom | null>(), power: { job, power, looms } };
  planned.set(looms, fresh);
  return fresh;
}

export function usePlannedLoom(loomId: string): PlannedLoom | null {
  return useJob(({ result }) => {
    if (!result) return null;
    const { byLoom } = toPlanned(result);
    if (!byLoom.has(loomId)) {
      const plan = result.looms.find((one) => one.loomId === loomId);
      const loom = result.job.looms[loomId];
      byLoom.set(loomId, plan && loom ? { job: result.job, loomId, loom, plan } : null);
    }
    return byLoom.get(loomId)!;
  });
}

const NONE: Finding[] = [];

export function useFindings(): Finding[] {
  return useJob(({ result }) => result?.findings ?? NONE);
}

/** The sums of the whole vehicle, with the job they are of. */
interface PlannedPower {
  job: Job;
  power: PowerPlan;
  looms: LoomPlan[];
}

/** null until the first plan is there */
export function usePower(): PlannedPower | null {
  return useJob(({ result }) => (result ? toPlanned(result).power : null));
}
