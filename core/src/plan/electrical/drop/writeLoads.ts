import type { CurrentPaths, ReturnPath } from '../currents/currentPaths';
import type { PlannedLoad } from '../types';
import { measureStep, toPlannedLoad, type MeasuredLoad, type WrittenPaths } from './measureLoads';

/** A load as it was written last, with the resistance and the number of every wire on its ways. */
interface Written {
  milliohms: readonly number[];
  numbers: readonly string[];
  planned: PlannedLoad;
}

/**
 * Writes out loads, those again that are not as they were. Ways, source and currents are those of one wiring: what moves between two plans of
 * it is what a wire resists, and what it is called.
 */
export function createLoadWriter(
  ways: readonly CurrentPaths[],
): (loads: readonly MeasuredLoad[], written: Omit<WrittenPaths, 'steps'>) => PlannedLoad[] {
  const wiresOf = ways.map(listWireSteps);
  const kept: (Written | undefined)[] = [];
  const writtenSteps: WrittenPaths['steps'] = new WeakMap();
  return (loads, written) =>
    loads.map((load, at) => {
      const steps = wiresOf[at]!;
      const known = kept[at];
      const isAsWas =
        known !== undefined &&
        steps.every(
          (step, index) =>
            measureStep(step, written.wires) === known.milliohms[index] &&
            written.numberOf(step.loomId!, step.wireId!) === known.numbers[index],
        );
      if (isAsWas) return known.planned;
      const planned = toPlannedLoad(load, { ...written, steps: writtenSteps });
      const milliohms = steps.map((step) => measureStep(step, written.wires));
      const numbers = steps.map(({ loomId, wireId }) => written.numberOf(loomId!, wireId!));
      kept[at] = { milliohms, numbers, planned };
      return planned;
    });
}

/** Every wire that a load's current can come and go by, each once. */
function listWireSteps({ out, back }: CurrentPaths): CurrentPaths['out'] {
  const byEdge = new Map(out.map((step) => [step.edge, step]));
  const seen = new Set<ReturnPath>();
  const walk = (way: ReturnPath) => {
    if (seen.has(way)) return;
    seen.add(way);
    for (const step of way.steps) byEdge.set(step.edge, step);
    way.next.forEach(walk);
  };
  if (back) walk(back);
  return [...byEdge.values()].filter(({ milliohm, edge }) => milliohm === null && edge !== -1);
}
