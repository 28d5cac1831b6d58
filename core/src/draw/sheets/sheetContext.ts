import type { Catalogue } from '../../catalogue';
import type { Finding } from '../../check';
import type { LoomBuild } from '../../make';
import type { Job, Loom } from '../../model';
import type { JobPlan, LoomPlan, PlannedWire } from '../../plan';
import type { Flow } from './createFlow';

/** What every sheet of one pack is made from. */
export interface SheetContext {
  job: Job;
  loom: Loom;
  plan: LoomPlan;
  /** of all looms */
  whole: JobPlan;
  build: LoomBuild;
  findings: readonly Finding[];
  catalogue: Catalogue;
  flow: Flow;
  wires: Map<string, PlannedWire>;
}
