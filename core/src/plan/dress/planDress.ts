import { findFamily, type Catalogue, type ShopStandard } from '../../catalogue';
import { findSurroundings, isFromTheSide, type Job, type Loom, type Surroundings } from '../../model';
import type { Memo, Stage } from '../../units';
import { findPacking, type PackingStore } from '../bundle/findPacking';
import { chooseLabel, type ChosenLabel } from '../mark/chooseLabel';
import type { LoomPlan, PlannedCovering } from '../types';
import { chooseBreakoutPieces, chooseEndPieces, toDressNeeds } from './chooseDressParts';
import { chooseOpeningPieces } from './chooseOpening';
import { listSlid, type DressPiece, type Parking, type PlannedBreakoutDress, type PlannedEndDress } from './dressTypes';
import { planParking } from './planParking';

/** What the ends and breakouts of a loom are finished from. */
export interface DressContext {
  job: Job;
  loom: Loom;
  loomId: string;
  plan: Pick<LoomPlan, 'tree' | 'bundles' | 'coverings' | 'layups' | 'terminations'>;
  catalogue: Catalogue;
  standard: ShopStandard;
  packings: PackingStore;
  memo: Memo;
}

/** How ends and breakouts of a loom are finished: as it says itself, or as the shop does. */
export const findDressing = ({ dressing }: Pick<Loom, 'dressing'>, standard: Pick<ShopStandard, 'dressing'>) =>
  dressing ?? standard.dressing;

/** Every end that has wires and a run to it, and every breakout, as an assembly from the wire outwards (craft A3). */
export function planDress(context: DressContext): Pick<LoomPlan, 'endDress' | 'breakoutDress'> {
  const { loom, plan } = context;
  const coverings = new Map(plan.coverings.map((one) => [one.segmentId, one]));
  const used = new Set(plan.terminations.map(({ endId }) => endId));
  const filled = new Set(plan.bundles.filter(({ odMm }) => odMm > 0).map(({ segmentId }) => segmentId));
  const breakoutDress = plan.tree.nodeIds.flatMap((nodeId) => planBreakout(context, coverings, filled, nodeId) ?? []);
  return {
    breakoutDress,
    endDress: Object.keys(loom.ends)
      .filter((endId) => used.has(endId))
      .sort()
      .flatMap((endId) => planEnd(context, coverings, filled, endId) ?? []),
  };
}

const toZone = ({ job, loom, standard }: DressContext, segmentId: string): Surroundings | null =>
  findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC);

type Finish = Pick<PlannedEndDress, 'pieces' | 'ruledBy' | 'because' | 'problem'>;

/** What a pin, the zone or the shop says, and what the shop has for it. */
function finish(
  context: DressContext,
  pin: { itemId: string | null; reason: string } | null,
  segmentIds: readonly string[],
  sides: readonly [number, number],
  choose: (needs: ReturnType<typeof toDressNeeds>, pinnedId: string | null) => DressPiece[] | null,
): Finish {
  const { loom, catalogue, standard } = context;
  const none = { pieces: [], problem: null };
  if (pin?.itemId === null) return { ...none, ruledBy: 'pinned', because: pin.reason };
  const needs = toDressNeeds(segmentIds.map((id) => toZone(context, id)));
  if (pin) {
    const pieces = choose(needs, pin.itemId);
    return { pieces: pieces ?? [], problem: pieces ? null : 'none-fits', ruledBy: 'pinned', because: pin.reason };
  }
  if (findDressing(loom, standard) === 'sleeves')
    return { ...none, ruledBy: 'standard', because: 'the sleeves meet, nothing goes over them' };
  if (needs.mustOpen) {
    const laid = chooseOpeningPieces(catalogue, standard, needs, sides);
    if (laid) return { ...none, pieces: laid, ruledBy: 'zone', because: 'must be opened later: laid round it from the side' };
    return {
      ...none,
      ruledBy: 'zone',
      because: 'must be opened later: nothing that shrinks goes over it, and nothing of the shop that opens fits',
    };
  }
  const pieces = choose(needs, null);
  const ruled = needs.isLined
    ? ({ ruledBy: 'zone', because: 'wet: lined with adhesive' } as const)
    : ({ ruledBy: 'standard', because: standard.name } as const);
  return { ...ruled, pieces: pieces ?? [], problem: pieces ? null : 'none-fits' };
}

/** An end, and the run that its boot closes on. */
interface EndContext {
  context: DressContext;
  endId: string;
  segmentId: string;
  /** over the covering of that run, mm */
  leadMm: number;
}

/** How an end is finished, and its label, which stands back with the rest. */
interface FinishedEnd {
  dress: Finish & Pick<PlannedEndDress, 'endId' | 'segmentId' | 'leadMm' | 'bodyMm'>;
  label: ChosenLabel | null;
}

/** It goes by how thick things are, not by how long the legs are. */
const FINISH_END: Stage<EndContext, FinishedEnd> = {
  name: 'finish-end',
  keep: 4,
  inputs: ({ context: { job, loom, catalogue, standard }, endId, segmentId, leadMm }) => [
    ...[loom.ends[endId], loom.dressing, job.families, catalogue, standard, segmentId, leadMm],
    ...listSurroundings(job, loom, segmentId),
  ],
  run: ({ context, endId, segmentId, leadMm }) => {
    const { job, loom, catalogue, standard } = context;
    const end = loom.ends[endId]!;
    const bodyMm = findFamily(job, catalogue, end.familyId)?.adapterMm ?? null;
    const made: Finish =
      bodyMm === null
        ? { pieces: [], ruledBy: 'standard', because: 'nothing at its rear holds a boot', problem: null }
        : finish(context, end.bootPin, [segmentId], [bodyMm, leadMm], (needs, pinnedId) =>
            chooseEndPieces(catalogue, standard, needs, { bodyMm, leadMm, pinnedId }),
          );
    const label = chooseLabel(catalogue, leadMm, end.name, standard, toZone(context, segmentId)?.ambientC ?? null);
    return { dress: { endId, segmentId, leadMm, bodyMm, ...made }, label };
  },
};

/** All of a run that its surroundings are found by. */
const listSurroundings = ({ zones }: Job, { segments }: Loom, segmentId: string): unknown[] => [
  zones,
  segments[segmentId]!.zoneId,
  segments[segmentId]!.ticks,
];

function planEnd(
  context: DressContext,
  coverings: ReadonlyMap<string, PlannedCovering>,
  filled: ReadonlySet<string>,
  endId: string,
): PlannedEndDress | null {
  const { loom, loomId, plan, memo } = context;
  const { parentSegmentId, childSegmentIds } = plan.tree.nodes[loom.ends[endId]!.nodeId]!;
  const from = childSegmentIds.filter((id) => filled.has(id));
  // at the anchor the boot closes on the one run that leaves it
  const segmentId = parentSegmentId ?? (from.length === 1 ? from[0]! : null);
  if (segmentId === null) return null;
  const covering = coverings.get(segmentId)!;
  const finished = memo(FINISH_END, `${loomId} ${endId}`, { context, endId, segmentId, leadMm: covering.odOutsideMm });
  if (parentSegmentId === null) return toAnchorDress(finished.dress);
  return memo(PARK_END, `${loomId} ${endId}`, { context, covering, finished, ...measureLeg(context, segmentId) });
}

/** An end that is finished, and the leg that what slides on it stands back on. */
interface ParkContext {
  context: DressContext;
  covering: PlannedCovering;
  finished: FinishedEnd;
  legMm: number;
  looseMm: number;
}

const PARK_END: Stage<ParkContext, PlannedEndDress> = {
  name: 'park-end',
  keep: 4,
  inputs: ({ context: { loom, catalogue, standard }, covering, finished, legMm, looseMm }) => [
    ...[finished, legMm, looseMm, covering, loom.segments[covering.segmentId]!.slideOn, catalogue, standard],
  ],
  run: (leg) => ({ ...leg.finished.dress, parking: planEndParking(leg) }),
};

/** The anchor is filled first: what goes over it comes on from the loose ends of its wires. */
const toAnchorDress = (dress: FinishedEnd['dress']): PlannedEndDress => ({
  ...dress,
  parking: {
    order: 'none',
    pieces: listSlid(dress.pieces).map(({ itemName, cutMm }) => ({ name: itemName, lengthMm: cutMm })),
    needMm: 0,
    roomMm: 0,
    fits: true,
    because: 'what goes over it comes on from the loose ends, when the anchor is filled',
  },
});

/** The label of the end, behind all else; none where no marker sleeve of the shop goes over the leg. */
const toLabelPiece = (label: ChosenLabel | null): { itemName: string; cutMm: number }[] =>
  label ? [{ itemName: `label, ${label.stock.name}`, cutMm: label.stock.lengthMm }] : [];

/** Runs behind a leg whose wires are still loose while its end is made, nearest first: as far as nothing is twisted in layers. */
export function listLooseRuns({ tree, layups }: Pick<LoomPlan, 'tree' | 'layups'>, segmentId: string): string[] {
  const laid = new Set(layups.flatMap(({ segmentIds }) => segmentIds));
  const nearer = (id: string) => tree.nodes[tree.segments[id]!.nearNodeId]!.parentSegmentId;
  const loose: string[] = [];
  for (let at = nearer(segmentId); at !== null && !laid.has(at); at = nearer(at)) loose.push(at);
  return loose;
}

/** A leg, and the wire behind it that is still loose while its end is made. */
const measureLeg = ({ plan }: DressContext, segmentId: string) => {
  const { segments } = plan.tree;
  const looseMm = listLooseRuns(plan, segmentId).reduce((sum, id) => sum + segments[id]!.lengthMm, 0);
  return { legMm: segments[segmentId]!.lengthMm, looseMm };
};

function planEndParking({ context, covering, finished: { dress, label }, legMm, looseMm }: ParkContext): Parking {
  const { loom, catalogue, standard } = context;
  const { segmentId } = covering;
  const pieces = [...toLabelPiece(label), ...listSlid(dress.pieces)];
  const item = catalogue.coverings.find(({ id }) => id === covering.itemId);
  const slides = item !== undefined && covering.kind !== 'none' && !isFromTheSide(item);
  return planParking({
    legMm,
    looseMm,
    sleeve: slides
      ? {
          ...{ name: covering.itemName, isOverEnd: loom.segments[segmentId]!.slideOn === 'after-ends' },
          pushedMm: covering.cutMm * (item.kind === 'braid' ? standard.braidPushes : 1),
        }
      : null,
    pieces: pieces.map(({ itemName, cutMm }) => ({ name: itemName, lengthMm: cutMm })),
    stripRoomMm: standard.stripRoomMm,
  });
}

/** A breakout: its runs, the trunk first, and how thick each is over its covering, mm. */
interface BreakoutContext {
  context: DressContext;
  nodeId: string;
  runs: readonly string[];
  outsideMm: readonly number[];
}

const DRESS_BREAKOUT: Stage<BreakoutContext, PlannedBreakoutDress> = {
  name: 'dress-breakout',
  keep: 4,
  inputs: ({ context: { job, loom, plan, catalogue, standard }, nodeId, runs, outsideMm }) => [
    ...[loom.nodes[nodeId], loom.dressing, catalogue, standard, plan.tree.segments[runs[0]!]!.lengthMm],
    ...runs.flatMap((id) => [id, plan.tree.segments[id]!.onward, ...listSurroundings(job, loom, id)]),
    ...outsideMm,
  ],
  run: dressBreakout,
};

function planBreakout(
  context: DressContext,
  coverings: ReadonlyMap<string, PlannedCovering>,
  filled: ReadonlySet<string>,
  nodeId: string,
): PlannedBreakoutDress | null {
  const { parentSegmentId, childSegmentIds } = context.plan.tree.nodes[nodeId]!;
  if (parentSegmentId === null) return null;
  const legs = childSegmentIds.filter((id) => filled.has(id));
  if (legs.length < 2 || !filled.has(parentSegmentId)) return null;
  const runs = [parentSegmentId, ...legs];
  const outsideMm = runs.map((id) => coverings.get(id)!.odOutsideMm);
  return context.memo(DRESS_BREAKOUT, `${context.loomId} ${nodeId}`, { context, nodeId, runs, outsideMm });
}

function dressBreakout({ context, nodeId, runs, outsideMm }: BreakoutContext): PlannedBreakoutDress {
  const { loom, plan, catalogue, standard, packings } = context;
  const [trunkSegmentId, ...legSegmentIds] = runs as [string, ...string[]];
  const [trunkMm, ...legsMm] = outsideMm as [number, ...number[]];
  const togetherMm = findPacking(
    packings,
    [...legsMm].sort((a, b) => b - a),
  ).packing.odMm;
  const onward = legSegmentIds.findIndex((id) => plan.tree.segments[id]!.onward);
  const made = finish(context, loom.nodes[nodeId]!.transitionPin, runs, [trunkMm, togetherMm], (needs, pinnedId) =>
    chooseBreakoutPieces(catalogue, standard, needs, { trunkMm, legsMm, onward, togetherMm, pinnedId }),
  );
  const slid = listSlid(made.pieces);
  const parking =
    slid.length === 0
      ? null
      : planParking({
          ...{ legMm: plan.tree.segments[trunkSegmentId]!.lengthMm, looseMm: 0, sleeve: null, stripRoomMm: 0 },
          pieces: slid.map(({ itemName, cutMm }) => ({ name: itemName, lengthMm: cutMm })),
        });
  return { nodeId, trunkSegmentId, legSegmentIds, trunkMm, legsMm, togetherMm, ...made, parking };
}
