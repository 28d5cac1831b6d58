import { findFamily, type Catalogue, type ShopStandard } from '../catalogue';
import type { Job, Loom } from '../model';
import { createMemory, type Memory } from '../units';
import { chooseBarrels } from './chooseBarrels';
import { chooseConductors, type SizeDemand } from './chooseConductors';
import { chooseCoverings } from './chooseCoverings';
import { chooseTerminations, type PlannedEnd } from './chooseTerminations';
import { listMarks } from './listMarks';
import { measureBundles, type BundleStore } from './measureBundles';
import { measureHeats, type WarmStore } from './measureHeats';
import { measureJoints } from './measureJoints';
import { listAddends, measureWires, sumAddends, type WireInputs } from './measureWires';
import type { CopperStore } from './power/chooseDemands';
import type { LoomFlow, LoomFlows } from './power/listLoomFlows';
import { measureAmpacities, type LoadStore } from './power/measureAmpacity';
import type { SizedLoom } from './power/sizedLoom';
import type { WireCurrent } from './power/types';
import { toUnfitted, type RoutedLoom } from './routeLoom';
import type { Addend, LoomPlan, PlannedTermination, PlannedWire, SizedWire } from './types';

/** What planning remembers beside its plans: never more than a shortcut. */
export interface PlanStore extends BundleStore, WarmStore, LoadStore {
  /** ends as they were terminated last, by loom and end */
  ended: Memory<PlannedEnd>;
  /** of every loom, as they were last */
  flows: Map<string, LoomFlows>;
  copper: CopperStore;
}

/** of a round or two before, before and after a fitting */
const MOST_BUNDLES = 4;

export const createPlanStore = (): PlanStore => ({
  packings: new Map(),
  laid: createMemory(MOST_BUNDLES),
  warmed: createMemory(MOST_BUNDLES),
  loaded: createMemory(MOST_BUNDLES),
  ended: createMemory(MOST_BUNDLES),
  flows: new Map(),
  copper: new Map(),
});

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

/** Length of every wire with the sizes that its ends ask for, its bundles as thin as they could be; mm. */
export function draftLengths(context: LoomContext): number[] {
  const { job, routed, catalogue, standard, store } = context;
  const loom = job.looms[routed.loomId]!;
  const wires = chooseConductors(routed, NO_DEMANDS);
  const bundles = measureBundles(loom, routed, wires, catalogue, store, true).map(({ bundle }) => bundle);
  const barrels = chooseBarrels(routed.splices, wires, catalogue, standard);
  return listAddends(endWires(context, wires, bundles, barrels).inputs).map(sumAddends);
}

/** A loom as it is built: what its wires bear, what their ends get, and how long they come out. */
export interface BuiltLoom extends MeasuredLoom {
  loomId: string;
  /** what makes the length of each wire */
  addends: readonly (readonly Addend[])[];
  lengthsMm: readonly number[];
  barrels: LoomPlan['barrels'];
  ended: EndedWires;
}

/** From sizes to lengths: all that the sums of the vehicle ask of a loom as it is built. */
export function buildLoom(context: LoomContext, demands: ReadonlyMap<string, SizeDemand>): BuiltLoom {
  // size, bundle, cover, warm
  const measured = measureLoom(context, demands, false);
  // terminate
  const ended = endWires(context, measured.wires, measured.bundles, measured.barrels);
  const addends = listAddends(ended.inputs);
  return { ...measured, loomId: context.routed.loomId, addends, lengthsMm: addends.map(sumAddends), ended };
}

/** The plan of a loom as it is built, every term of its lengths kept. */
export function planLoom(context: LoomContext, built: BuiltLoom, demands: ReadonlyMap<string, SizeDemand>): LoomPlan {
  const { job, routed, catalogue } = context;
  const { loomId, tree, splices } = routed;
  const { wires: sized, barrels, bundles, coverings, heats, currents, ended } = built;
  const { terminations, plugs } = ended;
  const first = routed.first && planFirst({ ...context, job: toUnfitted(job, loomId), routed: routed.first }, demands);
  // mark, measure
  const wires = measureWires(ended.inputs, built.addends, listMarks(toLoom(context), sized, catalogue), first);
  const covering = coverings.reduce((sum, one) => sum + one.massG, 0);
  const massG = sumMass(job, toLoom(context), wires, covering, terminations, barrels, catalogue);
  return { loomId, tree, wires, splices, barrels, bundles, coverings, heats, currents, terminations, plugs, massG };
}

const NO_DEMANDS: ReadonlyMap<string, SizeDemand> = new Map();
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
  const wires = chooseConductors(routed, demands);
  // bundle: what lies in each section and how thick it is
  const laid = measureBundles(loom, routed, wires, catalogue, store, isDraft);
  const bundles = laid.map(({ bundle }) => bundle);
  // cover, and what it gets to
  const barrels = chooseBarrels(routed.splices, wires, catalogue, standard);
  // a draft asks how warm its runs get, not what their sleeves pass
  const joints = isDraft ? NO_JOINTS : measureJoints(bundles, routed.splices, barrels, store.packings);
  const coverings = chooseCoverings(job, loom, routed.tree, bundles, joints, catalogue, standard);
  const heats = measureHeats(job, routed.loomId, wires, laid, coverings, flows, modeIds, store, standard);
  const ampacities = measureAmpacities(job, routed.loomId, wires, laid, coverings, heats, flows, isDraft, store, standard);
  const currents = wires.map(({ id }, place): WireCurrent => {
    const { onA, heatA, designA, inrushA, guardIds } = flows.get(id) ?? NO_FLOW;
    return { wireId: id, onA, heatA, designA, inrushA, guardIds, ...ampacities[place]! };
  });
  return { wires, barrels, bundles, coverings, heats, currents };
}

/** The wires as they were cut before the trial fit, by the readings alone. */
function planFirst(context: LoomContext, demands: ReadonlyMap<string, SizeDemand>): PlannedWire[] {
  const { routed, catalogue, standard, store } = context;
  const loom = toLoom(context);
  const wires = chooseConductors(routed, demands);
  const bundles = measureBundles(loom, routed, wires, catalogue, store, false).map(({ bundle }) => bundle);
  const { inputs } = endWires(context, wires, bundles, chooseBarrels(routed.splices, wires, catalogue, standard));
  return measureWires(inputs, listAddends(inputs), listMarks(loom, wires, catalogue), null);
}

interface EndedWires extends Pick<LoomPlan, 'terminations' | 'plugs'> {
  inputs: WireInputs;
}

/** What the ends of the wires get, and with that all that their lengths are made of. */
function endWires(
  { job, routed, catalogue, standard, store }: LoomContext,
  wires: readonly SizedWire[],
  bundles: LoomPlan['bundles'],
  barrels: LoomPlan['barrels'],
): EndedWires {
  const { loomId, tree, splices } = routed;
  const { terminations, plugs } = chooseTerminations(job, routed, wires, catalogue, standard.tailStripMm, store.ended);
  return { terminations, plugs, inputs: { job, loomId, tree, wires, splices, bundles, terminations, barrels, catalogue, standard } };
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
