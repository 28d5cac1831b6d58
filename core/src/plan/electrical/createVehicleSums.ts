import type { ShopStandard } from '../../catalogue';
import type { Job } from '../../model';
import { createMemory, once, pushTo } from '../../units';
import type { MinimumSize } from '../size/chooseConductors';
import type { RoutedLoom } from '../route/routeLoom';
import { chooseMinimumSizes, type CopperStore, type Stage } from './copper/chooseMinimumSizes';
import type { MinimumSizes } from './copper/minimumSizes';
import {
  chooseProtections,
  listOverWires,
  createGuardedWires,
  rateLinks,
  type GuardedWires,
  rateOutsideFeeds,
  type RatedLink,
} from './protection/chooseProtections';
import type { VehicleCurrents } from './currents/vehicleCurrents';
import { listBanks } from './copper/listBanks';
import { listBudgets } from './drop/listBudgets';
import { listEdgeGuards } from './currents/listCarriedCurrents';
import { measureCurrents } from './currents/measureCurrents';
import { createLoadMeter, listResistances, type NetlistWire, type MeasuredLoad } from './drop/measureLoads';
import { createLoadWriter } from './drop/writeLoads';
import type { SizedLoom } from './sizedLoom';
import { listStates } from './switching/listStates';
import { measureOneSize } from './copper/measureOneSize';
import { measureCopper, slimMinimumSizes, type Slimmed, type TightLimits } from './copper/slimMinimumSizes';
import type { CurrentPaths } from './currents/currentPaths';
import { listCurrentPaths } from './currents/listCurrentPaths';
import type { PlannedNet, PlannedProtection, PowerPlan } from './types';
import { type Netlist, toPinKey } from '../../netlist';

/** Sums of the vehicle, the wires as they are sized now; what they ask of the sizes, and the plan, found when asked for. */
export interface VehicleSums {
  findProtections: () => readonly PlannedProtection[];
  findLoads: () => readonly MeasuredLoad[];
  /** ids of the protections whose wires bear too little, found without the loads */
  listOverWires: () => readonly string[];
  /** does the way of a load lose more than its budget: of one without the others; by its name */
  isOverBudget: (name: string) => boolean;
  /** before: of the round before */
  ask: (before: MinimumSizes, stage: Stage) => MinimumSizes;
  /** thinner wherever nothing that is printed asks for the size */
  slim: (before: MinimumSizes, tight: TightLimits) => Slimmed;
  /** copper with these sizes, as they are */
  measureCopper: (minimums: MinimumSizes) => ReturnType<Slimmed['measureCopper']>;
  /** copper with one size throughout each group of budgets, g */
  measureOneSize: (minimums: MinimumSizes) => number;
  write: (numberOf: (loomId: string, wireId: string) => string) => Omit<PowerPlan, 'rounds' | 'settled' | 'copper'>;
}

/** A vehicle as it is wired, before any size: what flows where, and what rates and protects it. */
export interface JoinedVehicle {
  job: Job;
  netlist: Netlist;
  flows: VehicleCurrents;
  ways: readonly CurrentPaths[];
  rated: readonly RatedLink[];
  outside: readonly RatedLink[];
  /** protections behind which a fault can load each edge */
  edgeGuards: ReadonlyMap<number, readonly string[]>;
}

/** Follow every current of a vehicle, and rate what protects and switches it. */
export function joinVehicle(job: Job, netlist: Netlist, standard: ShopStandard): JoinedVehicle {
  const flows = measureCurrents(job, netlist, standard);
  const traced = listCurrentPaths({ job, netlist, flows, standard });
  const rated = rateLinks(job, netlist, flows, traced, standard);
  const outside = rateOutsideFeeds(job, netlist, flows, traced, standard);
  const ways = traced.map((one) => ({ ...one, out: rateFuses(one.out, rated, standard) }));
  return { job, netlist, flows, ways, rated, outside, edgeGuards: listEdgeGuards(netlist, flows, ways) };
}

/** The fuses of a way with the resistance that their rating gives them: a small fuse drops more (calculations 3). */
function rateFuses(steps: CurrentPaths['out'], rated: readonly RatedLink[], { fuseFullV }: ShopStandard): CurrentPaths['out'] {
  return steps.map((step) => {
    const link = step.linkId === null ? undefined : rated.find(({ id }) => id === step.linkId);
    if (link?.kind !== 'fuse') return step;
    // one that has no rating yet counts as large as it has to be
    const ratingA = link.ratingA ?? Math.max(link.maxA ?? 0, link.loadA);
    return ratingA > 0 ? { ...step, milliohm: (1000 * fuseFullV) / ratingA } : step;
  });
}

/** The sums of a whole vehicle as it is wired: for looms as they are sized at one time or another. */
export function createVehicleSums(
  { job, netlist, flows, ways, rated, outside, edgeGuards }: JoinedVehicle,
  routes: readonly RoutedLoom[],
  contactFloors: ReadonlyMap<number, MinimumSize>,
  standard: ShopStandard,
  store: CopperStore,
): (looms: readonly SizedLoom[]) => VehicleSums {
  const budgets = listBudgets(ways);
  // the wires are the first edges of the netlist, loom by loom, in their order
  const ranges = routes.flatMap((one) => one.ranges);
  const edgeOf = new Map<string, Map<string, number>>();
  let edge = 0;
  for (const { loomId, wires } of routes) edgeOf.set(loomId, new Map(wires.map(({ id }) => [id, edge++])));
  const guarded = new Map<string, number[]>();
  for (const [at, ids] of edgeGuards) for (const id of ids) pushTo(guarded, id, at);
  for (const edges of guarded.values()) edges.sort((a, b) => a - b);
  const banks = listBanks(job, netlist, edgeOf);
  const links = [...rated, ...outside];
  const fuses = new Set(netlist.links.flatMap(({ id, kind }) => (kind === 'fuse' ? [id] : [])));
  const sourceA = measureSource(netlist, flows);
  const writeLoads = createLoadWriter(ways);
  // whatever its sizes, a vehicle has the same nets: what was made of them holds
  const findNets = once(() => listNets(netlist, flows));
  const findStates = once(() => listStates(job, netlist, flows.live));
  const guardedWires = createMemory<GuardedWires>(MOST_GUARDED);
  return (looms) => {
    const wires: NetlistWire[] = [];
    for (const { loomId, wires: ofLoom, lengthsMm, currents } of looms)
      ofLoom.forEach((wire, index) => {
        const current = currents[index]!;
        const runningC = current.runningC ?? standard.unknownZoneC;
        wires.push({ loomId, wire, lengthMm: lengthsMm[index]!, runningC, current, range: ranges[wires.length]! });
      });
    // what wires bear hangs on their sizes and on how warm they get
    const findGuardedWires = () =>
      guardedWires('', [...looms.map(({ currents }) => currents), ...wires.map(({ wire }) => wire.conductor)], createGuardedWires);
    // a round of sizing asks for neither
    const toMilliohms = once(() => listResistances(wires));
    const toMeter = once(() => createLoadMeter(toMilliohms(), job.source));
    const findLoads = once(() => toMeter()(ways));
    const toGuards = once(() => ({ standard, wires, guarded, known: findGuardedWires() }));
    const findProtections = once(() => chooseProtections(links, toGuards(), findLoads()));
    const context = { looms, wires, edgeOf, budgets, contactFloors, banks, protections: links, guarded, standard, store };
    return {
      findProtections,
      findLoads,
      listOverWires: () => listOverWires(links, toGuards()),
      isOverBudget: (name) => toMeter()(ways.filter(({ load }) => load.name === name)).some(isOver),
      ask: (before, stage) => chooseMinimumSizes(context, before, stage),
      slim: (before, tight) => slimMinimumSizes(context, before, tight),
      measureCopper: (minimums) => measureCopper(context, minimums),
      measureOneSize: (minimums) => measureOneSize(budgets, wires, minimums),
      write: (numberOf) => ({
        modeIds: flows.modeIds,
        states: findStates(),
        nets: findNets(),
        loads: writeLoads(findLoads(), {
          milliohms: toMilliohms(),
          numbers: wires.map(({ loomId, wire }) => numberOf(loomId, wire.id)),
          source: job.source,
          sourceOnA: sourceA?.on ?? null,
        }),
        protections: findProtections().slice(0, rated.length),
        outside: findProtections().slice(rated.length),
        sourceA,
        unfused: measureUnfused(ways, fuses, wires, numberOf),
      }),
    };
  };
}

/** Looms as drafted and as built, and as they were before. */
const MOST_GUARDED = 4;

/** Does a load lose more on its way than it may? */
export const isOver = ({ load, dropV }: MeasuredLoad): boolean => dropV > load.budgetV;

/** The longest way from battery positive to its first fuse, starters apart: it carries the whole of what the battery can give in a short. */
function measureUnfused(
  ways: readonly CurrentPaths[],
  fuses: ReadonlySet<string>,
  wires: readonly NetlistWire[],
  numberOf: (loomId: string, wireId: string) => string,
): PowerPlan['unfused'] {
  let longest: PowerPlan['unfused'] = null;
  for (const { load, out, isBattery } of ways) {
    if (!isBattery || load.load === 'starter') continue;
    const fuse = out.findIndex(({ linkId }) => linkId !== null && fuses.has(linkId));
    const bare = (fuse === -1 ? out : out.slice(0, fuse)).filter((step) => step.edge !== -1);
    const lengthMm = bare.reduce((sum, step) => sum + wires[step.edge]!.lengthMm, 0);
    if (bare.length === 0 || (longest && lengthMm <= longest.lengthMm)) continue;
    longest = {
      lengthMm,
      words: bare.map((step) => `${numberOf(step.loomId!, step.wireId!)} ${step.words}`).join(', '),
      loomId: bare[0]!.loomId!,
      wireIds: bare.map((step) => step.wireId!),
    };
  }
  return longest;
}

function listNets(netlist: Netlist, flows: VehicleCurrents): PlannedNet[] {
  const pinOf = (node: number) => netlist.nodes[node]!.pins[0]!;
  const voltsOf = (index: number, seen: Set<number>): number | null => {
    const { root, fedBy } = flows.nets[index]!;
    if (root === null || seen.has(index)) return null;
    const own = netlist.nodes[root]!.offer?.volts ?? null;
    if (fedBy === null) return own;
    const before = netlist.nodeOfPin.get(toPinKey(fedBy.a));
    return own ?? (before === undefined ? null : voltsOf(netlist.netOf[before]!, seen.add(index)));
  };
  return netlist.nets.map(({ id, circuits, kind }, index) => {
    const { root: found, isOutside, feeds, fedBy, current, unknown } = flows.nets[index]!;
    const root = isOutside ? null : found;
    return {
      id,
      circuits,
      kind,
      root: root === null ? null : pinOf(root),
      feeds: feeds.map(pinOf),
      fedBy: fedBy?.id ?? null,
      volts: voltsOf(index, new Set()),
      outside: isOutside && found !== null ? pinOf(found) : null,
      onA: current.on,
      unknown,
    };
  });
}

function measureSource(netlist: Netlist, flows: VehicleCurrents): PowerPlan['sourceA'] {
  const index = flows.nets.findIndex(({ root }) => root !== null && netlist.nodes[root]!.offer?.can.includes('battery-positive'));
  if (index === -1) return null;
  const { on, mean } = flows.nets[index]!.current;
  return { on, mean };
}
