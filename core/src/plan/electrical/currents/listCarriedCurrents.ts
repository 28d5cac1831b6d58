import { compareIds, pushTo } from '../../../units';
import { isGuard, listGuards, toOutsideId } from '../protection/chooseProtections';
import { mostOf } from './currents';
import type { VehicleCurrents } from './vehicleCurrents';
import { findWorst, listInrushes } from '../transient/listInrushes';
import type { CurrentPaths, ReturnPath } from './currentPaths';
import type { Netlist, SwitchgearLink } from '../../../netlist';

/** What flows in the wires of one loom, in the order of its wires: given to its plan, so that a plan changes only when this does. */
export interface CarriedCurrent {
  /** on-current by mode, A */
  onA: number[];
  /** the same as its bundles feel it, A */
  heatA: number[];
  /** largest on-current, A; null: not known */
  designA: number | null;
  /** largest for a moment, A */
  inrushA: number;
  /** fuses and channels behind which a fault can load it */
  guardIds: readonly string[];
  /** one of them is a fuse, which lets a small overload pass for minutes */
  isFused: boolean;
}

/** Flows of the wires of a loom by wire, and the modes that they are in. */
export interface CarriedCurrents {
  modeIds: readonly string[];
  flows: ReadonlyMap<string, CarriedCurrent>;
}

const isSameList = <T>(one: readonly T[], other: readonly T[]) =>
  one.length === other.length && one.every((value, at) => value === other[at]);

/** Does the same flow in the same wires as before? */
export function isSameCarried(before: CarriedCurrents, modeIds: readonly string[], flows: ReadonlyMap<string, CarriedCurrent>): boolean {
  if (before.flows.size !== flows.size || !isSameList(before.modeIds, modeIds)) return false;
  const known = before.flows.entries();
  for (const [wireId, flow] of flows) {
    const [id, was] = known.next().value!;
    const isSame =
      id === wireId &&
      was.designA === flow.designA &&
      was.inrushA === flow.inrushA &&
      was.isFused === flow.isFused &&
      isSameList(was.onA, flow.onA) &&
      isSameList(was.heatA, flow.heatA) &&
      isSameList(was.guardIds, flow.guardIds);
    if (!isSame) return false;
  }
  return true;
}

/**
 * Protections behind which a fault can load each edge of the netlist (calculations 5): a feed and its splice legs stand behind the one that
 * feeds their net; what a load returns by stands behind the one nearest to that load, for a short inside the load sends the fault home
 * that way.
 */
export function listEdgeGuards(
  netlist: Netlist,
  flows: VehicleCurrents,
  ways: readonly CurrentPaths[],
): ReadonlyMap<number, readonly string[]> {
  const sets = new Map<number, Set<string>>();
  const add = (edge: number, id: string) => {
    if (!netlist.edges[edge]!.wire) return;
    const set = sets.get(edge);
    if (set) set.add(id);
    else sets.set(edge, new Set([id]));
  };
  const guards = listGuards(netlist, flows);
  netlist.edges.forEach(({ a }, edge) => {
    const net = netlist.netOf[a]!;
    const { root, isOutside } = flows.nets[net]!;
    const guard = guards[net];
    if (guard) add(edge, guard.id);
    else if (isOutside && netlist.nets[net]!.kind === 'supply') add(edge, toOutsideId(netlist.nodes[root!]!.pins[0]!));
  });
  const kinds = new Map(netlist.links.map((link) => [link.id, link]));
  for (const { load, back } of ways) {
    if (load.load === 'feed' || back === null) continue;
    const nearest = load.linkIds.findLast((id) => isGuard(kinds.get(id)!));
    const net = netlist.netOf[findNode(netlist, load.pin)]!;
    const id = nearest ?? (load.isOutside ? toOutsideId(netlist.nodes[flows.nets[net]!.root!]!.pins[0]!) : undefined);
    if (id !== undefined) walkWay(back, 1, ({ edge }) => edge !== -1 && add(edge, id));
  }
  return new Map([...sets].map(([edge, set]) => [edge, [...set].sort(compareIds)]));
}

const findNode = (netlist: Netlist, { loomId, endId, cavity }: CurrentPaths['load']['pin']) =>
  netlist.nodeOfPin.get(`${loomId}/${endId}/${cavity}`)!;

/** Every step of a way back with the share of the current that takes it. */
function walkWay(way: ReturnPath, share: number, visit: (step: ReturnPath['steps'][number], share: number) => void): void {
  for (const step of way.steps) visit(step, share);
  for (const next of way.next) walkWay(next, share / way.next.length, visit);
}

/** Loads whose current passes each edge, with the share of it that does. */
function listEdgeLoads(ways: readonly CurrentPaths[]): Map<number, { ways: CurrentPaths; share: number }[]> {
  const loads = new Map<number, { ways: CurrentPaths; share: number }[]>();
  for (const one of ways) {
    if (one.load.load === 'feed') continue;
    const shares = new Map<number, number>();
    const visit = ({ edge }: { edge: number }, share: number) => edge !== -1 && shares.set(edge, (shares.get(edge) ?? 0) + share);
    for (const step of one.out) visit(step, 1);
    if (one.back) walkWay(one.back, 1, visit);
    for (const [edge, share] of shares) pushTo(loads, edge, { ways: one, share });
  }
  return loads;
}

/** Flow of every wire of a loom, by wire id. */
export function listCarriedCurrents(
  netlist: Netlist,
  flows: VehicleCurrents,
  ways: readonly CurrentPaths[],
  edgeGuards: ReadonlyMap<number, readonly string[]>,
): Map<string, Map<string, CarriedCurrent>> {
  const result = new Map<string, Map<string, CarriedCurrent>>();
  const kinds = new Map<string, SwitchgearLink['kind']>(netlist.links.map(({ id, kind }) => [id, kind]));
  const edgeLoads = listEdgeLoads(ways);
  const none = flows.modeIds.map(() => 0);
  netlist.edges.forEach(({ a, wire }, index) => {
    if (!wire) return;
    const ofLoom = result.get(wire.loomId) ?? new Map<string, CarriedCurrent>();
    result.set(wire.loomId, ofLoom);
    const current = flows.edges[index];
    const most = current ? mostOf(current.on) : 0;
    const net = netlist.nets[netlist.netOf[a]!]!;
    const draws = net.kind === 'supply' || net.kind === 'power-ground' || net.kind === 'output';
    const guardIds = edgeGuards.get(index) ?? NOTHING;
    const loads = edgeLoads.get(index);
    ofLoom.set(wire.wireId, {
      onA: current?.on ?? none,
      heatA: current?.heat ?? none,
      designA: flows.unknownBeyond[index]! > 0 || (draws && most === 0) ? null : most,
      inrushA: loads ? Math.max(most, findWorst(listInrushes(loads, most, null, kinds)).currentA) : most,
      guardIds,
      isFused: guardIds.some((id) => kinds.get(id) !== 'channel'),
    });
  });
  return result;
}

const NOTHING: readonly string[] = [];
