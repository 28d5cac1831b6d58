import { findFamily, type Catalogue, type ShopStandard } from '../../catalogue';
import type { Job, Loom } from '../../model';
import { compareIds, pushTo } from '../../units';
import { findLeg, listNodesBeyond } from '../route/findLeg';
import type { LoomPlan } from '../types';
import type { PlannedFeed, PlannedFeedPiece } from './feedTypes';
import { leadThrough, measureLeastBore, orderFeed, type FeedPiece } from './orderFeed';

/** From which turn on the order does not matter any more: those pass beside the whole bundle; null: from none. */
export function findFreeTurn({ pieces, wholeMm, boreMm, leaveMm, offIds }: PlannedFeed): number | null {
  const isFree = ({ id, envelopeMm }: PlannedFeedPiece) => envelopeMm + wholeMm <= boreMm - leaveMm && !offIds.includes(id);
  const at = pieces.findIndex(isFree);
  return at >= 0 && at < pieces.length - 1 && pieces.slice(at).every(isFree) ? at + 1 : null;
}

export interface FeedContext {
  job: Job;
  loom: Loom;
  plan: Pick<LoomPlan, 'tree' | 'coverings' | 'terminations'>;
  catalogue: Catalogue;
  standard: ShopStandard;
  /** holes that other looms go through before, with what these take of each, mm; empty: none */
  taken?: ReadonlyMap<string, number>;
}

/** Every hole of known bore, in the order of the tree: which part of the loom goes through it, one end after another. */
export function planFeeds(context: FeedContext): PlannedFeed[] {
  const { loom, plan } = context;
  const holes = plan.tree.nodeIds.filter((id) => loom.nodes[id]!.holeMm !== null);
  if (holes.length === 0) return [];
  const contacts = new Map<string, (string | null)[]>();
  for (const { endId, contactId } of plan.terminations) pushTo(contacts, endId, contactId);
  const outside = new Map(plan.coverings.map(({ segmentId, odOutsideMm }) => [segmentId, odOutsideMm]));
  const pieces = [...contacts.keys()].sort(compareIds).map((id) => toPiece(context, id, outside, contacts.get(id)!));
  return holes.flatMap((nodeId) => {
    const beyond = listNodesBeyond(plan.tree, plan.tree.nodes[nodeId]!.childSegmentIds);
    // an end that sits in the hole itself goes with what lies beyond, unless it is the datum
    if (nodeId !== plan.tree.datumId) beyond.add(nodeId);
    const outer = pieces.filter(({ id }) => beyond.has(loom.ends[id]!.nodeId));
    const inner = pieces.filter(({ id }) => !beyond.has(loom.ends[id]!.nodeId));
    return outer.length + inner.length === 0 ? [] : [planFeed(context, nodeId, outer, inner)];
  });
}

/** The thickest of the runs that meet in a hole, over its covering. */
const measureAtHole = ({ coverings }: Pick<LoomPlan, 'coverings'>, segmentIds: readonly (string | null)[]): number =>
  Math.max(0, ...coverings.filter(({ segmentId }) => segmentIds.includes(segmentId)).map(({ odOutsideMm }) => odOutsideMm));

/** What a loom takes of a hole at one of its nodes, mm; 0 where nothing of it lies there. */
export const measureTaken = (plan: Pick<LoomPlan, 'tree' | 'coverings'>, nodeId: string): number => {
  const node = plan.tree.nodes[nodeId];
  return node ? measureAtHole(plan, [node.parentSegmentId, ...node.childSegmentIds]) : 0;
};

type Piece = FeedPiece & Pick<PlannedFeedPiece, 'goesAs'> & { isKnown: boolean };

function planFeed(
  { loom, plan, standard, taken }: FeedContext,
  nodeId: string,
  outer: readonly Piece[],
  inner: readonly Piece[],
): PlannedFeed {
  const node = loom.nodes[nodeId]!;
  const boreMm = node.holeMm!;
  const besideMm = taken?.get(nodeId) ?? 0;
  const leaveMm = Math.min(standard.holeFreeMm + besideMm, boreMm);
  const { parentSegmentId, childSegmentIds } = plan.tree.nodes[nodeId]!;
  const wholeMm = measureAtHole(plan, [parentSegmentId, ...childSegmentIds]);
  const lead = (all: readonly Piece[]) =>
    orderFeed(
      all.filter(({ isKnown }) => isKnown),
      boreMm - leaveMm,
      wholeMm,
    );
  const [outward, inward] = [lead(outer), lead(inner)];
  const { direction, because } = chooseDirection(
    loom,
    node.feed,
    outward.offIds.length,
    inner.length === 0 ? Infinity : inward.offIds.length,
  );
  const led = direction === 'outward' ? outer : inner;
  const { pieces, offIds } = direction === 'outward' ? outward : inward;
  return {
    ...{ nodeId, boreMm, leaveMm, besideMm, direction, because, wholeMm, offIds },
    pieces: leadThrough(pieces, boreMm - leaveMm, wholeMm).map(({ isKnown: _, ...piece }) => piece),
    unknownIds: led.filter(({ isKnown }) => !isKnown).map(({ id }) => id),
    leastBoreMm: measureLeastBore(
      led.filter(({ isKnown }) => isKnown),
      wholeMm,
      standard.holeFreeMm + besideMm,
    ),
  };
}

/** What is clamped is not led through; else what was said; else what leaves more housings on. */
function chooseDirection(
  loom: Loom,
  wanted: 'outward' | 'inward' | null,
  outwardOff: number,
  inwardOff: number,
): Pick<PlannedFeed, 'direction' | 'because'> {
  if (loom.clampedBy !== null) return { direction: 'outward', because: 'the datum is clamped, and what is clamped is not led through' };
  if (wanted !== null) return { direction: wanted, because: 'chosen by hand' };
  if (inwardOff < outwardOff) return { direction: 'inward', because: 'more housings stay on this way' };
  return { direction: 'outward', because: 'the datum stays where it is' };
}

function toPiece(
  { job, loom, plan, catalogue }: FeedContext,
  endId: string,
  outside: ReadonlyMap<string, number>,
  contactIds: readonly (string | null)[],
): Piece {
  const end = loom.ends[endId]!;
  const leg = findLeg(plan.tree, end.nodeId);
  const odMm = (leg === null ? undefined : outside.get(leg)) ?? 0;
  const asWires = { id: endId, odMm, envelopeMm: odMm, goesAs: 'wires' as const, isKnown: true };
  if (end.kind === 'tail' || end.pinAt === 'vehicle') return asWires;
  if (end.kind === 'ring' || end.kind === 'blade') {
    const used = new Set(contactIds);
    const widths = catalogue.rings.filter(({ id }) => used.has(id)).map(({ widthMm }) => widthMm);
    const widest = Math.max(odMm, ...widths.map((width) => width ?? 0));
    return { ...asWires, envelopeMm: widest, goesAs: 'rings', isKnown: widths.length > 0 && !widths.includes(null) };
  }
  const family = findFamily(job, catalogue, end.familyId);
  return { ...asWires, envelopeMm: Math.max(odMm, family?.envelopeMm ?? 0), goesAs: 'housing', isKnown: family !== undefined };
}
