import type { Job } from '../model';
import type { PlannedMark } from '../plan';
import { writeCsv } from './toCsv';

/** Columns of the list that a label printer is fed with, in their order. */
export const LABEL_COLUMNS = ['sleeve', 'legend', 'letter mm', 'pieces', 'over mm', 'for'] as const;

/**
 * The labels of a loom (CSV): one line a legend with the sleeve it is printed on, its lines as lines within the cell; letters in mm as they stand on the
 * finished label. What has no sleeve is not in it.
 */
export function toLabelsCsv(job: Job, loomId: string, marks: readonly PlannedMark[]): string {
  const { name } = job.looms[loomId]!;
  return writeCsv(
    [...LABEL_COLUMNS],
    marks.flatMap(({ kind, text, stockId, legend, pieces, odMm }) =>
      stockId === null || legend === null || odMm === null
        ? []
        : [[stockId, legend.lines.join('\n'), legend.capMm, pieces, Number(odMm.toFixed(2)), `${kind} ${text} of ${name}`]],
    ),
  );
}
