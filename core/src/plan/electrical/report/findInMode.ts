import type { Job } from '../../../model';
import type { PlannedLoad, PowerPlan } from '../types';

/** A figure in one mode; mode null: the largest of all. mode: place in the plan's modes. */
export const findInMode = (values: readonly number[], mode: number | null): number =>
  mode === null ? Math.max(0, ...values) : (values[mode] ?? 0);

/** Modes in which the engine runs by itself: true, mode by mode. */
export const listRunning = (job: Pick<Job, 'modes'>, modeIds: readonly string[]): boolean[] =>
  modeIds.map((id) => job.modes[id]!.engine !== 'cranking');

/** The largest of a figure of a load in the modes that count for it: it is on, and the engine is not cranked, but for a starter. */
export const findMostOn = (
  values: readonly number[],
  { onA, load }: Pick<PlannedLoad, 'onA' | 'load'>,
  isRunning: readonly boolean[],
): number => Math.max(0, ...values.filter((_, mode) => onA[mode]! > 0 && (isRunning[mode] || load === 'starter')));

/** What the battery gives as a mean, A: in a mode, or the most of those in which the engine runs; null: no battery. */
export function measureSourceMean(
  job: Pick<Job, 'modes'>,
  { sourceA, modeIds }: Pick<PowerPlan, 'sourceA' | 'modeIds'>,
  mode: number | null,
): number | null {
  if (!sourceA) return null;
  const isRunning = listRunning(job, modeIds);
  return mode === null ? Math.max(0, ...sourceA.mean.filter((_, at) => isRunning[at])) : sourceA.mean[mode]!;
}

/** What a battery loses inside while so much is drawn of it, V. */
export const measureSag = ({ milliohm }: Pick<Job['source'], 'milliohm'>, drawnA: number): number => (drawnA * milliohm) / 1000;
