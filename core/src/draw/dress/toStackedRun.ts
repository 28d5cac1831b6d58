import type { LoomPlan } from '../../plan';
import type { StackedRun } from './drawStack';

/** What a stack lies on: a run, bare and over its covering, with the wires that go through it. */
export function toStackedRun(plan: Pick<LoomPlan, 'bundles' | 'coverings' | 'wires'>, segmentId: string): StackedRun {
  return {
    bareMm: plan.bundles.find((one) => one.segmentId === segmentId)!.odMm,
    overMm: plan.coverings.find((one) => one.segmentId === segmentId)!.odOutsideMm,
    colours: plan.wires.filter(({ pieces }) => pieces.some((piece) => piece.segmentId === segmentId)).map(({ colour }) => colour),
  };
}
