import type { Job } from '../../../model';
import { COPPER_PER_K } from '../../heat/measureHeat';
import type { SizeRange } from '../../size/createSizes';
import type { SizedWire } from '../../types';
import type { CurrentPaths, ReturnPath, CurrentStep } from '../currents/currentPaths';
import type { PathStep, PlannedLoad, WireCurrent } from '../types';
import { measureSag } from '../report/findInMode';

/** A wire of the netlist as it is sized now. */
export interface NetlistWire {
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
  load: CurrentPaths['load'];
  /** source first; empty where nothing feeds it */
  out: readonly CurrentStep[];
  /** null: no way back */
  home: WayHome | null;
  /** the same with all its alternatives; null: none, or nothing feeds it */
  back: ReturnPath | null;
  dropV: number;
  faultA: number | null;
}

/** A way back as its current is lost most: own steps, then those of the worst of the ways it parts into. */
interface WayHome {
  steps: readonly CurrentStep[];
  then: WayHome | null;
  countedV: number;
  totalV: number;
  milliohm: number;
}

/** Resistance of a piece of wire at its temperature, mΩ (calculations 3). */
export function measureResistance(r20MilliohmPerM: number, lengthMm: number, temperatureC: number): number {
  return (r20MilliohmPerM * lengthMm * (1 + COPPER_PER_K * (temperatureC - 20))) / 1000;
}

/** Resistance of every wire as it is sized and as warm as it gets, mΩ. */
export const listResistances = (wires: readonly NetlistWire[]): Float64Array =>
  Float64Array.from(wires, ({ wire, lengthMm, runningC }) => measureResistance(wire.conductor.r20MilliohmPerM, lengthMm, runningC));

/**
 * Measures drop on the way of loads, out and back, V, and what a dead short at each would draw, A (calculations 3 and 5). milliohms: of
 * the wires, by edge of the netlist.
 */
export function createLoadMeter(milliohms: Float64Array, source: Job['source']): (ways: readonly CurrentPaths[]) => MeasuredLoad[] {
  const addUp = (steps: readonly CurrentStep[], then: WayHome | null): WayHome => {
    let [countedV, totalV, milliohm] = then ? [then.countedV, then.totalV, then.milliohm] : [0, 0, 0];
    for (const step of steps) {
      const one = measureStep(step, milliohms);
      const drop = (one * step.currentA) / 1000;
      milliohm += one;
      totalV += drop;
      if (step.counts) countedV += drop;
    }
    return { steps, then, countedV, totalV, milliohm };
  };
  const homes = new Map<ReturnPath, WayHome>();
  const goHome = (way: ReturnPath): WayHome => {
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
  return (ways) =>
    ways.map(({ load, out, back, isFed, isBattery }) => {
      const home = back && goHome(back);
      const { countedV, milliohm } = addUp(out, home);
      return {
        load,
        out: isFed ? out : [],
        home: isFed ? home : null,
        back: isFed ? back : null,
        dropV: isFed ? countedV : 0,
        faultA: isBattery && back ? source.volts / ((source.milliohm + milliohm) / 1000) : null,
      };
    });
}

/** What is lost on a stretch in each mode, V: in all, and of what counts for the load's own budget. */
interface LostByMode {
  totalV: number[];
  countedV: number[];
}

/** What a vehicle's loads are written out with. */
export interface WrittenPaths {
  /** of the wires, by edge of the netlist */
  milliohms: Float64Array;
  numbers: readonly string[];
  source: Job['source'];
  /** drawn from the battery in each mode, A; null: there is none */
  sourceOnA: readonly number[] | null;
  /** ways back that were summed already: many loads share them */
  known: Map<ReturnPath, LostByMode>;
  /** steps as they were written last: what many loads share is written once, and is the same object for as long as it says the same */
  steps: WeakMap<CurrentStep, { number: string | null; step: PathStep }>;
}

/** What a step resists, its wire as it is now, mΩ. */
const measureStep = ({ milliohm, edge }: CurrentStep, milliohms: Float64Array): number => milliohm ?? milliohms[edge]!;

function addSteps(lost: LostByMode, steps: readonly CurrentStep[], milliohms: Float64Array): void {
  for (const step of steps) {
    if (!step.flow) continue;
    const milliohm = measureStep(step, milliohms);
    for (let mode = 0; mode < lost.totalV.length; mode += 1) {
      const stepV = (milliohm * step.flow.on[mode]!) / 1000;
      lost.totalV[mode]! += stepV;
      if (step.counts) lost.countedV[mode]! += stepV;
    }
  }
}

/** Lost on a way back in each mode: where it parts, in the worse of its parts in that mode. */
function measureLost(way: ReturnPath, modes: number, written: WrittenPaths): LostByMode {
  const before = written.known.get(way);
  if (before) return before;
  const zero = () => Array.from({ length: modes }, () => 0);
  const lost: LostByMode = { totalV: zero(), countedV: zero() };
  for (const next of way.next) {
    const beyond = measureLost(next, modes, written);
    for (let mode = 0; mode < modes; mode += 1)
      if (beyond.totalV[mode]! > lost.totalV[mode]!) {
        lost.totalV[mode] = beyond.totalV[mode]!;
        lost.countedV[mode] = beyond.countedV[mode]!;
      }
  }
  addSteps(lost, way.steps, written.milliohms);
  written.known.set(way, lost);
  return lost;
}

function writeStep(step: CurrentStep, { milliohms, numbers, steps }: WrittenPaths): PathStep {
  const { kind, way, loomId, wireId, edge, currentA, counts } = step;
  const milliohm = measureStep(step, milliohms);
  const number = wireId === null ? null : numbers[edge]!;
  const known = steps.get(step);
  if (known && known.step.milliohm === milliohm && known.number === number) return known.step;
  const words = number === null ? step.words : `${number} ${step.words}`;
  // written out: there are thousands of them, and spreading is slow
  const made = { kind, way, words, loomId, wireId, milliohm, currentA, dropV: (milliohm * currentA) / 1000, counts };
  steps.set(step, { number, step: made });
  return made;
}

/** A load with its way written out, wires by their numbers. */
export function toPlannedLoad({ load, out, home, back, dropV, faultA }: MeasuredLoad, written: WrittenPaths): PlannedLoad {
  const { milliohms, source, sourceOnA } = written;
  const modes = load.onA.length;
  const homeward = back && measureLost(back, modes, written);
  const lost: LostByMode = {
    totalV: homeward ? [...homeward.totalV] : load.onA.map(() => 0),
    countedV: homeward ? [...homeward.countedV] : load.onA.map(() => 0),
  };
  addSteps(lost, out, milliohms);
  const steps = [...out];
  for (let at = home; at !== null; at = at.then) steps.push(...at.steps);
  const inWords = steps.map((step) => writeStep(step, written));
  // of a battery under load what its inner resistance takes is missing everywhere
  const voltsByMode = lost.totalV.map((totalV, mode) => source.volts - measureSag(source, sourceOnA?.[mode] ?? 0) - totalV);
  return { ...load, steps: inWords, dropV, dropByModeV: lost.countedV, totalByModeV: lost.totalV, voltsByMode, faultA };
}
