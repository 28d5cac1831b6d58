import type { Job } from '../../model';
import { COPPER_PER_K } from '../measureHeat';
import type { SizeRange } from '../createSizes';
import type { SizedWire } from '../types';
import type { LoadWays, Way, WayStep } from './traceWays';
import type { PathStep, PlannedLoad, WireCurrent } from './types';

/** A wire of the grid as it is sized now. */
export interface GridWire {
  loomId: string;
  wire: SizedWire;
  lengthMm: number;
  /** hottest bundle it passes; where no zone of its runs is known, what the shop takes it for; °C */
  runningC: number;
  current: WireCurrent;
  /** conductors it may have */
  range: SizeRange;
}

/** A load with the drop on its way, the wires as they are now. */
export interface MeasuredLoad {
  load: LoadWays['load'];
  /** source first, and back; empty where nothing feeds it */
  steps: readonly WayStep[];
  dropV: number;
  totalV: number;
  faultA: number | null;
}

/** Resistance of a piece of wire at its temperature, mΩ (calculations 3). */
export function measureResistance(r20MilliohmPerM: number, lengthMm: number, temperatureC: number): number {
  return (r20MilliohmPerM * lengthMm * (1 + COPPER_PER_K * (temperatureC - 20))) / 1000;
}

interface Gone {
  steps: readonly WayStep[];
  dropV: number;
}

/** Drop on the way of every load, out and back, V, and what a dead short at it would draw, A (calculations 3 and 5). wires: by edge of the grid. */
export function measureLoads(ways: readonly LoadWays[], wires: readonly GridWire[], { source }: Job): MeasuredLoad[] {
  const milliohms = Float64Array.from(wires, ({ wire, lengthMm, runningC }) =>
    measureResistance(wire.conductor.r20MilliohmPerM, lengthMm, runningC),
  );
  const ohms = ({ edge, milliohm }: WayStep) => milliohm ?? milliohms[edge]!;
  const sum = (steps: readonly WayStep[]) => steps.reduce((total, step) => total + (ohms(step) * step.currentA) / 1000, 0);
  const gone = new Map<Way, Gone>();
  const go = (way: Way): Gone => {
    const known = gone.get(way);
    if (known) return known;
    const next = way.next.map(go);
    const worst = next.length ? next.reduce((most, one) => (one.dropV > most.dropV ? one : most)) : null;
    const made: Gone = {
      steps: worst ? [...way.steps, ...worst.steps] : way.steps,
      dropV: sum(way.steps) + (worst?.dropV ?? 0),
    };
    gone.set(way, made);
    return made;
  };
  return ways.map(({ load, out, back, isFed, isBattery }) => {
    const home = back && go(back);
    const steps = home ? [...out, ...home.steps] : out;
    let [dropV, totalV, milliohm] = [0, 0, 0];
    for (const step of steps) {
      const one = ohms(step);
      const drop = (one * step.currentA) / 1000;
      milliohm += one;
      totalV += drop;
      if (step.counts) dropV += drop;
    }
    return {
      load,
      steps: isFed ? steps : [],
      dropV: isFed ? dropV : 0,
      totalV: isFed ? totalV : 0,
      faultA: isBattery && back ? source.volts / ((source.milliohm + milliohm) / 1000) : null,
    };
  });
}

/** A load with its way written out, wires by their numbers. */
export function toPlannedLoad(
  { load, steps, dropV, totalV, faultA }: MeasuredLoad,
  wires: readonly GridWire[],
  numberOf: (loomId: string, wireId: string) => string,
  modes: readonly { cranking: boolean }[],
): PlannedLoad {
  const dropByModeV = modes.map(() => 0);
  // written out: there are thousands of them, and spreading is slow
  const written = steps.map(({ kind, way, words, loomId, wireId, edge, milliohm, currentA, flow, counts }): PathStep => {
    const wire = edge === -1 ? null : wires[edge]!;
    const mΩ = milliohm ?? measureResistance(wire!.wire.conductor.r20MilliohmPerM, wire!.lengthMm, wire!.runningC);
    if (flow && counts)
      for (let mode = 0; mode < modes.length; mode += 1)
        dropByModeV[mode]! += (mΩ * (modes[mode]!.cranking ? flow.peak : flow.rms)[mode]!) / 1000;
    return {
      kind,
      way,
      words: wireId === null ? words : `${numberOf(loomId!, wireId)} ${words}`,
      loomId,
      wireId,
      milliohm: mΩ,
      currentA,
      dropV: (mΩ * currentA) / 1000,
      counts,
    };
  });
  return { ...load, steps: written, dropV, dropByModeV, totalV, faultA };
}
