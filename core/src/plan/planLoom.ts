import { findFamily, type Catalogue, type ShopStandard } from '../catalogue';
import type { Job, Loom } from '../model';
import { chooseBarrels } from './chooseBarrels';
import { chooseConductors, type SizeDemand } from './chooseConductors';
import { chooseCoverings } from './chooseCoverings';
import { chooseTerminations } from './chooseTerminations';
import { connect, route } from './connect';
import { createSizes, type SizeRange } from './createSizes';
import { createTree } from './createTree';
import type { HeatStore } from './heatStore';
import { listMarks } from './listMarks';
import { measureBundles, type PackingStore } from './measureBundles';
import { measureHeats } from './measureHeats';
import { measureWires } from './measureWires';
import { measureAmpacities } from './power/measureAmpacity';
import type { LoomFlow } from './power/planPower';
import type { WireCurrent } from './power/types';
import type { LoomPlan, PlannedSplice, PlannedTermination, PlannedWire, RunWire, Tree } from './types';

/** What planning remembers beside its plans: never more than a shortcut. */
export interface PlanStore {
  packings: PackingStore;
  heats: HeatStore;
}

/** A loom with its wires led along the tree: what does not depend on any size. */
export interface RoutedLoom {
  loomId: string;
  tree: Tree;
  splices: PlannedSplice[];
  wires: RunWire[];
  sizes: (wire: RunWire) => SizeRange;
  /** by the readings alone, before the trial fit: what the wires were cut by; null where nothing is fitted */
  first: RoutedLoom | null;
}

/** First stages of a plan: tree, least-wire splices, places, ways. */
export function routeLoom(job: Job, loomId: string, catalogue: Catalogue, standard: ShopStandard): RoutedLoom {
  const loom = job.looms[loomId]!;
  const first = isFitted(loom) ? routeLoom(toUnfitted(job, loomId), loomId, catalogue, standard) : null;
  // route: the tree seen from the datum
  const tree = createTree(loom, standard);
  // connect and splice: circuits → wires and splices at junctions, by least wire; what is cut stays as it was joined
  const strands = connect(loom, first?.tree ?? tree, standard);
  // place: splices off their junctions, wires along the tree
  const { splices, wires } = route(job, loom, tree, strands, standard, first?.splices ?? []);
  return { loomId, tree, splices, wires, sizes: createSizes(job, loom, catalogue, standard), first };
}

/**
 * The stages of a loom's plan that follow the route, in their order. Each is a pure function; what passes between them is in types.ts.
 * A draft has bundles as thin as they could be and no picture of them.
 */
export function planLoom(
  job: Job,
  routed: RoutedLoom,
  flows: ReadonlyMap<string, LoomFlow>,
  modeIds: readonly string[],
  demands: ReadonlyMap<string, SizeDemand>,
  catalogue: Catalogue,
  standard: ShopStandard,
  store: PlanStore,
  isDraft: boolean,
): LoomPlan {
  const { loomId, tree, splices, sizes } = routed;
  const loom = job.looms[loomId]!;
  const first =
    routed.first && planLoom(toUnfitted(job, loomId), routed.first, flows, modeIds, demands, catalogue, standard, store, isDraft);
  // size: a conductor for every wire
  const sized = chooseConductors(loom, routed.wires, sizes, demands);
  const barrels = chooseBarrels(splices, sized, catalogue);
  // bundle: what lies in each section and how thick it is
  const bundles = measureBundles(loom, tree, sized, standard, isDraft ? null : store.packings);
  // cover, and what it gets to
  const coverings = chooseCoverings(job, loom, tree, bundles, catalogue, standard);
  const heats = measureHeats(job, loom, sized, bundles, coverings, flows, modeIds, store.heats, standard);
  const ampacities = measureAmpacities(job, loom, sized, bundles, coverings, heats, flows, isDraft, store.heats, standard);
  const currents = sized.map(({ id }): WireCurrent => {
    const { rmsA, peakA, designA: design, protectionId } = flows.get(id) ?? { rmsA: [], peakA: 0, designA: null, protectionId: null };
    return { wireId: id, rmsA, peakA, designA: design, protectionId, ...ampacities.get(id)! };
  });
  // terminate
  const { terminations, plugs } = chooseTerminations(job, loom, sized, catalogue, standard.tailStripMm);
  // mark
  const marks = listMarks(loom, sized, catalogue);
  // measure: cut lengths, every term kept
  const before = first?.wires ?? null;
  const wires = measureWires(job, loomId, tree, sized, splices, bundles, terminations, barrels, marks, before, catalogue, standard);
  const massG = sumMass(
    job,
    loom,
    wires,
    coverings.reduce((sum, one) => sum + one.massG, 0),
    terminations,
    catalogue,
  );
  return { loomId, tree, wires, splices, barrels, bundles, coverings, heats, currents, terminations, plugs, massG };
}

const isFitted = (loom: Loom) => Object.values(loom.segments).some(({ fittedMm }) => fittedMm !== null);

/** The job with one loom as it was measured, before its trial fit. */
function toUnfitted(job: Job, loomId: string): Job {
  const loom = job.looms[loomId]!;
  const segments = Object.fromEntries(Object.entries(loom.segments).map(([id, segment]) => [id, { ...segment, fittedMm: null }]));
  return { ...job, looms: { ...job.looms, [loomId]: { ...loom, segments } } };
}

function sumMass(
  job: Job,
  loom: Loom,
  wires: readonly PlannedWire[],
  covering: number,
  terminations: readonly PlannedTermination[],
  catalogue: Catalogue,
): LoomPlan['massG'] {
  const wire = wires.reduce((sum, one) => sum + one.massG, 0);
  const housings = Object.values(loom.ends).reduce((sum, end) => sum + (findFamily(job, catalogue, end.familyId)?.massG ?? 0), 0);
  const unit = new Map([...catalogue.contacts, ...catalogue.rings].map(({ id, massG }) => [id, massG]));
  const contacts = terminations.reduce((sum, { contactId }) => sum + (contactId === null ? 0 : unit.get(contactId)!), 0);
  return { wire, covering, housings, contacts, total: wire + covering + housings + contacts };
}
