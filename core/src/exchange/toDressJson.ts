import type { Catalogue, ShopStandard } from '../catalogue';
import type { Job } from '../model';
import { compareCoverings, planClips, planPottings, type DressPiece, type LoomPlan, type Parking, type PlannedClips } from '../plan';
import { roundTo } from '../units';

const round = (value: number) => roundTo(value, 3);

/**
 * What covers and finishes a loom, so that another program can check it (docs/format.md): of every run the coverings that it could have, of every
 * breakout and end the pieces from the wire outwards, and what stands back while it is made. Lengths mm, masses g.
 */
export function toDressJson(job: Job, plan: LoomPlan, catalogue: Catalogue, standard: ShopStandard): object {
  const loom = job.looms[plan.loomId]!;
  const clips = new Map(planClips(job, plan, catalogue).map((one) => [one.segmentId, one]));
  const context = { job, loom, tree: plan.tree, catalogue, standard };
  return {
    loom: plan.loomId,
    units: 'mm, g, min',
    runs: plan.coverings.map((covering) => {
      const { odMm } = plan.bundles.find(({ segmentId }) => segmentId === covering.segmentId)!;
      return {
        id: covering.segmentId,
        lengthMm: round(plan.tree.segments[covering.segmentId]!.lengthMm),
        bundleMm: round(odMm),
        mustPassMm: round(covering.mustPassMm),
        covering: covering.itemId,
        kind: covering.kind,
        cutMm: covering.cutMm,
        outsideMm: round(covering.odOutsideMm),
        massG: round(covering.massG),
        ruledBy: covering.ruledBy,
        because: covering.because,
        unmet: covering.unmet,
        problem: covering.problem,
        clips: toClips(clips.get(covering.segmentId)),
        options: compareCoverings(context, covering, odMm).map((option) => ({
          ...{ kind: option.kind, item: option.item?.id ?? null, taken: option.isTaken, whyNot: option.whyNot },
          ...{ cutMm: option.cutMm, outsideMm: round(option.odOutsideMm), massG: round(option.massG), minutes: round(option.minutes) },
          ...{
            price: option.price === null ? null : round(option.price),
            opens: option.item?.opens ?? null,
            limitC: option.item?.limitC ?? null,
          },
        })),
      };
    }),
    holes: plan.feeds.map(toHole),
    potted: planPottings(job, plan, catalogue).map((one) => ({
      ...{ end: one.endId, resin: one.resin.id, volumeMl: round(one.volumeMl), pouredMl: round(one.pouredMl), massG: round(one.massG) },
      ...{ partAG: round(one.partAG), partBG: round(one.partBG), cureH: round(one.cureH), workshopC: one.workshopC },
      ...{ straightMm: one.straightMm, loopRadiusMm: round(one.loopRadiusMm), loopMm: round(one.loopMm) },
    })),
    breakouts: plan.breakoutDress.map((one) => ({
      ...{ node: one.nodeId, trunk: one.trunkSegmentId, legs: one.legSegmentIds, trunkMm: round(one.trunkMm) },
      ...{
        legsMm: one.legsMm.map(round),
        togetherMm: round(one.togetherMm),
        ruledBy: one.ruledBy,
        because: one.because,
        problem: one.problem,
      },
      pieces: one.pieces.map(toPiece),
      parking: one.parking && toParking(one.parking),
    })),
    ends: plan.endDress.map((one) => ({
      ...{ end: one.endId, run: one.segmentId, legMm: round(one.leadMm), rearMm: one.bodyMm, ruledBy: one.ruledBy },
      ...{ because: one.because, problem: one.problem },
      pieces: one.pieces.map(toPiece),
      parking: toParking(one.parking),
    })),
  };
}

const toPiece = ({ role, table, itemId, cutMm, fromMm, toMm, underMm, overMm, isLined, massG }: DressPiece) => ({
  ...{ role, table, item: itemId, cutMm, fromMm: round(fromMm), toMm: round(toMm), underMm: round(underMm), overMm: round(overMm) },
  ...{ lined: isLined, massG: round(massG) },
});

const toParking = ({ order, pieces, needMm, roomMm, fits, because }: Parking) => ({
  ...{ order, fits, needMm: round(needMm), roomMm: round(roomMm), because },
  pieces: pieces.map(({ name, lengthMm }) => ({ name, lengthMm: round(lengthMm) })),
});

const toClips = (held: PlannedClips | undefined) =>
  held ? { item: held.item?.id ?? null, everyMm: held.everyMm, atMm: held.atMm.map(round), problem: held.problem } : null;

const toHole = (feed: LoomPlan['feeds'][number]) => ({
  ...{
    node: feed.nodeId,
    boreMm: feed.boreMm,
    freeMm: round(feed.boreMm - feed.leaveMm),
    bundleMm: round(feed.wholeMm),
    besideMm: round(feed.besideMm),
  },
  ...{ direction: feed.direction, because: feed.because, off: feed.offIds, unknown: feed.unknownIds, leastBoreMm: feed.leastBoreMm },
  parts: feed.pieces.map(({ id, goesAs, envelopeMm, odMm, throughMm, needMm, passes }) => ({
    ...{
      end: id,
      as: goesAs,
      envelopeMm: round(envelopeMm),
      legMm: round(odMm),
      throughMm: round(throughMm),
      needMm: round(needMm),
      passes,
    },
  })),
});
