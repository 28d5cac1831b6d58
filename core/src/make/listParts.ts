import { findFamily, type Catalogue, type ShopStandard } from '../catalogue';
import { findBuying, toWireId, type BoughtTable, type Job } from '../model';
import { countBandsByColour, findBladeSleeve, findStandard, listMarks, planClips, planPottings, type LoomPlan } from '../plan';
import { compareIds } from '../units';
import { listCuts } from './listCuts';
import { listFillers } from './listFillers';

/** One line of a parts list. Pieces are counted; wire and sleeving are also measured in mm. */
export interface PartLine {
  group: 'wire' | 'housing' | 'contact' | 'seal' | 'plug' | 'splice' | 'covering' | 'moulded' | 'label' | 'tie' | 'clip' | 'resin';
  id: string;
  name: string;
  pieces: number;
  /** mm off the reel, or null where a part is only counted */
  lengthMm: number | null;
  /** packs, reels or bars to have whole; null: nobody stated what is in one */
  packs: number | null;
  /** of what is used, in the shop's currency; null: nobody stated a price */
  cost: number | null;
}

type Taken = Omit<PartLine, 'packs' | 'cost'> & { bought: [BoughtTable, string] | null };

/** What a loom takes, held wires included: they will be needed once they are measured. */
export function listParts(job: Job, plan: LoomPlan, catalogue: Catalogue): PartLine[] {
  const loom = job.looms[plan.loomId]!;
  const lines = new Map<string, Taken>();
  const add: Add = (group, id, name, bought, { pieces = 1, lengthMm = null } = {}) => {
    const known = lines.get(`${group} ${id}`);
    if (!known) lines.set(`${group} ${id}`, { group, id, name, pieces, lengthMm, bought });
    else
      lines.set(`${group} ${id}`, {
        ...known,
        pieces: known.pieces + pieces,
        lengthMm: lengthMm === null ? known.lengthMm : (known.lengthMm ?? 0) + lengthMm,
      });
  };
  const rings = new Set(catalogue.rings.map(({ id }) => id));
  for (const cut of listCuts(plan)) {
    const wires = [...cut.wires, ...cut.held];
    const cable = catalogue.cables.find(({ id }) => id === cut.cableId);
    if (cable)
      add('wire', cable.id, `cable, ${cable.name}`, ['cables', cable.id], { lengthMm: Math.max(...wires.map(({ roughMm }) => roughMm)) });
    else for (const { conductor, roughMm } of wires) add('wire', cut.id, cut.reel, ['wires', toWireId(conductor)], { lengthMm: roughMm });
  }
  for (const { reel, conductor, cutMm } of listFillers(plan))
    add('wire', `dead ${toWireId(conductor)}`, `dead wire, ${reel}`, ['wires', toWireId(conductor)], {
      lengthMm: cutMm,
    });
  for (const endId of Object.keys(loom.ends).sort(compareIds)) {
    const { familyId, key, kind } = loom.ends[endId]!;
    const family = findFamily(job, catalogue, familyId);
    if (kind === 'connector' && family)
      add('housing', `${familyId}${key === null ? '' : `-${key}`}`, key === null ? family.name : `${family.name}, key ${key}`, [
        'families',
        familyId!,
      ]);
  }
  for (const { contactId, contactName, sealId, sealName } of plan.terminations) {
    if (contactId !== null) add('contact', contactId, contactName, [rings.has(contactId) ? 'rings' : 'contacts', contactId]);
    const over = findBladeSleeve(catalogue, contactId);
    if (over) add('covering', over.itemId, over.itemName, ['coverings', over.itemId], { lengthMm: over.cutMm });
    if (sealId !== null) add('seal', sealId, sealName, ['seals', sealId]);
  }
  const plugs = new Map(Object.entries(catalogue.plugs).map(([size, { id, name }]) => [id, { size, name }]));
  for (const { plugId } of plan.plugs) add('plug', plugId, plugs.get(plugId)!.name, ['plugs', plugs.get(plugId)!.size]);
  const barrels = new Map(catalogue.barrels.map((one) => [one.id, one]));
  for (const { barrelId, barrelName } of plan.barrels) {
    if (barrelId === null) continue;
    const { sleeveBoreMm, sleeveMm } = barrels.get(barrelId)!;
    add('splice', barrelId, barrelName, ['barrels', barrelId]);
    add('splice', `sleeve-${sleeveBoreMm}`, `adhesive splice sleeve ${sleeveBoreMm}, ${sleeveMm} mm a piece`, null, { lengthMm: sleeveMm });
  }
  for (const { item, atMm } of planClips(job, plan, catalogue))
    if (item) add('clip', item.id, item.name, ['clips', item.id], { pieces: atMm.length });
  for (const { resin, massG } of planPottings(job, plan, catalogue))
    add('resin', resin.id, `${resin.name}, g`, ['resins', resin.id], { pieces: Math.ceil(massG - 1e-9) });
  addTies(job, plan, findStandard(job, catalogue), add);
  for (const [colour, pieces] of countBandsByColour(job.looms[plan.loomId]!, plan)) {
    const { bandMm } = findStandard(job, catalogue);
    add('label', `band-${colour}`, `band ${colour}, sleeve or tape, ${bandMm} mm a piece`, null, { pieces, lengthMm: bandMm * pieces });
  }
  for (const { itemId, itemName, cutMm } of plan.coverings)
    if (itemId !== null) add('covering', itemId, itemName, ['coverings', itemId], { lengthMm: cutMm });
  for (const { table, itemId, itemName, cutMm } of [...plan.endDress, ...plan.breakoutDress].flatMap(({ pieces }) => pieces)) {
    if (table === 'coverings') add('covering', itemId, itemName, [table, itemId], { lengthMm: cutMm });
    else add('moulded', itemId, itemName, [table, itemId]);
  }
  for (const { sleeveId, sleeveName, sleeveMm } of plan.screens)
    if (sleeveId !== null) add('covering', sleeveId, sleeveName, ['coverings', sleeveId], { lengthMm: sleeveMm });
  for (const { kind, stockId, stockName, pieces, clear } of listMarks(job, plan, catalogue)) {
    if (clear) add('covering', clear.itemId, clear.itemName, ['coverings', clear.itemId], { lengthMm: clear.cutMm });
    if (stockId !== null) add('label', stockId, stockName!, ['labels', stockId], { pieces });
    else if (kind === 'end') add('label', 'tag', 'tag, tied to an end', null);
    else if (kind === 'device') add('label', 'device', 'label, stuck on a device', null);
  }
  return [...lines.values()].map((line) => toBought(line, catalogue));
}

/** A line with the packs that it opens and what it costs. */
function toBought({ bought, ...line }: Taken, catalogue: Catalogue): PartLine {
  const { price = null, packOf = null } = (bought && findBuying(catalogue, ...bought)) ?? {};
  const amount = line.lengthMm === null ? line.pieces : line.lengthMm / 1000;
  return {
    ...line,
    // a length that fills its reels to the last metre opens no other one
    packs: packOf === null ? null : Math.ceil(amount / packOf - 1e-9),
    cost: price === null ? null : Math.round(price * amount * 100) / 100,
  };
}

type Add = (
  group: PartLine['group'],
  id: string,
  name: string,
  bought: Taken['bought'],
  amount?: { pieces?: number; lengthMm?: number | null },
) => void;

/** Ties along a run; none where it holds no two wires. */
export const countTies = (sections: LoomPlan['bundles'][number]['sections'], lengthMm: number, tieEveryMm: number): number =>
  sections.some(({ elements }) => elements.flat().length > 1) ? Math.ceil(lengthMm / tieEveryMm) : 0;

/** Ties along every run that holds two wires or more, and tape round each fork and the datum. */
function addTies(job: Job, plan: LoomPlan, { tieEveryMm, tapeTurns }: ShopStandard, add: Add): void {
  const { nodes } = job.looms[plan.loomId]!;
  const widest = new Map<string, number>();
  for (const { segmentId, odMm, sections } of plan.bundles) {
    const { nearNodeId, farNodeId, lengthMm } = plan.tree.segments[segmentId]!;
    const pieces = countTies(sections, lengthMm, tieEveryMm);
    if (pieces > 0) add('tie', 'tie', 'tie', null, { pieces });
    if (odMm > 0) for (const id of [nearNodeId, farNodeId]) widest.set(id, Math.max(widest.get(id) ?? 0, odMm));
  }
  for (const [id, odMm] of widest)
    if (nodes[id]!.kind === 'breakout' || nodes[id]!.kind === 'datum')
      add('tie', 'tape', 'cloth tape', null, { lengthMm: Math.ceil(tapeTurns * Math.PI * odMm) });
}
