import { addContinuity, addCutList, addLengths, addOverview, addParts, addSleeves, addSplices, addSteps } from './addLists';
import { addBoxes } from './addBoxes';
import { addClips } from './addClips';
import { addDress } from './addDress';
import { addEnds } from './addEnds';
import { addFeeds } from './addFeeds';
import { addLabels } from './addLabels';
import { addTwist } from './addTwist';
import { addTrims } from './addTrims';
import type { SheetPage } from '../drawing';
import { createFlow, type SheetMeta } from './createFlow';
import type { SheetContext } from './sheetContext';

/** The build pack of one loom of a planned job, sheet by sheet, as pages of marks in mm. findings: of the whole job. */
export function createSheets(
  pack: Pick<SheetContext, 'job' | 'whole' | 'plan' | 'build' | 'findings' | 'catalogue'>,
  meta: SheetMeta,
): SheetPage[] {
  const { job, plan } = pack;
  const context: SheetContext = {
    ...pack,
    loom: job.looms[plan.loomId]!,
    findings: pack.findings.filter(({ loomId }) => loomId === plan.loomId || loomId === ''),
    flow: createFlow(meta),
    wires: new Map(plan.wires.map((wire) => [wire.id, wire])),
  };
  addOverview(context);
  addCutList(context);
  addLengths(context);
  if (plan.splices.length) addSplices(context);
  if (plan.layups.length) addTwist(context);
  addSleeves(context);
  addDress(context);
  addLabels(context);
  addClips(context);
  addFeeds(context);
  addEnds(context);
  addBoxes(context);
  addSteps(context);
  addContinuity(context);
  // a link within one housing lies in no run and is final from the start
  if (plan.wires.some(({ pieces, unfittedIds }) => pieces.length > 0 && unfittedIds.length === 0)) addTrims(context);
  addParts(context);
  return context.flow.finish();
}
