import type { CarriedWork, CheckDeed, MilestoneNeeds, Step } from 'wattograph-core';
import type { Crimping } from '../../client/floor/useFloorStore';
import type { FirstPowerPack } from '../firstPower/firstPowerPack';

/** A loom of the vehicle with its steps and what they take. */
export interface MilestoneLoomPack {
  loomId: string;
  name: string;
  steps: Step[];
  carried: CarriedWork;
  /** how its crimps are proved: what a bad sample takes back is not done */
  crimping: Crimping;
  /** by step and item, min */
  minutes: [string, number][];
  /** wires by id, as they are marked */
  numbers: [string, string][];
}

/** A vehicle of a revision with what each of its milestones asks for. */
export interface MilestonePack {
  /** its revision, its looms as they bear on power, and its first power */
  power: FirstPowerPack;
  looms: MilestoneLoomPack[];
  needs: MilestoneNeeds[];
  /** checks ticked in revisions before */
  checked: CheckDeed[];
  /** what a first-off takes, min */
  firstOffMin: number;
  pauseMin: number;
  sessionMin: number;
}
