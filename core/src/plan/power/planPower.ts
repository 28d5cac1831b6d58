import type { ShopStandard } from '../../catalogue';
import type { Job } from '../../model';
import type { SizeRange } from '../createSizes';
import type { LoomPlan, RunWire } from '../types';
import { chooseDemands, type Demands } from './chooseDemands';
import { chooseProtections, listGuards, type GuardedWire } from './chooseProtections';
import { toPinKey, type Grid } from './createGrid';
import type { Flows } from './measureFlows';
import { tracePaths, type TracedWire } from './tracePaths';
import type { PlannedNet, PowerPlan } from './types';

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

/** Sums of the vehicle, and what they ask of the sizes: found when asked for. */
export interface PoweredLooms {
  power: Omit<PowerPlan, 'rounds' | 'settled' | 'copper'>;
  /** before: of the round before */
  ask: (before: Demands) => { demands: Demands; copper: PowerPlan['copper'] };
}

/** The sums of the whole vehicle for looms as they are sized now. Of a draft the nets are not listed. */
export function planPower(
  job: Job,
  grid: Grid,
  flows: Flows,
  looms: readonly LoomPlan[],
  sizes: ReadonlyMap<string, (wire: RunWire) => SizeRange>,
  isDraft: boolean,
  standard: ShopStandard,
): PoweredLooms {
  const wires = new Map<string, TracedWire>();
  const guarded = new Map<string, GuardedWire[]>();
  for (const { loomId, wires: ofLoom, currents } of looms)
    ofLoom.forEach((wire, index) => {
      const current = currents[index]!;
      wires.set(`${loomId}/${wire.id}`, { loomId, wire, runningC: current.runningC });
      if (current.protectionId === null) return;
      const list = guarded.get(current.protectionId) ?? [];
      guarded.set(current.protectionId, list);
      list.push({
        loomId,
        wireId: wire.id,
        circuitId: wire.circuitId,
        areaMm2: wire.conductor.areaMm2,
        shortC: standard.insulationShortC[wire.conductor.table],
        current,
      });
    });
  const { loads, twins } = tracePaths({ job, grid, flows, wires, standard });
  const protections = chooseProtections({ job, grid, flows, standard, loads, guarded });
  return {
    power: {
      modeIds: flows.modeIds,
      nets: isDraft ? [] : listNets(grid, flows),
      loads,
      protections,
      sourceA: measureSource(grid, flows),
    },
    ask: (before) => chooseDemands({ looms, wires, sizes, loads, twins, protections, guarded, standard, before }),
  };
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
