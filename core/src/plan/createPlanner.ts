import type { Catalogue, ShopStandard } from '../catalogue';
import type { Job } from '../model';
import { compareIds } from '../units';
import { findStandard } from './findStandard';
import { createHeatStore } from './heatStore';
import { planLoom, routeLoom, type PlanStore, type RoutedLoom } from './planLoom';
import type { SizeDemand } from './chooseConductors';
import type { Demands } from './power/chooseDemands';
import { createGrid } from './power/createGrid';
import { measureFlows, type Flows } from './power/measureFlows';
import { listLoomFlows, planPower, type LoomFlow, type PoweredLooms } from './power/planPower';
import type { JobPlan, LoomPlan } from './types';

export type Planner = (job: Job) => JobPlan;

const MOST_ROUNDS = 8;
const MOST_KEPT = 12;

/**
 * A planner for one catalogue. It remembers what it packed and the last plans of each loom, so that an edit recomputes only
 * the looms it touched; what it returns is the same as a new planner would (a seeded test holds it to that).
 */
export function createPlanner(catalogue: Catalogue): Planner {
  const store: PlanStore = { packings: new Map(), heats: createHeatStore() };
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
    const flowKeys = loomIds.map((loomId) => flows.modeIds.join() + toFlowKey(ofLooms.get(loomId)));
    const sizes = new Map(loomIds.map((loomId, index) => [loomId, routes[index]!.sizes]));
    const planAll = (demands: Demands, final: boolean) => {
      const looms = loomIds.map((loomId, index) => {
        const asked = demands.get(loomId) ?? new Map<string, SizeDemand>();
        const inputs = [job.looms[loomId], job.zones, job.families, job.standardId, job.openItems];
        const flow = ofLooms.get(loomId) ?? new Map<string, LoomFlow>();
        return (final ? planned : drafted)(loomId, inputs, flowKeys[index]! + toDemandKey(asked), () =>
          planLoom(job, routes[index]!, flow, flows.modeIds, asked, catalogue, standard, store, !final),
        );
      });
      return { looms, ...planPower(job, grid, flows, looms, sizes, !final, standard) };
    };
    // 3 size: draft the looms, sum the vehicle, thicken what it asks for, until nothing is asked any more
    let demands: Demands = new Map();
    let copper = { massG: 0, oneSizeMassG: 0 };
    let rounds = 0;
    // where nothing flows nothing can be asked
    let settled = !hasCurrent(flows);
    const askMore = (planned: PoweredLooms) => {
      const next = planned.ask(demands);
      const isSame = loomIds.every((id) => toDemandKey(next.demands.get(id)) === toDemandKey(demands.get(id)));
      ({ demands, copper } = next);
      rounds += 1;
      return isSame;
    };
    while (!settled && rounds < MOST_ROUNDS) settled = askMore(planAll(demands, false));
    // 4 the looms as they are built, and the sums on them; where a bundle came out warmer than its draft, once more
    let built = planAll(demands, true);
    while (isShort(built, standard) && rounds < MOST_ROUNDS && !askMore(built)) built = planAll(demands, true);
    return { looms: built.looms, power: { ...built.power, copper, rounds, settled } };
  };
}

/** The plan of a whole job, computed from nothing. */
export function plan(job: Job, catalogue: Catalogue): JobPlan {
  return createPlanner(catalogue)(job);
}

/** Is a fuse over its wire, or a bundle too warm? */
const isShort = ({ looms, power }: { looms: readonly LoomPlan[] } & PoweredLooms, { heatMarginK }: ShopStandard) =>
  power.protections.some(({ problems }) => problems.includes('over-wire') || problems.includes('short-time')) ||
  looms.some(({ heats }) =>
    heats.some(
      ({ middleC, limitC, wattsPerM }) => limitC !== null && wattsPerM !== 0 && (middleC === null || middleC > limitC - heatMarginK),
    ),
  );

const hasCurrent = ({ edges }: Flows) => edges.some((one) => one !== null && one.rms.some((value) => value > 0));

/** What is special about the flows of a loom; a wire that carries nothing and is known to is not written. */
function toFlowKey(flows: ReadonlyMap<string, LoomFlow> | undefined): string {
  let key = '';
  for (const [wireId, { rmsA, peakA, designA, protectionId }] of flows ?? [])
    if (designA !== 0 || peakA !== 0 || protectionId !== null) key += `;${wireId} ${rmsA.join()} ${peakA} ${designA} ${protectionId}`;
  return key;
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
