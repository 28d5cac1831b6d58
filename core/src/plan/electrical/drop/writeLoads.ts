import type { CurrentPaths, ReturnPath } from '../currents/currentPaths';
import type { PlannedLoad } from '../types';
import { toPlannedLoad, type MeasuredLoad, type WrittenPaths } from './measureLoads';

/** Loads as they were written last, with the resistance and the number of every wire. */
interface Written extends Pick<WrittenPaths, 'milliohms' | 'numbers'> {
  planned: PlannedLoad[];
}

/**
 * Writes out loads, those again that are not as they were. Ways, source and currents are those of one wiring: what moves between two plans of
 * it is what a wire resists, and what it is called.
 */
export function createLoadWriter(
  ways: readonly CurrentPaths[],
): (loads: readonly MeasuredLoad[], written: Omit<WrittenPaths, 'steps' | 'known'>) => PlannedLoad[] {
  const edgesOf = ways.map(listEdges);
  let last: Written | null = null;
  const steps: WrittenPaths['steps'] = new WeakMap();
  return (loads, written) => {
    const { milliohms, numbers } = written;
    const before = last;
    const isAsWas = (edge: number) => milliohms[edge] === before!.milliohms[edge] && numbers[edge] === before!.numbers[edge];
    const paths: WrittenPaths = { ...written, steps, known: new Map() };
    const planned = loads.map((load, at) => (before && edgesOf[at]!.every(isAsWas) ? before.planned[at]! : toPlannedLoad(load, paths)));
    last = { milliohms, numbers, planned };
    return planned;
  };
}

/** Every wire that a load's current can come and go by, each once. */
function listEdges({ out, back }: CurrentPaths): number[] {
  const edges = new Set(out.map(({ edge }) => edge));
  const seen = new Set<ReturnPath>();
  const walk = (way: ReturnPath) => {
    if (seen.has(way)) return;
    seen.add(way);
    for (const { edge } of way.steps) edges.add(edge);
    way.next.forEach(walk);
  };
  if (back) walk(back);
  edges.delete(-1);
  return [...edges];
}
