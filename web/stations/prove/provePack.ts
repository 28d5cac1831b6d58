import type { CarriedWork, ConnectorFamily, Job, LoomPlan, RingOut, Step } from 'wattograph-core';

/** A loom of a revision as it is proved. */
export interface ProvePack {
  release: number;
  newest: number;
  job: Job;
  plan: LoomPlan;
  steps: Step[];
  families: Record<string, ConnectorFamily>;
  carried: CarriedWork;
  /** tools of the shop, to read with */
  instruments: string[];
  ringOut: RingOut;
}
