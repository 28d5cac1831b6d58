import type { CarriedPower, CarriedWork, FirstPower, LoomSteps, ProvedStep } from 'wattograph-core';

/** A loom of the vehicle, as far as it bears on power. */
export interface PowerLoom extends LoomSteps {
  name: string;
  steps: readonly (LoomSteps['steps'][number] & ProvedStep)[];
  carried: CarriedWork;
  /** what is held from power, and why */
  held: string[];
}

/** A vehicle of a revision as it gets power for the first time. */
export interface FirstPowerPack {
  release: number;
  newest: number;
  jobName: string;
  /** null: it has no battery; undefined: an earlier Wattograph released it */
  sheet: FirstPower | null | undefined;
  looms: PowerLoom[];
  /** what revisions before leave to this one */
  earlier: CarriedPower;
  /** ends of each wire: loom/wire, loom/end */
  wireEnds: [string, string[]][];
  instruments: string[];
}
