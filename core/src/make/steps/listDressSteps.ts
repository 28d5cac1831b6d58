import {
  DRESS_ROLE_WORDS,
  listLooseRuns,
  listSlid,
  type DressPiece,
  type LoomPlan,
  type PlannedBreakoutDress,
  type PlannedEndDress,
} from '../../plan';
import { pushTo } from '../../units';
import { listHardNeeds } from './listPotSteps';
import { createItem, createStep, type Need, type StepContext } from '../createStep';
import type { Ask, Step } from '../step';

const toSlideId = ({ endId, nodeId }: { endId?: string; nodeId?: string }) => (endId === undefined ? `fork.${nodeId!}` : `boot.${endId}`);
const toCloseId = ({ endId, nodeId }: { endId?: string; nodeId?: string }) =>
  endId === undefined ? `forkclose.${nodeId!}` : `close.${endId}`;

/** What has to be slid on before an end is closed (by end), and before the sleeve of a leg goes on (by run). */
export function listDressNeeds(plan: LoomPlan, endsBeyond: Record<string, string[]>, anchorId: string | null): StepContext['dressNeeds'] {
  const ofEnds = new Map<string, Need[]>();
  const ofRuns = new Map<string, Need[]>();
  for (const one of plan.breakoutDress) {
    if (listSlid(one.pieces).length === 0) continue;
    const stepId = toSlideId(one);
    for (const segmentId of one.legSegmentIds) {
      pushTo(ofRuns, segmentId, { stepId, because: 'what goes over the breakout passes the legs before their sleeves do' });
      for (const endId of endsBeyond[segmentId]!) pushTo(ofEnds, endId, { stepId, because: 'it does not go over the finished ends' });
    }
  }
  const loose: Need[] = [];
  for (const one of plan.endDress) {
    if (listSlid(one.pieces).length === 0) continue;
    const stepId = toSlideId(one);
    if (one.endId === anchorId) loose.push({ stepId, because: 'what closes the anchor comes on from the loose ends' });
    else pushTo(ofEnds, one.endId, { stepId, because: 'a boot does not go over the finished end' });
  }
  return { ofEnds, ofRuns, loose, afterEnds: listAfterEnds(plan, anchorId) };
}

/** Of each run the ends that have to be made before it is covered: a sleeve or a boot stands back on it, or in its loose wires. */
function listAfterEnds(plan: LoomPlan, anchorId: string | null): Map<string, string[]> {
  const after = new Map<string, string[]>();
  for (const { endId, segmentId, parking } of plan.endDress) {
    if (endId === anchorId) continue;
    if (parking.order === 'push-back') pushTo(after, segmentId, endId);
    if (parking.needMm > plan.tree.segments[segmentId]!.lengthMm)
      for (const loose of listLooseRuns(plan, segmentId)) pushTo(after, loose, endId);
  }
  return after;
}

/** Slide on and close, for each end and each breakout that something goes over. */
export function listDressSteps(context: StepContext): Step[] {
  const { plan } = context;
  return [
    ...plan.breakoutDress.filter(({ pieces }) => pieces.length > 0).flatMap((one) => listBreakoutSteps(context, one)),
    ...plan.endDress.filter(({ pieces }) => pieces.length > 0).flatMap((one) => listEndDressSteps(context, one)),
  ];
}

/** The end or breakout that a step slides something on or closes; null: another step. */
export function findDressed(
  plan: Pick<LoomPlan, 'endDress' | 'breakoutDress'>,
  stepId: string,
): PlannedEndDress | PlannedBreakoutDress | null {
  return (
    [...plan.endDress, ...plan.breakoutDress].find((one) => one.pieces.length > 0 && [toSlideId(one), toCloseId(one)].includes(stepId)) ??
    null
  );
}

function listEndDressSteps({ loom, plan, terminations, plugs, anchorId }: StepContext, dress: PlannedEndDress): Step[] {
  const { endId, segmentId, pieces, parking } = dress;
  const end = loom.ends[endId]!;
  if (!terminations.has(endId)) return [];
  const isCovered = plan.coverings.some((one) => one.segmentId === segmentId && one.kind !== 'none');
  const isCoveredFirst = parking.order === 'cover-first';
  const last = plugs.has(endId) ? `plug.${endId}` : end.kind === 'connector' ? `seat.${endId}` : `crimp.${endId}`;
  const slid = listSlid(pieces);
  const slide = createStep(toSlideId(dress), 'boot', `Slide the boot and what lies under it on, ${end.name}`, {
    ...{ endId, segmentId, tool: 'shears', parts: listPartWords(slid) },
    items: slid.map((piece, at) => createItem(`piece ${at + 1}`, `${at + 1}. ${toCutWords(piece)}`, [], null, askPiece(piece))),
    needs:
      endId === anchorId
        ? [{ stepId: last, because: 'the anchor is filled first; it comes on from the loose ends' }]
        : [
            { stepId: 'lay', because: 'the leg is laid first' },
            { stepId: `label.${endId}`, because: 'its label stands behind it' },
            ...(isCoveredFirst ? [{ stepId: `cover.${segmentId}`, because: 'it stands back on the covered leg' }] : []),
          ],
  });
  const close = createStep(toCloseId(dress), 'close', `Close ${end.name}`, {
    ...{ endId, segmentId, tool: toTool(slid) },
    ...(slid.length === 0 ? { parts: listPartWords(pieces) } : {}),
    needs: [
      ...(slid.length > 0 ? [{ stepId: slide.id, because: 'it is on the leg' }] : []),
      { stepId: last, because: 'closed over the finished end' },
      ...listHardNeeds(end.potting !== null, endId),
      ...(endId === anchorId && end.pinAt === 'vehicle' ? [{ stepId: `repin.${endId}`, because: 'its housing comes off once more' }] : []),
      ...(isCovered ? [{ stepId: `cover.${segmentId}`, because: 'it closes on the covered leg' }] : []),
    ],
    items: pieces.map((piece, at) => createItem(`piece ${at + 1}`, toPlaceWords(piece, 'its rear'), [], null, askPiece(piece))),
  });
  return slid.length > 0 ? [slide, close] : [close];
}

function listBreakoutSteps({ loom, plan }: StepContext, dress: PlannedBreakoutDress): Step[] {
  const { nodeId, trunkSegmentId, legSegmentIds, pieces } = dress;
  const { name } = loom.nodes[nodeId]!;
  const covered = new Set(plan.coverings.filter(({ kind }) => kind !== 'none').map(({ segmentId }) => segmentId));
  const isBefore = covered.has(trunkSegmentId) && loom.segments[trunkSegmentId]!.slideOn === 'before-ends';
  const slid = listSlid(pieces);
  const slide = createStep(toSlideId(dress), 'boot', `Slide on what goes over ${name}`, {
    ...{ segmentId: trunkSegmentId, tool: 'shears', parts: listPartWords(slid) },
    items: slid.map((piece, at) => createItem(`piece ${at + 1}`, `${at + 1}. ${toCutWords(piece)}`, [], null, askPiece(piece))),
    needs: [
      { stepId: 'lay', because: 'the legs are laid first' },
      ...(isBefore ? [{ stepId: `slide.${trunkSegmentId}`, because: 'the sleeve nearer the datum passes here first' }] : []),
    ],
  });
  const close = createStep(toCloseId(dress), 'close', `Close the breakout at ${name}`, {
    ...{ segmentId: trunkSegmentId, tool: toTool(slid) },
    ...(slid.length === 0 ? { parts: listPartWords(pieces) } : {}),
    needs: [
      ...(slid.length > 0 ? [{ stepId: slide.id, because: 'it is in its place' }] : []),
      ...[trunkSegmentId, ...legSegmentIds]
        .filter((id) => covered.has(id))
        .map((id) => ({ stepId: `cover.${id}`, because: 'it closes on the covered runs' })),
    ],
    items: pieces.map((piece, at) =>
      createItem(`piece ${at + 1}`, toPlaceWords(piece, 'the middle of the breakout'), [], null, askPiece(piece)),
    ),
  });
  return slid.length > 0 ? [slide, close] : [close];
}

/** What is laid round by hand needs no heat. */
const toTool = (slid: readonly DressPiece[]) => (slid.length > 0 ? 'hot-air tool' : 'by hand');

const listPartWords = (pieces: readonly DressPiece[]) =>
  pieces.map(({ itemName, table, cutMm }) => (table === 'coverings' ? `${itemName}, ${cutMm} mm` : itemName));

const toCutWords = ({ role, table, itemName, cutMm }: DressPiece) =>
  table === 'coverings' ? `${DRESS_ROLE_WORDS[role]}: cut ${cutMm} mm of ${itemName}` : itemName;

const toPlaceWords = ({ role, itemName, cutMm, fromMm, toMm, isLined }: DressPiece, from: string) =>
  role === 'wrap'
    ? `${DRESS_ROLE_WORDS[role]}: ${cutMm} mm of ${itemName}, laid round from ${Math.round(fromMm)} to ${Math.round(toMm)} mm of ${from}`
    : `${DRESS_ROLE_WORDS[role]}: shrink it from ${Math.round(fromMm)} to ${Math.round(toMm)} mm of ${from}${isLined ? ', until adhesive shows all round' : ''}`;

const askPiece = ({ itemName, cutMm, fromMm, toMm }: DressPiece): Ask[] => [
  { what: 'part', value: itemName },
  { what: 'sleeve', value: cutMm },
  { what: 'lies', value: `${Math.round(fromMm)} to ${Math.round(toMm)} mm` },
];
