import { findSurroundings } from '../../model';
import { measureHalfBarrel, measureSplicePlace, type PlannedSplice, type TakenPlace } from '../../plan';
import { pushTo } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule, RuleContext } from '../types';

const STEP_MM = 5;

/** BU1, check: a splice lies on a breakout, close to a connector, beside another splice, or in a moving run. The fix moves it the least way. */
export const checkSplicePlaces: Rule = (context) => {
  const { job, loom, plan, catalogue, standard } = context;
  const toHalfMm = (circuitId: string) => measureHalfBarrel(catalogue, standard, loom.circuits[circuitId]!);
  const inRun = new Map<string, PlannedSplice[]>();
  for (const splice of plan.splices) pushTo(inRun, splice.place.segmentId, splice);
  return plan.splices.flatMap((splice): Finding[] => {
    if (splice.clear) return [];
    const halfMm = toHalfMm(splice.circuitId);
    const { segmentId, offsetMm } = splice.place;
    const segment = plan.tree.segments[segmentId]!;
    const zone = findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC);
    const toNear = offsetMm <= segment.lengthMm - offsetMm;
    const distanceMm = (toNear ? offsetMm : segment.lengthMm - offsetMm) - halfMm;
    const neighbour = loom.nodes[toNear ? segment.nearNodeId : segment.farNodeId]!;
    const others = inRun
      .get(segmentId)!
      .filter((other) => other !== splice)
      .map(({ place, circuitId }) => ({ offsetMm: place.offsetMm, halfMm: toHalfMm(circuitId) }));
    const clearOf = (other: (typeof others)[number]) => Math.abs(other.offsetMm - offsetMm) - halfMm - other.halfMm;
    const stacked = others.find((other) => clearOf(other) < standard.spliceApartMm);
    const limit =
      neighbour.kind === 'breakout' || neighbour.kind === 'pass' ? standard.spliceFromBreakoutMm : standard.spliceFromConnectorMm;
    const sentence = zone?.flexing
      ? `${splice.label} lies in ${zone.name}, which moves in use.`
      : distanceMm < limit
        ? `${splice.label} begins ${Math.round(Math.max(0, distanceMm))} mm from ${neighbour.kind === 'breakout' ? 'the breakout ' : ''}${neighbour.name}; the shop keeps ${limit} mm.`
        : stacked !== undefined
          ? `${splice.label} lies ${Math.round(Math.max(0, clearOf(stacked)))} mm clear of another splice in the same bundle; the shop keeps ${standard.spliceApartMm} mm.`
          : `${splice.label} has no place that keeps every distance.`;
    return [
      createFinding(
        context,
        'BU1',
        [
          { kind: 'splice', id: splice.id },
          { kind: 'segment', id: segmentId },
        ],
        sentence,
        { measured: distanceMm, limit, fix: findMove(context, splice, others, halfMm) },
      ),
    ];
  });
};

function findMove(
  { job, loomId, loom, plan, standard }: RuleContext,
  splice: RuleContext['plan']['splices'][number],
  others: readonly TakenPlace[],
  halfMm: number,
): Finding['fix'] {
  const { segmentId, offsetMm } = splice.place;
  const { lengthMm, nearNodeId, farNodeId } = plan.tree.segments[segmentId]!;
  const context = { loom, zones: job.zones, tree: plan.tree, standard };
  for (let away = STEP_MM; away < lengthMm; away += STEP_MM) {
    for (const to of [offsetMm + away, offsetMm - away]) {
      if (to <= 0 || to >= lengthMm) continue;
      if (measureSplicePlace(context, segmentId, { offsetMm: to, halfMm }, others) < 0) continue;
      const towards = loom.nodes[to > offsetMm ? farNodeId : nearNodeId]!.name;
      return {
        label: `Move splice ${splice.label} ${away} mm towards ${towards}`,
        patch: [
          {
            op: 'add',
            path: `/looms/${loomId}/splicePins/${splice.id}`,
            value: { segmentId, offsetMm: to, reason: 'moved clear by the finding BU1' },
          },
        ],
      };
    }
  }
  return null;
}
