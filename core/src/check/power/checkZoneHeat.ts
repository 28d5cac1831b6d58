import { type EditOperation, findSurroundings, isOffered } from '../../model';
import { isZoneTooHot } from '../../plan';
import { createFinding } from '../createFinding';
import type { Finding, Rule, RuleContext } from '../types';

interface HotRuns {
  zone: string;
  ambientC: number;
  table: string;
  segmentIds: string[];
  circuitIds: Set<string>;
}

/**
 * PO16, stop: a zone is hotter than the insulation of a wire in it stands, less the shop's margin. No thicker conductor cures that; the
 * finding names what would do. The fix takes the first kind of wire that is enough and comes in the same sizes.
 */
export const checkZoneHeat: Rule = (context) => {
  const { job, loom, plan, standard, catalogue } = context;
  const kinds = Object.keys(catalogue.wires);
  const toName = (kind: string) => catalogue.wires[kind]![0]!.insulation;
  const tables = new Map(plan.wires.map(({ id, conductor, circuitId }) => [id, { table: conductor.table, circuitId }]));
  const found = new Map<string, HotRuns>();
  for (const { segmentId, sections } of plan.bundles) {
    const zone = findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC);
    if (!zone || zone.ambientC === null) continue;
    const { ambientC } = zone;
    // most zones are cool enough for anything
    if (!kinds.some((table) => isZoneTooHot(ambientC, table, standard))) continue;
    for (const id of sections.flatMap(({ elements }) => elements.flat())) {
      const { table, circuitId } = tables.get(id)!;
      if (!isZoneTooHot(ambientC, table, standard)) continue;
      const key = `${zone.name} ${table}`;
      const runs = found.get(key) ?? { zone: zone.name, ambientC, table, segmentIds: [], circuitIds: new Set() };
      found.set(key, runs);
      if (!runs.segmentIds.includes(segmentId)) runs.segmentIds.push(segmentId);
      runs.circuitIds.add(circuitId);
    }
  }
  return [...found.values()].map(({ zone, ambientC, table, segmentIds, circuitIds }): Finding => {
    const limit = standard.insulationLimitC[table]! - standard.heatMarginK;
    const fitting = kinds.filter((one) => !isZoneTooHot(ambientC, one, standard));
    const names = segmentIds.map((id) => loom.nodes[plan.tree.segments[id]!.farNodeId]!.name);
    const shown = names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ');
    const would = fitting.length
      ? `${fitting.map((one) => `${toName(one)} (${standard.insulationLimitC[one]} °C)`).join(' or ')} would do`
      : 'no insulation of this shop would do: another way, or a heat sleeve that keeps the bundle cooler';
    return createFinding(
      context,
      'PO16',
      [...segmentIds.map((id) => ({ kind: 'segment' as const, id })), { kind: 'item', id: table }],
      `${zone} reaches ${ambientC} °C; ${toName(table)} is kept to ${limit} °C. No thicker wire cures the ${circuitIds.size} ${circuitIds.size === 1 ? 'circuit' : 'circuits'} to ${shown}: ${would}.`,
      {
        measured: ambientC,
        limit,
        fix: fitting.map((kind) => takeKind(context, kind, table, [...circuitIds])).find((fix) => fix !== null) ?? null,
      },
    );
  });
};

/**
 * Wire of another kind for these circuits, and that kind of the cables they lie in; null where a cable has none, or the kind has not the sizes
 * of the one they are made of: then contacts and seals would have to be others too.
 */
function takeKind(
  { loomId, loom, catalogue, standard }: RuleContext,
  kind: string,
  before: string,
  circuitIds: readonly string[],
): Finding['fix'] {
  const sizes = new Set(catalogue.wires[kind]!.map(({ size, gauge }) => `${gauge} ${size}`));
  if (!catalogue.wires[before]!.every(({ size, gauge }) => sizes.has(`${gauge} ${size}`))) return null;
  const patch: EditOperation[] = [];
  const cables = new Map(catalogue.cables.map((item) => [item.id, item]));
  for (const [id, { cable }] of Object.entries(loom.circuits)) {
    const isHere = circuitIds.includes(id);
    const sharesCable = cable && circuitIds.some((one) => loom.circuits[one]!.cable?.groupId === cable.groupId);
    if (!isHere && !sharesCable) continue;
    patch.push({ op: 'replace', path: `/looms/${loomId}/circuits/${id}/wireTable`, value: kind });
    const item = cable && cables.get(cable.itemId);
    if (!item) continue;
    const alike = catalogue.cables.find(
      (one) =>
        isOffered(catalogue, 'cables', one.id) &&
        one.table === kind &&
        one.conductors === item.conductors &&
        one.size === item.size &&
        one.screened === item.screened,
    );
    if (!alike) return null;
    patch.push({ op: 'replace', path: `/looms/${loomId}/circuits/${id}/cable/itemId`, value: alike.id });
  }
  return { label: `Take ${catalogue.wires[kind]![0]!.insulation} for them (${standard.insulationLimitC[kind]} °C)`, patch };
}
