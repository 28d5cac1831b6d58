import { findDueDay, findTool, isOffered, type Tool } from '../../model';
import { compareIds, pushTo } from '../../units';
import { createFinding } from '../createFinding';
import type { FindingPlace, JobRule, WiringRule } from '../types';

const ofLoom = (loomId: string) => ({ loomId });
const toPlaces = (kind: FindingPlace['kind'], ids: Iterable<string>): FindingPlace[] => [...new Set(ids)].map((id) => ({ kind, id }));

/** EN7, check: a tool that a loom is crimped with is past its calibration, or not among the shop's. A shop that lists no tools is not asked. */
export const checkTools: JobRule = ({ plan, catalogue, today }) => {
  if (catalogue.tools.length === 0) return [];
  return plan.looms.flatMap(({ loomId, terminations, barrels }) => {
    const places = new Map<string, FindingPlace[]>();
    for (const { endId, tool } of terminations) if (tool) pushTo(places, tool, { kind: 'end', id: endId });
    for (const { spliceId, tool } of barrels) if (tool) pushTo(places, tool, { kind: 'splice', id: spliceId });
    // dies of one tool are one tool
    const byTool = new Map<string, { tool: Tool | undefined; at: FindingPlace[] }>();
    for (const words of [...places.keys()].sort(compareIds)) {
      const tool = findTool(catalogue.tools, words);
      const name = tool?.name ?? words;
      byTool.set(name, { tool, at: [...(byTool.get(name)?.at ?? []), ...places.get(words)!] });
    }
    return [...byTool].flatMap(([name, { tool, at }]) => {
      const words = tool ? describeLapse(tool, today) : `The shop has no ${name} among its tools, and this loom needs one.`;
      if (words === null) return [];
      const kinds = (['end', 'splice'] as const).flatMap((kind) =>
        toPlaces(
          kind,
          at.filter((place) => place.kind === kind).map(({ id }) => id),
        ),
      );
      return [createFinding(ofLoom(loomId), 'EN7', [{ kind: 'item', id: name }, ...kinds.slice(0, 12)], words)];
    });
  });
};

/** What is the matter with the calibration of a tool; null: nothing that is known. */
function describeLapse(tool: Tool, today: string | null): string | null {
  const remedy = 'have it calibrated before this loom is crimped.';
  if (tool.everyDays !== null && tool.calibratedOn === null) return `The ${tool.name} has no calibration on record: ${remedy}`;
  const due = findDueDay(tool);
  return due !== null && today !== null && due < today ? `The ${tool.name} was due for calibration on ${due}: ${remedy}` : null;
}

/** EN8, check: a housing or cable that the shop has retired: what is in the drawer may be the last. */
export const checkRetired: WiringRule = ({ job, catalogue }) =>
  Object.entries(job.looms).flatMap(([loomId, loom]) => {
    const ends = Object.entries(loom.ends).flatMap(([id, { familyId, kind }]) =>
      kind === 'connector' && familyId !== null && !Object.hasOwn(job.families, familyId) && !isOffered(catalogue, 'families', familyId)
        ? [{ id, familyId }]
        : [],
    );
    const circuits = Object.entries(loom.circuits).flatMap(([id, { cable }]) =>
      cable && !isOffered(catalogue, 'cables', cable.itemId) ? [{ id, itemId: cable.itemId }] : [],
    );
    return [
      ...[...new Set(ends.map(({ familyId }) => familyId))].sort(compareIds).map((familyId) =>
        createFinding(
          ofLoom(loomId),
          'EN8',
          ends.flatMap((end) => (end.familyId === familyId ? [{ kind: 'end' as const, id: end.id }] : [])),
          `${catalogue.families[familyId]!.name} is retired by the shop: choose another housing, or make sure of the stock.`,
        ),
      ),
      ...[...new Set(circuits.map(({ itemId }) => itemId))].sort(compareIds).map((itemId) =>
        createFinding(
          ofLoom(loomId),
          'EN8',
          circuits.flatMap((one) => (one.itemId === itemId ? [{ kind: 'circuit' as const, id: one.id }] : [])),
          `The cable ${catalogue.cables.find(({ id }) => id === itemId)!.name} is retired by the shop: choose another, or make sure of the stock.`,
        ),
      ),
    ];
  });
