import { listMarks, type PlannedMark } from '../../plan';
import { createFinding } from '../createFinding';
import type { Finding, PlainContext, PlainRule } from '../types';
import { listLabelHeats } from './listLabelHeats';

/**
 * MA2, check: no label goes over a wire, a run or the leg of an end and grips it, or none carries the legend in letters that are read. MA5: one
 * gets hotter than it stands.
 */
export const checkLabels: PlainRule = (context) => {
  const marks = listMarks(context.job, context.plan, context.catalogue);
  return [...marks.flatMap((mark) => checkMark(context, mark)), ...listLabelHeats(context, marks)];
};

function checkMark(context: PlainContext, { kind, id, text, odMm, legend, stockName, problem }: PlannedMark): Finding[] {
  // what sticks on a device has no sleeve that could be wrong
  if (problem === null || kind === 'device') return [];
  const place = [{ kind: kind === 'zone' ? 'segment' : kind === 'caution' ? 'end' : kind, id }] as const;
  if (problem === 'no-sleeve')
    return [
      createFinding(context, 'MA2', [...place], `No marker sleeve of the shop fits ${text} (${odMm!.toFixed(1)} mm).`, {
        measured: odMm,
      }),
    ];
  if (problem === 'no-clear')
    return [
      createFinding(
        context,
        'MA2',
        [...place],
        `"${text}" lies where it is wet, and no clear sleeve of the shop goes over ${odMm!.toFixed(1)} mm.`,
        {
          measured: odMm,
        },
      ),
    ];
  const { capMm } = legend!;
  const least = context.standard.legendLeastMm;
  return [
    createFinding(
      context,
      'MA2',
      [...place],
      `"${text}" is too long for ${stockName!}: its letters would be ${capMm.toFixed(1)} mm high, and lower than ${least} mm is not read.`,
      { measured: capMm, limit: least },
    ),
  ];
}
