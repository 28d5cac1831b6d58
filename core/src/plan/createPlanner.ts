import type { Catalogue } from '../catalogue';
import type { Job } from '../model';
import { compareIds } from '../units';
import { findStandard } from './findStandard';
import { planLoom, routeLoom, type RoutedLoom } from './planLoom';
import type { PackingStore } from './measureBundles';
import type { SizeDemand } from './chooseConductors';
import type { Demands } from './power/chooseDemands';
import { createGrid } from './power/createGrid';
import { measureFlows } from './power/measureFlows';
import { listLoomFlows, planPower, type LoomFlow } from './power/planPower';
import type { JobPlan, LoomPlan } from './types';

export type Planner = (job: Job) => JobPlan;

const MOST_ROUNDS = 8;
const MOST_KEPT = 12;

/**
 * A planner for one catalogue. It remembers what it packed and the last plans of each loom, so that an edit recomputes only
 * the looms it touched; what it returns is the same as a new planner would (a seeded test holds it to that).
 */
export function createPlanner(catalogue: Catalogue): Planner {
  const store: PackingStore = new Map();
  const routed = createMemory<RoutedLoom>(2);
  const drafted = createMemory<LoomPlan>(MOST_KEPT);
  const planned = createMemory<LoomPlan>(2);
  return (job) => {
    const standard = findStandard(job, catalogue);
    const loomIds = Object.keys(job.looms).sort(compareIds);
    // 1 route: each loom by itself, wires and splices without sizes
    const routes = loomIds.map((loomId) =>
      routed(loomId, [job.looms[loomId], job.zones, job.families, job.standardId], '', () => routeLoom(job, loomId, catalogue, standard)),
    );
    // 2 join: what flows in every wire of the whole vehicle, whatever its size
    const grid = createGrid(job, catalogue, routes);
    const flows = measureFlows(job, grid);
    const ofLooms = listLoomFlows(grid, flows);
    const flowKeys = loomIds.map((loomId) => JSON.stringify([flows.modeIds, ...(ofLooms.get(loomId) ?? [])]));
    const sizes = new Map(loomIds.map((loomId, index) => [loomId, routes[index]!.sizes]));
    const planAll = (demands: Demands, final: boolean) => {
      const looms = loomIds.map((loomId, index) => {
        const asked = demands.get(loomId) ?? new Map<string, SizeDemand>();
        const inputs = [job.looms[loomId], job.zones, job.families, job.standardId, job.openItems];
        const flow = ofLooms.get(loomId) ?? new Map<string, LoomFlow>();
        return (final ? planned : drafted)(loomId, inputs, flowKeys[index]! + toDemandKey(asked), () =>
          planLoom(job, routes[index]!, flow, flows.modeIds, asked, catalogue, standard, final ? store : null),
        );
      });
      return { looms, ...planPower(job, grid, flows, looms, sizes, demands, standard) };
    };
    // 3 size: draft the looms, sum the vehicle, thicken what it asks for, until nothing is asked any more
    let demands: Demands = new Map();
    let rounds = 0;
    let settled = false;
    while (!settled && rounds < MOST_ROUNDS) {
      const next = planAll(demands, false).demands;
      settled = loomIds.every((id) => toDemandKey(next.get(id)) === toDemandKey(demands.get(id)));
      demands = next;
      rounds += 1;
    }
    // 4 the looms as they are built, and the sums on them
    const { looms, power } = planAll(demands, true);
    return { looms, power: { ...power, rounds, settled } };
  };
}

/** The plan of a whole job, computed from nothing. */
export function plan(job: Job, catalogue: Catalogue): JobPlan {
  return createPlanner(catalogue)(job);
}

const toDemandKey = (asked: ReadonlyMap<string, { conductor: { size: string }; because: string }> | undefined) =>
  asked ? [...asked].map(([wireId, { conductor, because }]) => `${wireId} ${conductor.size} ${because}`).join(';') : '';

/** Remembers the last results for an id by the identity of the inputs and a key. */
function createMemory<T>(most: number) {
  const kept = new Map<string, { inputs: unknown[]; key: string; value: T }[]>();
  return (id: string, inputs: unknown[], key: string, make: () => T): T => {
    const list = kept.get(id) ?? [];
    const at = list.findIndex((one) => one.key === key && one.inputs.every((input, index) => input === inputs[index]));
    const found = at === -1 ? { inputs, key, value: make() } : list[at]!;
    kept.set(id, [found, ...list.filter((one) => one !== found)].slice(0, most));
    return found.value;
  };
}
