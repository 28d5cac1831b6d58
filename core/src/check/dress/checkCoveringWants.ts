import { compareCoverings, type CoveringOption, type PlannedCovering } from '../../plan';
import { COVERING_WORDS, findSurroundings, type CoveringKind } from '../../model';
import { createKeeper } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

const WANT_WORDS = {
  opens: 'does not open again',
  moves: 'is too stiff where the run moves',
  wears: 'wears through at edges',
  handled: 'is not for hands',
} as const;

/** DR7, check: the covering does not do what the zone asks for: no one of the shop does all, or it was chosen by hand. Heat and water are RO2 and DR3. */
export const checkCoveringWants: Rule = (context) =>
  context.plan.coverings.flatMap(({ segmentId, itemName, unmet, ruledBy }): Finding[] => {
    const wants = unmet.flatMap((demand) => (demand === 'heat' || demand === 'water' ? [] : [WANT_WORDS[demand]]));
    if (wants.length === 0) return [];
    const zone = findSurroundings(context.job.zones, context.loom.segments[segmentId]!, context.standard.hotTickC)!;
    const base = `/looms/${context.loomId}/segments/${segmentId}`;
    return [
      createFinding(context, 'DR7', [{ kind: 'segment', id: segmentId }], `${itemName} in ${zone.name} ${wants.join(' and ')}.`, {
        fix:
          ruledBy === 'pinned'
            ? { label: 'Let the zone choose the covering', patch: [{ op: 'replace', path: `${base}/coveringPin`, value: null }] }
            : null,
      }),
    ];
  });

/** A covering that the planner left as it was need not be compared again: it stands for the length of its run as well. */
const remember = createKeeper<PlannedCovering, CoveringOption | undefined>();

/** DR8, note: another covering that does all that is asked for would be lighter; by kind, over the loom. */
export const checkLighterCoverings: Rule = (context) => {
  const { plan, loom, job, catalogue, standard } = context;
  const bundles = new Map(plan.bundles.map((bundle) => [bundle.segmentId, bundle]));
  const saved = new Map<CoveringKind, { massG: number; runs: number }>();
  for (const covering of plan.coverings) {
    if (covering.kind === 'none' || covering.problem !== null || covering.ruledBy === 'pinned') continue;
    const { odMm } = bundles.get(covering.segmentId)!;
    const inputs = [loom.segments[covering.segmentId], job.zones, catalogue, standard, odMm];
    const lightest = remember(covering, inputs, () => {
      const options = compareCoverings({ job, loom, tree: plan.tree, catalogue, standard }, covering, odMm);
      const asGood = options.filter(({ problem, unmet }) => problem === null && unmet.every((demand) => covering.unmet.includes(demand)));
      return asGood.sort((a, b) => a.massG - b.massG)[0];
    });
    if (!lightest || lightest.massG >= covering.massG) continue;
    const { massG, runs } = saved.get(lightest.kind) ?? { massG: 0, runs: 0 };
    saved.set(lightest.kind, { massG: massG + covering.massG - lightest.massG, runs: runs + 1 });
  }
  const worth = [...saved].filter(([, { massG }]) => massG >= standard.lighterWorthG);
  if (worth.length === 0) return [];
  const total = worth.reduce((sum, [, { massG }]) => sum + massG, 0);
  const words = worth.map(([kind, { massG, runs }]) => `${COVERING_WORDS[kind]} on ${runs} runs ${Math.round(massG)} g`).join(', ');
  return [createFinding(context, 'DR8', [], `Lighter coverings that fit as well: ${words}.`, { measured: total })];
};
