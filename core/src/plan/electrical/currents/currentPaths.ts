import type { ShopStandard } from '../../../catalogue';
import type { Job } from '../../../model';
import type { Netlist } from '../../../netlist';
import type { PathStep, PlannedLoad } from '../types';
import type { Currents } from './currents';
import type { VehicleCurrents } from './vehicleCurrents';

/** A step of a way before any size is known: what flows in it is, and so is the resistance of all that is no wire. */
export interface CurrentStep extends Omit<PathStep, 'milliohm' | 'dropV'> {
  /** edge of the netlist; -1 unless a wire */
  edge: number;
  /** null: a wire's, which its size decides */
  milliohm: number | null;
  /** fuse, channel, relay or switch that it is; null: none */
  linkId: string | null;
  /** the strap of the engine, which all share that stand on it: a budget takes it as it is */
  isBody: boolean;
  /** what flows in it, mode by mode; null: nothing that is known */
  flow: Currents | null;
}

/** A stretch of a way back, and where it goes on: where it parts, the current is shared, and the worst of the parts counts. */
export interface ReturnPath {
  steps: readonly CurrentStep[];
  next: readonly ReturnPath[];
}

/** A load pin with its ways, source first: all that no wire size changes. */
export interface CurrentPaths {
  load: Omit<PlannedLoad, 'steps' | 'dropV' | 'dropByModeV' | 'totalByModeV' | 'voltsByMode' | 'faultA'>;
  out: readonly CurrentStep[];
  /** null: none */
  back: ReturnPath | null;
  isFed: boolean;
  isBattery: boolean;
  /** what switches it on: a driver, or the link nearest to it that switches; what nothing switches wakes with its branch; null: by itself */
  wokenBy: string | null;
}

export interface PathContext {
  job: Job;
  netlist: Netlist;
  flows: VehicleCurrents;
  standard: ShopStandard;
}

/** While the engine is cranked, or all other modes. */
export type When = 'cranking' | 'other';
