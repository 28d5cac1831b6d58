/**
 * What flows in a place, mode by mode in the order of the plan's modes; A (calculations 3). Three meanings, never one for another: on, what
 * flows while loads are on, for drop, fuses, channels, contacts and switches; heat, as a bundle feels it; mean, as battery and generator do.
 */
export interface Currents {
  on: number[];
  heat: number[];
  mean: number[];
}

export const noCurrents = (modes: number): Currents => {
  const zero = () => new Array<number>(modes).fill(0);
  return { on: zero(), heat: zero(), mean: zero() };
};

/** Adds so many times one to another, in place. */
export function addCurrents(sum: Currents, more: Currents, times = 1): void {
  for (let mode = 0; mode < more.on.length; mode += 1) {
    sum.on[mode]! += times * more.on[mode]!;
    sum.heat[mode]! += times * more.heat[mode]!;
    sum.mean[mode]! += times * more.mean[mode]!;
  }
}

/** The same, so many times. */
export function scaleCurrents(one: Currents, times: number): Currents {
  const scaled = noCurrents(one.on.length);
  addCurrents(scaled, one, times);
  return scaled;
}

/** What a load of so many amperes draws that is on for a share of each mode. A short cycle is felt as its r.m.s., a long one whole. */
export function toLoadCurrents(currentA: number, shares: readonly number[], isShortCycle: boolean): Currents {
  return {
    on: shares.map((share) => (share > 0 ? currentA : 0)),
    heat: shares.map((share) => (share > 0 ? currentA * (isShortCycle ? Math.sqrt(share) : 1) : 0)),
    mean: shares.map((share) => currentA * share),
  };
}

export const mostOf = (values: readonly number[]): number => {
  let most = 0;
  for (const value of values) if (value > most) most = value;
  return most;
};
