import type { JoinedWire } from '../netlist';
import { createMemo, type Memo } from '../units';
import type { PackingStore } from './bundle/findPacking';
import type { CopperStore } from './electrical/copper/chooseMinimumSizes';
import type { CarriedCurrents } from './electrical/currents/listCarriedCurrents';
import type { KeptRoute } from './route/keepRoute';
import type { PlannedWire } from './types';

/** What planning remembers beside its plans: never more than a shortcut. */
export interface PlanStore {
  /** results of the stages, by what they were made of */
  memo: Memo;
  packings: PackingStore;
  copper: CopperStore;
  /** of every loom, as they were last: what did not change stays the same object, so that what was made of it is found */
  routes: Map<string, readonly KeptRoute[]>;
  wirings: Map<string, readonly JoinedWire[]>;
  wires: Map<string, PlannedWire[]>;
  flows: Map<string, CarriedCurrents>;
}

export const createPlanStore = (): PlanStore => ({
  memo: createMemo(),
  packings: new Map(),
  copper: new Map(),
  routes: new Map(),
  wirings: new Map(),
  wires: new Map(),
  flows: new Map(),
});
