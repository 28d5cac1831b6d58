import type { ShopStandard } from '../../catalogue';
import type { Job } from '../../model';
import type { RoutedLoom } from '../routeLoom';
import type { LoomPlan, SizedWire } from '../types';
import { chooseDemands, type Asked, type CopperStore, type Demands, type Stage } from './chooseDemands';
import { chooseProtections, listGuards } from './chooseProtections';
import { toPinKey, type Grid } from './createGrid';
import type { Flows } from './measureFlows';
import { listBudgets } from './listBudgets';
import { measureLoads, toPlannedLoad, type GridWire, type MeasuredLoad } from './measureLoads';
import { traceWays } from './traceWays';
import type { PlannedNet, PlannedProtection, PowerPlan } from './types';

/** What flows in the wires of one loom, in the order of its wires: given to its plan, so that a plan changes only when this does. */
export interface LoomFlow {
  rmsA: number[];
  peakA: number;
  designA: number | null;
  protectionId: string | null;
  /** its protection is a fuse, which lets a small overload pass for minutes */
  isFused: boolean;
}

/** Flow of every wire of a loom, by wire id. */
export function listLoomFlows(grid: Grid, flows: Flows): Map<string, Map<string, LoomFlow>> {
  const guards = listGuards(grid, flows);
  const result = new Map<string, Map<string, LoomFlow>>();
  grid.edges.forEach(({ a, wire }, index) => {
    if (!wire) return;
    const ofLoom = result.get(wire.loomId) ?? new Map<string, LoomFlow>();
    result.set(wire.loomId, ofLoom);
    const current = flows.edges[index];
    const rmsA = current?.rms ?? flows.modeIds.map(() => 0);
    let most = 0;
    for (const value of rmsA) if (value > most) most = value;
    const net = grid.nets[grid.netOf[a]!]!;
    const draws = net.kind === 'supply' || net.kind === 'power-ground' || net.kind === 'output';
    ofLoom.set(wire.wireId, {
      rmsA,
      peakA: most === 0 ? 0 : Math.max(0, ...(current?.peak ?? [])),
      designA: flows.unknownBeyond[index]! > 0 || (draws && most === 0) ? null : most,
      protectionId: guards[grid.netOf[a]!]?.id ?? null,
      isFused: guards[grid.netOf[a]!]?.kind === 'fuse',
    });
  });
  return result;
}

/** A loom as far as its wires are sized: what the sums of the vehicle take from it. */
export interface SizedLoom extends Pick<LoomPlan, 'loomId' | 'bundles' | 'coverings' | 'heats' | 'currents'> {
  wires: readonly SizedWire[];
  /** of each wire */
  lengthsMm: readonly number[];
}

/** Sums of the vehicle, the wires as they are sized now; what they ask of the sizes, and the plan, found when asked for. */
export interface PoweredLooms {
  protections: readonly PlannedProtection[];
  loads: readonly MeasuredLoad[];
  /** before: of the round before */
  ask: (before: Demands, stage: Stage) => Asked;
  write: (numberOf: (loomId: string, wireId: string) => string) => Omit<PowerPlan, 'rounds' | 'settled' | 'copper'>;
}

/** The sums of a whole vehicle as it is wired: for looms as they are sized at one time or another. */
export function createPower(
  job: Job,
  grid: Grid,
  flows: Flows,
  routes: readonly RoutedLoom[],
  standard: ShopStandard,
  store: CopperStore,
): (looms: readonly SizedLoom[]) => PoweredLooms {
  const ways = traceWays({ job, grid, flows, standard });
  const budgets = listBudgets(ways);
  const modes = flows.modeIds.map((id) => job.modes[id]!);
  // the wires are the first edges of the grid, loom by loom, in their order
  const ranges = routes.flatMap((one) => one.ranges);
  const edgeOf = new Map<string, Map<string, number>>();
  let edge = 0;
  for (const { loomId, wires } of routes) edgeOf.set(loomId, new Map(wires.map(({ id }) => [id, edge++])));
  const guarded = new Map<string, number[]>();
  listGuards(grid, flows).forEach((guard, net) => {
    if (guard === null) return;
    for (const node of grid.nets[net]!.nodes)
      for (const at of grid.at[node]!) {
        const { a, wire } = grid.edges[at]!;
        if (wire && a === node) push(guarded, guard.id, at);
      }
  });
  for (const edges of guarded.values()) edges.sort((a, b) => a - b);
  return (looms) => {
    const wires: GridWire[] = [];
    for (const { loomId, wires: ofLoom, lengthsMm, currents } of looms)
      ofLoom.forEach((wire, index) => {
        const current = currents[index]!;
        const runningC = current.runningC ?? standard.unknownZoneC;
        wires.push({ loomId, wire, lengthMm: lengthsMm[index]!, runningC, current, range: ranges[wires.length]! });
      });
    const loads = measureLoads(ways, wires, job);
    const protections = chooseProtections({ job, grid, flows, standard, wires, guarded }, loads);
    return {
      protections,
      loads,
      ask: (before, stage) => chooseDemands({ looms, wires, edgeOf, budgets, protections, guarded, standard, store }, before, stage),
      write: (numberOf) => ({
        modeIds: flows.modeIds,
        nets: listNets(grid, flows),
        loads: loads.map((load) => toPlannedLoad(load, wires, numberOf, modes)),
        protections,
        sourceA: measureSource(grid, flows),
      }),
    };
  };
}

function push<K>(lists: Map<K, number[]>, key: K, value: number): void {
  const list = lists.get(key);
  if (list) list.push(value);
  else lists.set(key, [value]);
}

function listNets(grid: Grid, flows: Flows): PlannedNet[] {
  const pinOf = (node: number) => grid.nodes[node]!.pins[0]!;
  const voltsOf = (index: number, seen: Set<number>): number | null => {
    const { root, fedBy } = flows.nets[index]!;
    if (root === null || seen.has(index)) return null;
    const own = grid.nodes[root]!.offer?.volts ?? null;
    if (fedBy === null) return own;
    const before = grid.nodeOfPin.get(toPinKey(fedBy.a));
    return own ?? (before === undefined ? null : voltsOf(grid.netOf[before]!, seen.add(index)));
  };
  return grid.nets.map(({ id, circuits, kind }, index) => {
    const { root, feeds, fedBy, current, unknown } = flows.nets[index]!;
    return {
      id,
      circuits,
      kind,
      root: root === null ? null : pinOf(root),
      feeds: feeds.map(pinOf),
      fedBy: fedBy?.id ?? null,
      volts: voltsOf(index, new Set()),
      rmsA: current.rms,
      unknown,
    };
  });
}

function measureSource(grid: Grid, flows: Flows): PowerPlan['sourceA'] {
  const index = flows.nets.findIndex(({ root }) => root !== null && grid.nodes[root]!.offer?.can.includes('battery-positive'));
  if (index === -1) return null;
  const { peak, mean } = flows.nets[index]!.current;
  return { peak, mean };
}
