import { findFamily, type Catalogue, type ShopStandard } from '../catalogue';
import type { Job, Loom } from '../model';
import { compareIds } from '../units';
import { chooseBarrels } from './chooseBarrels';
import { chooseConductors } from './chooseConductors';
import { chooseCoverings } from './chooseCoverings';
import { chooseTerminations } from './chooseTerminations';
import { connect, route } from './connect';
import { createTree } from './createTree';
import { listMarks } from './listMarks';
import { measureBundles, type PackingStore } from './measureBundles';
import { measureHeats } from './measureHeats';
import { measureWires } from './measureWires';
import type { JobPlan, LoomPlan, PlannedTermination, PlannedWire } from './types';

export type Planner = (job: Job) => JobPlan;

/**
 * A planner for one catalogue. It remembers what it packed and the last plan of each loom, so that an edit recomputes only
 * the loom it touched; what it returns is the same as a new planner would (a seeded test holds it to that).
 */
export function createPlanner(catalogue: Catalogue): Planner {
  const store: PackingStore = new Map();
  const last = new Map<string, { inputs: unknown[]; plan: LoomPlan }>();
  return (job) => ({
    looms: Object.keys(job.looms)
      .sort(compareIds)
      .map((loomId) => {
        const inputs = [job.looms[loomId], job.zones, job.families, job.standardId, job.openItems];
        const known = last.get(loomId);
        if (known && known.inputs.every((input, index) => input === inputs[index])) return known.plan;
        const plan = planLoom(job, loomId, catalogue, store);
        last.set(loomId, { inputs, plan });
        return plan;
      }),
  });
}

/** The plan of a whole job, computed from nothing. */
export function plan(job: Job, catalogue: Catalogue): JobPlan {
  return createPlanner(catalogue)(job);
}

/** The stages of a plan, in their order. Each is a pure function; what passes between them is in types.ts. */
function planLoom(job: Job, loomId: string, catalogue: Catalogue, store: PackingStore): LoomPlan {
  const loom = job.looms[loomId]!;
  const standard = findStandard(job, catalogue);
  // 0 first cut: where anything is fitted, the plan that the wires were cut by
  const first = isFitted(loom) ? planLoom(toUnfitted(job, loomId), loomId, catalogue, store) : null;
  // 1 route: the tree seen from the datum
  const tree = createTree(loom, standard);
  // 2 connect and splice: circuits → wires and splices at junctions, by least wire; what is cut stays as it was joined
  const strands = connect(loom, first?.tree ?? tree, standard);
  // 3 place: splices off their junctions, wires along the tree
  const { splices, wires: run } = route(job, loom, tree, strands, standard, first?.splices ?? []);
  // 4 size: a conductor for every wire
  const sized = chooseConductors(job, loom, run, catalogue, standard);
  const barrels = chooseBarrels(splices, sized, catalogue);
  // 5 bundle: what lies in each section and how thick it is
  const bundles = measureBundles(loom, tree, sized, standard, store);
  // 6 cover, and what it gets to
  const coverings = chooseCoverings(job, loom, tree, bundles, catalogue, standard);
  const heats = measureHeats(job, loom, sized, bundles, coverings, standard);
  // 7 terminate
  const { terminations, plugs } = chooseTerminations(job, loom, sized, catalogue, standard.tailStripMm);
  // 8 mark
  const marks = listMarks(loom, sized, catalogue);
  // 9 measure: cut lengths, every term kept
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
  return { loomId, tree, wires, splices, barrels, bundles, coverings, heats, terminations, plugs, massG };
}

const isFitted = (loom: Loom) => Object.values(loom.segments).some(({ fittedMm }) => fittedMm !== null);

/** The job with one loom as it was measured, before its trial fit. */
function toUnfitted(job: Job, loomId: string): Job {
  const loom = job.looms[loomId]!;
  const segments = Object.fromEntries(Object.entries(loom.segments).map(([id, segment]) => [id, { ...segment, fittedMm: null }]));
  return { ...job, looms: { ...job.looms, [loomId]: { ...loom, segments } } };
}

/** The shop standard that a job works to; throws where the catalogue does not have it. */
export function findStandard(job: Pick<Job, 'standardId'>, catalogue: Catalogue): ShopStandard {
  const standard = Object.hasOwn(catalogue.standards, job.standardId) ? catalogue.standards[job.standardId] : undefined;
  if (!standard) throw new Error(`standardId: expected one of ${Object.keys(catalogue.standards).join(', ')}, got "${job.standardId}"`);
  return standard;
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
