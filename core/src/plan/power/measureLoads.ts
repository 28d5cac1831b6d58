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
  /** source first; empty where nothing feeds it */
  out: readonly WayStep[];
  /** null: no way back */
  home: WayHome | null;
  dropV: number;
  faultA: number | null;
}

/** A way back as its current is lost most: own steps, then those of the worst of the ways it parts into. */
interface WayHome {
  steps: readonly WayStep[];
  then: WayHome | null;
  countedV: number;
  totalV: number;
  milliohm: number;
}

/** Resistance of a piece of wire at its temperature, mΩ (calculations 3). */
export function measureResistance(r20MilliohmPerM: number, lengthMm: number, temperatureC: number): number {
  return (r20MilliohmPerM * lengthMm * (1 + COPPER_PER_K * (temperatureC - 20))) / 1000;
}

/** Drop on the way of every load, out and back, V, and what a dead short at it would draw, A (calculations 3 and 5). wires: by edge of the grid. */
export function measureLoads(ways: readonly LoadWays[], wires: readonly GridWire[], { source }: Job): MeasuredLoad[] {
  const milliohms = Float64Array.from(wires, ({ wire, lengthMm, runningC }) =>
    measureResistance(wire.conductor.r20MilliohmPerM, lengthMm, runningC),
  );
  const addUp = (steps: readonly WayStep[], then: WayHome | null): WayHome => {
    let [countedV, totalV, milliohm] = then ? [then.countedV, then.totalV, then.milliohm] : [0, 0, 0];
    for (const step of steps) {
      const one = step.milliohm ?? milliohms[step.edge]!;
      const drop = (one * step.currentA) / 1000;
      milliohm += one;
      totalV += drop;
      if (step.counts) countedV += drop;
    }
    return { steps, then, countedV, totalV, milliohm };
  };
  const homes = new Map<Way, WayHome>();
  const goHome = (way: Way): WayHome => {
    let home = homes.get(way);
    if (!home) {
      let worst: WayHome | null = null;
      for (const next of way.next) {
        const one = goHome(next);
        if (worst === null || one.totalV > worst.totalV) worst = one;
      }
      homes.set(way, (home = addUp(way.steps, worst)));
    }
    return home;
  };
  return ways.map(({ load, out, back, isFed, isBattery }) => {
    const home = back && goHome(back);
    const { countedV, milliohm } = addUp(out, home);
    return {
      load,
      out: isFed ? out : [],
      home: isFed ? home : null,
      dropV: isFed ? countedV : 0,
      faultA: isBattery && back ? source.volts / ((source.milliohm + milliohm) / 1000) : null,
    };
  });
}

/** A load with its way written out, wires by their numbers. sourceOnA: drawn from the battery in each mode; null: there is none. */
export function toPlannedLoad(
  { load, out, home, dropV, faultA }: MeasuredLoad,
  wires: readonly GridWire[],
  numberOf: (loomId: string, wireId: string) => string,
  { volts, milliohm: inner }: Job['source'],
  sourceOnA: readonly number[] | null,
): PlannedLoad {
  const modes = load.onA.length;
  const dropByModeV = load.onA.map(() => 0);
  const totalByModeV = load.onA.map(() => 0);
  const steps = [...out];
  for (let at = home; at !== null; at = at.then) steps.push(...at.steps);
  // written out: there are thousands of them, and spreading is slow
  const written = steps.map(({ kind, way, words, loomId, wireId, edge, milliohm, currentA, flow, counts }): PathStep => {
    const wire = edge === -1 ? null : wires[edge]!;
    const mΩ = milliohm ?? measureResistance(wire!.wire.conductor.r20MilliohmPerM, wire!.lengthMm, wire!.runningC);
    if (flow)
      for (let mode = 0; mode < modes; mode += 1) {
        const stepV = (mΩ * flow.on[mode]!) / 1000;
        totalByModeV[mode]! += stepV;
        if (counts) dropByModeV[mode]! += stepV;
      }
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
  // of a battery under load what its inner resistance takes is missing everywhere
  const voltsByMode = totalByModeV.map((totalV, mode) => volts - ((sourceOnA?.[mode] ?? 0) * inner) / 1000 - totalV);
  return { ...load, steps: written, dropV, dropByModeV, totalByModeV, voltsByMode, faultA };
}
