import { findFamily, type Catalogue, type ShopStandard } from '../catalogue';
import type { Job } from '../model';
import { findStandard, type LoomPlan } from '../plan';
import { compareIds } from '../units';
import { listCuts } from './listCuts';

/** One line of a parts list. Pieces are counted; wire and sleeving are also measured in mm. */
export interface PartLine {
  group: 'wire' | 'housing' | 'contact' | 'seal' | 'plug' | 'splice' | 'covering' | 'label' | 'tie';
  id: string;
  name: string;
  pieces: number;
  /** mm off the reel, or null where a part is only counted */
  lengthMm: number | null;
}

/** What a loom takes, held wires included: they will be needed once they are measured. */
export function listParts(job: Job, plan: LoomPlan, catalogue: Catalogue): PartLine[] {
  const loom = job.looms[plan.loomId]!;
  const lines = new Map<string, PartLine>();
  const add = (group: PartLine['group'], id: string, name: string, pieces = 1, lengthMm: number | null = null) => {
    const known = lines.get(`${group} ${id}`);
    if (!known) lines.set(`${group} ${id}`, { group, id, name, pieces, lengthMm });
    else
      lines.set(`${group} ${id}`, {
        ...known,
        pieces: known.pieces + pieces,
        lengthMm: lengthMm === null ? known.lengthMm : (known.lengthMm ?? 0) + lengthMm,
      });
  };
  for (const cut of listCuts(plan)) {
    const wires = [...cut.wires, ...cut.held];
    const cable = catalogue.cables.find(({ id }) => id === cut.cableId);
    if (cable) add('wire', cable.id, `cable, ${cable.name}`, 1, Math.max(...wires.map(({ roughMm }) => roughMm)));
    else for (const wire of wires) add('wire', cut.id, cut.reel, 1, wire.roughMm);
  }
  for (const endId of Object.keys(loom.ends).sort(compareIds)) {
    const { familyId, key, kind } = loom.ends[endId]!;
    const family = findFamily(job, catalogue, familyId);
    if (kind === 'connector' && family)
      add('housing', `${familyId}${key === null ? '' : `-${key}`}`, key === null ? family.name : `${family.name}, key ${key}`);
    add('label', 'end-label', 'end label');
  }
  for (const { contactId, contactName, sealId, sealName } of plan.terminations) {
    if (contactId !== null) add('contact', contactId, contactName);
    if (sealId !== null) add('seal', sealId, sealName);
  }
  const plugNames = new Map(Object.values(catalogue.plugs).map(({ id, name }) => [id, name]));
  for (const { plugId } of plan.plugs) add('plug', plugId, plugNames.get(plugId)!);
  const barrels = new Map(catalogue.barrels.map((one) => [one.id, one]));
  for (const { barrelId, barrelName } of plan.barrels) {
    if (barrelId === null) continue;
    const { sleeveBoreMm, sleeveMm } = barrels.get(barrelId)!;
    add('splice', barrelId, barrelName);
    add('splice', `sleeve-${sleeveBoreMm}`, `adhesive splice sleeve ${sleeveBoreMm}, ${sleeveMm} mm a piece`, 1, sleeveMm);
  }
  addTies(job, plan, findStandard(job, catalogue), add);
  for (const { itemId, itemName, cutMm } of plan.coverings) if (itemId !== null) add('covering', itemId, itemName, 1, cutMm);
  const labels = new Map(catalogue.labels.map(({ id, name }) => [id, name]));
  for (const { labelId } of plan.wires) if (labelId !== null) add('label', labelId, labels.get(labelId)!, 2);
  return [...lines.values()];
}

type Add = (group: PartLine['group'], id: string, name: string, pieces?: number, lengthMm?: number | null) => void;

/** Ties along every run that holds two wires or more, and tape round each fork and the datum. */
function addTies(job: Job, plan: LoomPlan, { tieEveryMm, tapeTurns }: ShopStandard, add: Add): void {
  const { nodes } = job.looms[plan.loomId]!;
  const widest = new Map<string, number>();
  for (const { segmentId, odMm, sections } of plan.bundles) {
    const { nearNodeId, farNodeId, lengthMm } = plan.tree.segments[segmentId]!;
    if (sections.some(({ elements }) => elements.flat().length > 1)) add('tie', 'tie', 'tie', Math.ceil(lengthMm / tieEveryMm));
    if (odMm > 0) for (const id of [nearNodeId, farNodeId]) widest.set(id, Math.max(widest.get(id) ?? 0, odMm));
  }
  for (const [id, odMm] of widest)
    if (nodes[id]!.kind === 'breakout' || nodes[id]!.kind === 'datum')
      add('tie', 'tape', 'cloth tape', 1, Math.ceil(tapeTurns * Math.PI * odMm));
}
