import { addBoxes } from './addBoxes';
import { addClips } from './addClips';
import { addCutting } from './addCutting';
import { addDonors } from './addDonors';
import { addDress } from './addDress';
import { addEnds } from './addEnds';
import { addFeeds } from './addFeeds';
import { addFirstOffs } from './addFirstOffs';
import { addKit } from './addKit';
import { addLabels } from './addLabels';
import { addLengths, addOpenItems, addOverview, addSteps } from './addOffice';
import { addPocket } from './addPocket';
import { addSleeves } from './addSleeves';
import { addSplices } from './addSplices';
import { addTasks } from './addTasks';
import { addTest } from './addTest';
import { addTrims } from './addTrims';
import { addTwist } from './addTwist';
import { addCorners, addPoster } from './addWall';
import type { SheetPage } from '../drawing';
import { createFlow } from './flow/createFlow';
import type { SheetMeta } from './flow/flowTypes';
import type { SheetContext } from './sheetContext';

/**
 * The build pack of one loom of a planned job as pages of marks in mm: cards of the crew by post, in the order of the work, then what the planner
 * keeps. findings: of the whole job.
 */
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
  addKit(context);
  addDonors(context);
  addCutting(context);
  addEnds(context);
  if (plan.splices.length) addSplices(context);
  // a link within one housing lies in no run and is final from the start
  if (plan.wires.some(({ pieces, unfittedIds }) => pieces.length > 0 && unfittedIds.length === 0)) addTrims(context);
  if (plan.layups.length) addTwist(context);
  addSleeves(context);
  addDress(context);
  addTest(context);
  addBoxes(context);
  addTasks(context);
  addFeeds(context);
  addClips(context);
  addFirstOffs(context);
  addPoster(context);
  addCorners(context);
  addPocket(context);
  addOverview(context);
  addOpenItems(context);
  addLengths(context);
  addLabels(context);
  addSteps(context);
  return context.flow.finish();
}
