import type { Catalogue } from '../catalogue';
import type { Job } from '../model';
import { compareIds } from '../units';
import { shareHoles } from './feed/shareHoles';
import { findStandard } from './findStandard';
import { keepWiring, type JoinedLooms } from './joinLooms';
import type { LoomContext } from './planLoom';
import { createPlanStore } from './planStore';
import type { RoutedLoom } from './route/routeLoom';
import { buildLooms, findMinimums, sizeDrafts, slimLooms } from './sizeLooms';
import { JOIN, ROUTE, WRITE, type JobContext } from './stages';
import type { JobPlan } from './types';

export type Planner = (job: Job) => JobPlan;

/**
 * A planner for one catalogue. It remembers what each stage came to, so that an edit recomputes only what it touched; what it returns is
 * the same as a new planner would (a seeded test holds it to that).
 */
export function createPlanner(catalogue: Catalogue): Planner {
  const store = createPlanStore();
  return (job) => {
    const loomIds = Object.keys(job.looms).sort(compareIds);
    const standard = findStandard(job, catalogue);
    const context: JobContext = { job, loomIds, catalogue, standard, store };
    // 1 route: each loom by itself, wires and splices without sizes → RoutedLoom[]
    const routes = loomIds.map((loomId) => store.memo(ROUTE, loomId, { ...context, loomId }));
    // 2 join: what flows in every wire of the whole vehicle, whatever its size → JoinedLooms
    const wirings = routes.map((route) => keepWiring(store, route));
    const joined = store.memo(JOIN, '', { ...context, routes, wirings });
    // 3 size: draft the looms, sum the vehicle, thicken what it asks for, until nothing is asked any more → Sizing
    const looms = listLooms(context, routes, joined);
    const draft = sizeDrafts({ looms, joined, standard, store });
    // 4 build: bundles, coverings, ends and lengths with those sizes, and the sums on them → BuiltVehicle
    const built = buildLooms(looms, joined, draft, standard);
    // 5 slim: what was asked for on the way and is no more → BuiltVehicle
    const slim = slimLooms(looms, joined, built.full, standard);
    // 6 write: numbers, terms of lengths, reasons → LoomPlan[], PowerPlan
    const alone = looms.map((loom, index) => {
      const { loomId } = loom.routed;
      return store.memo(WRITE, loomId, { context: loom, built: slim.built[index]!, minimums: findMinimums(slim.minimums, loomId) });
    });
    // 7 share: holes that several looms go through → LoomPlan[]
    const plans = shareHoles(context, alone);
    const numbers = new Map(plans.map(({ loomId, wires }) => [loomId, new Map(wires.map(({ id, number }) => [id, number]))]));
    const written = slim.sums.write((loomId, wireId) => numbers.get(loomId)!.get(wireId)!);
    const { rounds, settled } = built.sizing;
    return { looms: plans, power: { ...written, copper: slim.copper, rounds, settled } };
  };
}

const listLooms = ({ job, catalogue, standard, store }: JobContext, routes: readonly RoutedLoom[], { flows, ofLooms }: JoinedLooms) =>
  routes.map((routed): LoomContext => {
    const { modeIds } = flows;
    return { job, routed, flows: ofLooms.get(routed.loomId)!, modeIds, catalogue, standard, store };
  });

/** The plan of a whole job, computed from nothing. */
export function plan(job: Job, catalogue: Catalogue): JobPlan {
  return createPlanner(catalogue)(job);
}
