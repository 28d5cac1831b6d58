import { toWireId, type BoughtTable, type Job } from '../model';
import { listMarks, planClips, planPottings, type JobPlan } from '../plan';
import type { Catalogue } from '../catalogue';

/** Records of a shop that a planned job uses, as table/id, each once and in order: named in it, or chosen by its plan. */
export function listUses(job: Job, plan: JobPlan, catalogue: Catalogue): string[] {
  const uses = new Set<string>([`standards/${job.standardId}`]);
  const add = (table: BoughtTable, id: string | null) => {
    if (id !== null) uses.add(`${table}/${id}`);
  };
  for (const { templateId } of Object.values(job.devices))
    if (templateId !== null && !Object.hasOwn(job.deviceTemplates, templateId)) add('devices', templateId);
  for (const loom of Object.values(job.looms)) {
    for (const { familyId } of Object.values(loom.ends))
      if (familyId !== null && !Object.hasOwn(job.families, familyId)) add('families', familyId);
    for (const { cable } of Object.values(loom.circuits)) add('cables', cable?.itemId ?? null);
    if (loom.board.boardId !== null) uses.add(`boards/${loom.board.boardId}`);
    if (loom.board.printerId !== null) uses.add(`printers/${loom.board.printerId}`);
  }
  const plugSizes = new Map(Object.entries(catalogue.plugs).map(([size, { id }]) => [id, size]));
  const rings = new Set(catalogue.rings.map(({ id }) => id));
  for (const loomPlan of plan.looms) {
    const { terminations, plugs, barrels, coverings, endDress, breakoutDress, screens, wires } = loomPlan;
    for (const { contactId, sealId } of terminations) {
      add(contactId !== null && rings.has(contactId) ? 'rings' : 'contacts', contactId);
      add('seals', sealId);
    }
    for (const { sleeveId } of screens) add('coverings', sleeveId);
    for (const { plugId } of plugs) add('plugs', plugSizes.get(plugId) ?? null);
    for (const { barrelId } of barrels) add('barrels', barrelId);
    for (const { itemId } of coverings) add('coverings', itemId);
    for (const { table, itemId } of [...endDress, ...breakoutDress].flatMap(({ pieces }) => pieces)) add(table, itemId);
    for (const { stockId } of listMarks(job, loomPlan, catalogue)) add('labels', stockId);
    for (const { item } of planClips(job, loomPlan, catalogue)) add('clips', item?.id ?? null);
    for (const { resin } of planPottings(job, loomPlan, catalogue)) add('resins', resin.id);
    for (const { conductor } of wires) add('wires', toWireId(conductor));
  }
  return [...uses].sort();
}
