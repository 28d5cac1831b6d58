import { findFamily, type Catalogue, type ShopStandard } from '../catalogue';
import type { Job, Loom } from '../model';
import { chooseBarrels } from './chooseBarrels';
import { chooseConductors, type SizeDemand } from './chooseConductors';
import { chooseCoverings } from './chooseCoverings';
import { chooseTerminations } from './chooseTerminations';
import type { HeatStore } from './heatStore';
import { listMarks } from './listMarks';
import { measureBundles, type PackingStore } from './measureBundles';
import { measureHeats } from './measureHeats';
import { measureJoints } from './measureJoints';
import { measureWires } from './measureWires';
import type { CopperStore } from './power/chooseDemands';
import type { SizedLoom } from './power/createPower';
import type { LoomFlow } from './power/listLoomFlows';
import { measureAmpacities } from './power/measureAmpacity';
import type { WireCurrent } from './power/types';
import { toUnfitted, type RoutedLoom } from './routeLoom';
import type { LoomPlan, PlannedTermination, PlannedWire, SizedWire } from './types';

/** What planning remembers beside its plans: never more than a shortcut. */
export interface PlanStore {
  packings: PackingStore;
  heats: HeatStore;
  copper: CopperStore;
}

/** What the stages of one loom work on. */
export interface LoomContext {
  job: Job;
  routed: RoutedLoom;
  /** by wire id */
  flows: ReadonlyMap<string, LoomFlow>;
  modeIds: readonly string[];
  catalogue: Catalogue;
  standard: ShopStandard;
  store: PlanStore;
}

/** Length of every wire with these sizes, its bundles as thin as they could be; mm. */
export function draftLengths(context: LoomContext, demands: ReadonlyMap<string, SizeDemand>): number[] {
  const { job, routed, catalogue, standard } = context;
  const loom = job.looms[routed.loomId]!;
  const wires = chooseConductors(loom, routed, demands);
  const { bundles } = measureBundles(loom, routed.tree, wires, catalogue, null);
  const barrels = chooseBarrels(routed.splices, wires, catalogue, standard);
  return finishLoom(context, wires, bundles, barrels, null).wires.map(({ lengthMm }) => lengthMm);
}

/** The stages of a loom's plan that follow the route, in their order. Each is a pure function; what passes between them is in types.ts. */
export function planLoom(context: LoomContext, demands: ReadonlyMap<string, SizeDemand>): LoomPlan {
  const { job, routed, catalogue } = context;
  const { loomId, tree, splices } = routed;
  const first = routed.first && planLoom({ ...context, job: toUnfitted(job, loomId), routed: routed.first }, demands);
  // size, bundle, cover, warm
  const { wires: sized, barrels, bundles, coverings, heats, currents } = measureLoom(context, demands, false);
  // terminate, mark, measure
  const { wires, terminations, plugs } = finishLoom(context, sized, bundles, barrels, first?.wires ?? null);
  const covering = coverings.reduce((sum, one) => sum + one.massG, 0);
  const massG = sumMass(job, toLoom(context), wires, covering, terminations, barrels, catalogue);
  return { loomId, tree, wires, splices, barrels, bundles, coverings, heats, currents, terminations, plugs, massG };
}

const NO_JOINTS: ReadonlyMap<string, number> = new Map();
const NO_FLOW: LoomFlow = { onA: [], heatA: [], designA: null, inrushA: 0, guardIds: [], isFused: false };

const toLoom = ({ job, routed }: LoomContext) => job.looms[routed.loomId]!;

export type MeasuredLoom = Omit<SizedLoom, 'loomId' | 'lengthsMm'>;

/**
 * From sizes to what the wires bear. A draft, while sizes are still chosen, has bundles as thin as they could be: thinner is warmer, the
 * safe side.
 */
export function measureLoom(context: LoomContext, demands: ReadonlyMap<string, SizeDemand>, isDraft: boolean) {
  const { job, routed, flows, modeIds, catalogue, standard, store } = context;
  const loom = toLoom(context);
  // size: a conductor for every wire
  const wires = chooseConductors(loom, routed, demands);
  const packings = isDraft ? null : store.packings;
  // bundle: what lies in each section and how thick it is
  const { bundles, occupants } = measureBundles(loom, routed.tree, wires, catalogue, packings);
  // cover, and what it gets to
  const barrels = chooseBarrels(routed.splices, wires, catalogue, standard);
  // a draft asks how warm its runs get, not what their sleeves pass
  const joints = isDraft ? NO_JOINTS : measureJoints(bundles, routed.splices, barrels);
  const coverings = chooseCoverings(job, loom, routed.tree, bundles, joints, catalogue, standard);
  const heats = measureHeats(job, loom, wires, bundles, coverings, occupants, flows, modeIds, store.heats, standard);
  const ampacities = measureAmpacities(job, loom, wires, bundles, coverings, occupants, heats, flows, isDraft, store.heats, standard);
  const currents = wires.map(({ id }, place): WireCurrent => {
    const { onA, heatA, designA, inrushA, guardIds } = flows.get(id) ?? NO_FLOW;
    return { wireId: id, onA, heatA, designA, inrushA, guardIds: [...guardIds], ...ampacities[place]! };
  });
  return { wires, barrels, bundles, coverings, heats, currents };
}

/** From sizes to cut lengths, every term kept. */
function finishLoom(
  { job, routed, catalogue, standard }: LoomContext,
  sized: readonly SizedWire[],
  bundles: LoomPlan['bundles'],
  barrels: LoomPlan['barrels'],
  before: readonly PlannedWire[] | null,
) {
  const { loomId, tree, splices } = routed;
  const loom = job.looms[loomId]!;
  const { terminations, plugs } = chooseTerminations(job, loom, sized, catalogue, standard.tailStripMm);
  const marks = listMarks(loom, sized, catalogue);
  const wires = measureWires(job, loomId, tree, sized, splices, bundles, terminations, barrels, marks, before, catalogue, standard);
  return { wires, terminations, plugs };
}

function sumMass(
  job: Job,
  loom: Loom,
  wires: readonly PlannedWire[],
  covering: number,
  terminations: readonly PlannedTermination[],
  barrels: LoomPlan['barrels'],
  catalogue: Catalogue,
): LoomPlan['massG'] {
  const wire = wires.reduce((sum, one) => sum + one.massG, 0);
  const housings = Object.values(loom.ends).reduce((sum, end) => sum + (findFamily(job, catalogue, end.familyId)?.massG ?? 0), 0);
  const unit = new Map([...catalogue.contacts, ...catalogue.rings].map(({ id, massG }) => [id, massG]));
  const contacts = terminations.reduce((sum, { contactId }) => sum + (contactId === null ? 0 : unit.get(contactId)!), 0);
  const joints = new Map(catalogue.barrels.map(({ id, massG, sleeveMassG }) => [id, massG + sleeveMassG]));
  const splices = barrels.reduce((sum, { barrelId }) => sum + (barrelId === null ? 0 : joints.get(barrelId)!), 0);
  return { wire, covering, housings, contacts, splices, total: wire + covering + housings + contacts + splices };
}
