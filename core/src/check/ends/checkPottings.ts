import { planPottings, type PlannedPotting } from '../../plan';
import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule, RuleContext } from '../types';

/**
 * EN10, stop: no room for resin, or none of the shop that is named; EN11, check: a device that is changed too often is potted; EN12, check: it is
 * hotter there than the resin stands; EN13, note: potted ends whose tails are taken for one another.
 */
export const checkPottings: Rule = (context) => {
  const { job, loom, plan, catalogue } = context;
  const planned = planPottings(job, plan, catalogue);
  const wired = new Set(plan.terminations.map(({ endId }) => endId));
  const ids = Object.keys(loom.ends).filter((id) => loom.ends[id]!.potting !== null && wired.has(id));
  return [
    ...ids.sort(compareIds).flatMap((id) => checkMissing(context, id, planned)),
    ...planned.flatMap((one) => [
      ...checkRoom(context, one),
      ...checkChanges(context, one),
      ...checkHeat(context, one),
      ...checkTwins(context, one),
    ]),
  ];
};

const at = (id: string) => [{ kind: 'end' as const, id }];
const nameOf = ({ loom }: RuleContext, id: string) => loom.ends[id]!.name;

function checkMissing(context: RuleContext, endId: string, planned: readonly PlannedPotting[]): Finding[] {
  if (planned.some((one) => one.endId === endId)) return [];
  const { resinId } = context.loom.ends[endId]!.potting!;
  return [
    createFinding(
      context,
      'EN10',
      at(endId),
      `${nameOf(context, endId)} is potted with ${resinId}, which the shop does not have: choose a resin.`,
    ),
  ];
}

function checkRoom(context: RuleContext, { endId, volumeMl }: PlannedPotting): Finding[] {
  if (volumeMl > 0) return [];
  return [
    createFinding(
      context,
      'EN10',
      at(endId),
      `Wires and contacts of ${nameOf(context, endId)} fill its cavity: there is no room for resin. Measure the cavity, or give it a connector.`,
      { measured: volumeMl, limit: 0 },
    ),
  ];
}

function checkChanges(context: RuleContext, { endId }: PlannedPotting): Finding[] {
  const { changesPerYear } = context.loom.ends[endId]!.potting!;
  const most = context.standard.potChangesMost;
  if (changesPerYear === null || changesPerYear <= most) return [];
  return [
    createFinding(
      context,
      'EN11',
      at(endId),
      `The device of ${nameOf(context, endId)} is changed ${changesPerYear} times a year and potted to the loom: give it a connector (potted only up to ${most}).`,
      { measured: changesPerYear, limit: most },
    ),
  ];
}

function checkHeat(context: RuleContext, { endId, ambientC, resin }: PlannedPotting): Finding[] {
  if (ambientC === null || ambientC <= resin.limitC) return [];
  return [
    createFinding(context, 'EN12', at(endId), `${nameOf(context, endId)} gets ${ambientC} °C, and ${resin.name} stands ${resin.limitC}.`, {
      measured: ambientC,
      limit: resin.limitC,
    }),
  ];
}

function checkTwins(context: RuleContext, { endId, twinIds }: PlannedPotting): Finding[] {
  // told once, at the first of them
  if (twinIds.length === 0 || twinIds.some((id) => compareIds(id, endId) < 0)) return [];
  return [
    createFinding(
      context,
      'EN13',
      [endId, ...twinIds].map((id) => ({ kind: 'end', id })),
      `${[endId, ...twinIds].map((id) => nameOf(context, id)).join(' and ')} are potted alike: a tail on the wrong device stays there. Each is rung and marked before it is poured.`,
      { measured: twinIds.length + 1 },
    ),
  ];
}
