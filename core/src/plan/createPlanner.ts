import type { Catalogue, ShopStandard } from '../catalogue';
import type { Job } from '../model';
import { compareIds, createMemory } from '../units';
import type { SizeDemand } from './chooseConductors';
import { findStandard } from './findStandard';
import { keepRoute, type KeptRoute } from './keepRoute';
import {
  buildLoom,
  draftLengths,
  measureLoom,
  planLoom,
  type BuiltLoom,
  type LoomContext,
  type MeasuredLoom,
  type PlanStore,
  createPlanStore,
} from './planLoom';
import { isSameDemand, type Copper, type Demands } from './power/chooseDemands';
import { createGrid } from './power/createGrid';
import { createPower, joinVehicle, type PoweredLooms } from './power/createPower';
import type { Flows } from './power/flows';
import { listContactFloors } from './power/listContactFloors';
import { isSameFlows, listLoomFlows, type LoomFlow } from './power/listLoomFlows';
import type { SizedLoom } from './power/sizedLoom';
import { routeLoom, type RoutedLoom } from './routeLoom';
import type { JobPlan, LoomPlan, RunWire, WireEnd } from './types';

export type Planner = (job: Job) => JobPlan;

const MOST_ROUNDS = 8;
/** rounds in which drop, heat and fuses all choose anew */
const FRESH_ROUNDS = 2;
/** rounds in which the drop still chooses anew, around what heat and fuses asked for; later all only add, so that the rounds come to an end */
const EARLY_ROUNDS = 3;
/** share of each limit that slimming a draft uses: its lengths and warmth are not quite those of the loom as built */
const DRAFT_KEEP = 0.995;
/** what comes out over a limit keeps to so much less of it each time, so often */
const TIGHTER = 0.01;
const SLIM_ROUNDS = 5;
const NONE: ReadonlyMap<string, SizeDemand> = new Map();
const MOST_KEPT = 12;

/**
 * A planner for one catalogue. It remembers what it packed and the last plans of each loom, so that an edit recomputes only
 * the looms it touched; what it returns is the same as a new planner would (a seeded test holds it to that).
 */
export function createPlanner(catalogue: Catalogue): Planner {
  const store = createPlanStore();
  const routed = createMemory<RoutedLoom>(2);
  const kept = new Map<string, KeptRoute>();
  const joined = createMemory<JoinedLooms>(2);
  // an edit that changes no wire's ends leaves the joins as they are
  const wiresOf = new Map<string, readonly RunWire[]>();
  const toKnown = (loomId: string, wires: readonly RunWire[]) => {
    const before = wiresOf.get(loomId);
    if (before && isSameWiring(before, wires)) return before;
    wiresOf.set(loomId, wires);
    return wires;
  };
  const lengths = createMemory<number[]>(4);
  const drafted = createMemory<MeasuredLoom>(MOST_KEPT);
  const builds = createMemory<BuiltLoom>(2);
  const planned = createMemory<LoomPlan>(2);
  return (job) => {
    const standard = findStandard(job, catalogue);
    const loomIds = Object.keys(job.looms).sort(compareIds);
    // 1 route: each loom by itself, wires and splices without sizes
    const routes = loomIds.map((loomId) =>
      routed(loomId, [job.looms[loomId], job.zones, job.families, standard], () => {
        const loom = job.looms[loomId]!;
        const route = keepRoute(routeLoom(job, loomId, catalogue, standard), loom, kept.get(loomId));
        kept.set(loomId, { loom, route });
        return route;
      }),
    );
    // 2 join: what flows in every wire of the whole vehicle, whatever its size
    const inputs: unknown[] = [job.devices, job.mates, job.modes, job.source, job.zones, job.families, job.deviceTemplates, standard];
    for (const { loomId, wires } of routes)
      inputs.push(loomId, job.looms[loomId]!.ends, job.looms[loomId]!.circuits, toKnown(loomId, wires));
    const { flows, ofLooms, power } = joined('', inputs, () => joinLooms(job, routes, catalogue, standard, store));
    const looms = routes.map((route): LoomContext & { inputs: unknown[] } => {
      const loomFlows = ofLooms.get(route.loomId)!;
      return {
        ...{ job, routed: route, flows: loomFlows, modeIds: flows.modeIds, catalogue, standard, store },
        inputs: [job.looms[route.loomId], job.zones, job.families, standard, job.openItems],
      };
    });
    let demands: Demands = new Map();
    const demandsOf = (loomId: string) => demands.get(loomId) ?? NONE;
    const measureLengths = () =>
      looms.map(({ inputs, ...context }) => {
        const { loomId } = context.routed;
        return lengths(loomId, inputs, () => draftLengths(context));
      });
    const draft = (lengthsMm: readonly number[][]) =>
      looms.map((context, index) => {
        const { loomId } = context.routed;
        // a draft asks what lies where, not how long it is: most edits of lengths find it as it was
        const { circuits, ends } = job.looms[loomId]!;
        const of = [circuits, ends, job.zones, job.families, standard, context.routed.shape, context.flows, toDemandKey(demandsOf(loomId))];
        const measured = drafted(loomId, of, () => measureLoom(context, demandsOf(loomId), true));
        return { ...measured, loomId, lengthsMm: lengthsMm[index]! };
      });
    const build = () =>
      looms.map(({ inputs, ...context }) => {
        const { loomId } = context.routed;
        const of = [...inputs, context.flows, toDemandKey(demandsOf(loomId))];
        return builds(loomId, of, () => buildLoom(context, demandsOf(loomId)));
      });
    // 3 size: draft the looms, sum the vehicle, thicken what it asks for, until nothing is asked any more
    let rounds = 0;
    let measureCopper = (): Copper => ({ massG: 0, oneSizeMassG: 0, alikeG: 0 });
    const askMore = (sums: PoweredLooms) => {
      rounds += 1;
      const next = sums.ask(demands, rounds <= FRESH_ROUNDS ? 'fresh' : rounds <= EARLY_ROUNDS ? 'fitting' : 'adding');
      const isSame = loomIds.every((id) => isSameDemand(next.demands.get(id), demands.get(id)));
      ({ demands, measureCopper } = next);
      return isSame;
    };
    // where nothing flows nothing can be asked
    let settled = !hasCurrent(flows);
    const settle = (lengthsMm: readonly number[][], mostRounds: number) => {
      settled = false;
      for (let round = 0; !settled && round < mostRounds && rounds < MOST_ROUNDS; round += 1) settled = askMore(power(draft(lengthsMm)));
    };
    // thick conductors are stripped longer, so lengths hang on sizes; what that comes to shows on the looms as built
    const lengthsMm = settled ? [] : measureLengths();
    if (!settled) settle(lengthsMm, MOST_ROUNDS);
    // what was asked for on the way and is no more need not be built
    // what was short before it was built, and no size mends
    let countDraftShort = () => 0;
    if (loomIds.some((id) => demandsOf(id).size > 0)) {
      const drafts = draft(lengthsMm);
      const sums = power(drafts);
      countDraftShort = () => listShort(drafts, sums, standard).length;
      ({ demands } = sums.slim(demands, new Map([['', DRAFT_KEEP]])));
    }
    // 4 the looms as they are built, and the sums on them; where a bundle came out warmer or a wire longer than its draft, once more
    let built = build();
    let sums = power(built);
    const isShort = (short: number) => short > 0 && short > countDraftShort();
    while (isShort(listShort(built, sums, standard).length) && rounds < MOST_ROUNDS && !askMore(sums)) {
      built = build();
      sums = power(built);
    }
    // 5 slim: what was asked for on the way and is no more; what then falls short as built keeps to less of its limit, else all stays
    let copper = measureCopper();
    const full = { demands, built, sums };
    const known = new Set(listShort(built, sums, standard));
    const tight = new Map<string, number>();
    for (let round = 0; ; round += 1) {
      const slimmed = full.sums.slim(full.demands, tight);
      demands = slimmed.demands;
      built = build();
      sums = built.every((loom, index) => loom === full.built[index]) ? full.sums : power(built);
      copper = { ...slimmed.measureCopper(), oneSizeMassG: copper.oneSizeMassG };
      const short = listShort(built, sums, standard).filter((one) => !known.has(one));
      if (short.length === 0) break;
      if (round === SLIM_ROUNDS) {
        ({ demands, built, sums } = full);
        break;
      }
      for (const one of short) tight.set(one, (tight.get(one) ?? 1) - TIGHTER);
    }
    // 6 the plans of the looms: what is left that no sum asks for
    const plans = looms.map((context, index) => {
      const loom = built[index]!;
      const asked = demandsOf(loom.loomId);
      const reasons = [...asked.values()].map(({ because }) => because);
      return planned(loom.loomId, [loom, ...reasons], () => withReasons(planLoom(context, loom, asked), asked));
    });
    const numbers = new Map(plans.map(({ loomId, wires }) => [loomId, new Map(wires.map(({ id, number }) => [id, number]))]));
    const written = sums.write((loomId, wireId) => numbers.get(loomId)!.get(wireId)!);
    return { looms: plans, power: { ...written, copper, rounds, settled } };
  };
}

interface JoinedLooms {
  flows: Flows;
  /** flow of every wire, by loom */
  ofLooms: ReadonlyMap<string, ReadonlyMap<string, LoomFlow>>;
  power: (looms: readonly SizedLoom[]) => PoweredLooms;
}

function joinLooms(job: Job, routes: readonly RoutedLoom[], catalogue: Catalogue, standard: ShopStandard, store: PlanStore): JoinedLooms {
  const grid = createGrid(job, catalogue, routes);
  const vehicle = joinVehicle(job, grid, standard);
  const { flows } = vehicle;
  const byLoom = listLoomFlows(grid, flows, vehicle.ways, vehicle.edgeGuards);
  const contactFloors = listContactFloors(job, routes, byLoom, catalogue, standard);
  const ofLooms = new Map(
    routes.map(({ loomId }) => {
      const ofLoom = byLoom.get(loomId) ?? new Map<string, LoomFlow>();
      const before = store.flows.get(loomId);
      // one that is as it was stays the same object: what was made of it holds
      const kept = before && isSameFlows(before, flows.modeIds, ofLoom) ? before.flows : ofLoom;
      store.flows.set(loomId, { modeIds: flows.modeIds, flows: kept });
      return [loomId, kept];
    }),
  );
  return { flows, ofLooms, power: createPower(vehicle, routes, contactFloors, standard, store.copper) };
}

const isSameEnd = (a: WireEnd, b: WireEnd) =>
  a.kind === 'cavity'
    ? b.kind === 'cavity' && a.endId === b.endId && a.cavity === b.cavity
    : b.kind === 'splice' && a.spliceId === b.spliceId;

const isSameWiring = (before: readonly RunWire[], wires: readonly RunWire[]) =>
  before.length === wires.length &&
  wires.every(({ id, circuitId, from, to }, index) => {
    const known = before[index]!;
    return known.id === id && known.circuitId === circuitId && isSameEnd(known.from, from) && isSameEnd(known.to, to);
  });

/** The plan of a whole job, computed from nothing. */
export function plan(job: Job, catalogue: Catalogue): JobPlan {
  return createPlanner(catalogue)(job);
}

/** A plan with the reasons of its sizes as they are now: their figures move with every edit, the sizes seldom do. */
function withReasons(loom: LoomPlan, demands: ReadonlyMap<string, SizeDemand>): LoomPlan {
  const isStale = ({ id, ruledBy, because }: LoomPlan['wires'][number]) => {
    const demand = demands.get(id);
    return demand !== undefined && demand.ruledBy === ruledBy && demand.because !== because;
  };
  if (!loom.wires.some(isStale)) return loom;
  return { ...loom, wires: loom.wires.map((wire) => (isStale(wire) ? { ...wire, because: demands.get(wire.id)!.because } : wire)) };
}

/** What is short: fuses over a wire by id, budgets passed by the load's name, bundles too warm by loom and segment. */
const listShort = (
  looms: readonly Pick<LoomPlan, 'loomId' | 'heats'>[],
  { findProtections, findLoads }: PoweredLooms,
  { heatMarginK }: ShopStandard,
): string[] => [
  ...findProtections().flatMap(({ id, problems }) => (problems.includes('over-wire') || problems.includes('short-time') ? [id] : [])),
  ...findLoads().flatMap(({ load, dropV }) => (dropV > load.budgetV ? [load.name] : [])),
  ...looms.flatMap(({ loomId, heats }) =>
    heats.flatMap(({ segmentId, middleC, limitC, wattsPerM }) =>
      limitC !== null && wattsPerM !== 0 && (middleC === null || middleC > limitC - heatMarginK) ? [`${loomId}/${segmentId}`] : [],
    ),
  ),
];

const hasCurrent = ({ edges }: Flows) => edges.some((one) => one !== null && one.on.some((value) => value > 0));

const toDemandKey = (asked: ReadonlyMap<string, SizeDemand>) =>
  [...asked].map(([wireId, { conductor, ruledBy }]) => `${wireId} ${conductor.size} ${ruledBy}`).join(';');
