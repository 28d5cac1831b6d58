import type { ShopStandard } from '../../catalogue';
import type { Job } from '../../model';
import { toPinKey, type Grid, type GridLink, type PinPlace } from './createGrid';
import { chooseFuse, FUSE_RATINGS, measureDamage, measureOpening, measureSureOpening, measureFuseCarries } from './fuse';
import type { Flows } from './measureFlows';
import type { GridWire, MeasuredLoad } from './measureLoads';
import type { PlannedProtection, ProtectionProblem } from './types';

interface Context {
  job: Job;
  grid: Grid;
  flows: Flows;
  standard: ShopStandard;
  /** by edge of the grid */
  wires: readonly GridWire[];
  /** edges of the wires behind each protection, by link id */
  guarded: ReadonlyMap<string, readonly number[]>;
}

/** Which fuse or channel has to open for each net, by net index; null: none (calculations 5). */
export function listGuards(grid: Grid, flows: Flows): (GridLink | null)[] {
  const guards: (GridLink | null)[] = grid.nets.map(() => null);
  const find = (index: number, seen: Set<number>): GridLink | null => {
    const link = flows.nets[index]!.fedBy;
    if (link === null || seen.has(index)) return null;
    if (link.kind === 'fuse' || link.kind === 'channel') return link;
    const before = grid.nodeOfPin.get(toPinKey(link.a));
    return before === undefined ? null : find(grid.netOf[before]!, seen.add(index));
  };
  grid.nets.forEach((_, index) => (guards[index] = find(index, new Set())));
  return guards;
}

/** Rating of every fuse and channel: pinned, else the smallest that bears its load and inrush; and what is wrong with it. */
export function chooseProtections(context: Context, loads: readonly MeasuredLoad[]): PlannedProtection[] {
  const { links } = context.grid;
  const guarding = new Set(links.flatMap(({ id, kind }) => (kind === 'fuse' || kind === 'channel' ? [id] : [])));
  const behind = new Map<string, MeasuredLoad[]>(links.map(({ id }) => [id, []]));
  // a short beyond another fuse or channel is that one's to clear
  const faults = new Map<string, number>();
  for (const one of loads) {
    const { linkIds } = one.load;
    for (const id of linkIds) behind.get(id)!.push(one);
    const nearest = linkIds.findLast((id) => guarding.has(id));
    if (nearest !== undefined && one.faultA !== null) faults.set(nearest, Math.min(faults.get(nearest) ?? Infinity, one.faultA));
  }
  return links.map((link) => chooseProtection(context, link, behind.get(link.id)!, faults.get(link.id) ?? null));
}

function chooseProtection(
  { job, grid, flows, standard, wires, guarded }: Context,
  link: GridLink,
  behind: readonly MeasuredLoad[],
  leastFaultA: number | null,
): PlannedProtection {
  const node = grid.nodeOfPin.get(toPinKey(link.b));
  const netIndex = node === undefined ? null : grid.netOf[node]!;
  const net = netIndex === null || flows.nets[netIndex]!.fedBy?.id !== link.id ? null : flows.nets[netIndex]!;
  const rmsA = net?.current.rms ?? flows.modeIds.map(() => 0);
  const loadA = Math.max(0, ...rmsA);
  const inrush = behind.flatMap(({ load: { inrushA, inrushMs, currentA } }) =>
    inrushA === null || inrushMs === null ? [] : [{ currentA: Math.max(0, loadA - currentA) + inrushA, seconds: inrushMs / 1000 }],
  );
  const zoneId = job.devices[link.deviceId]!.zoneId;
  const ambientC = zoneId === null ? standard.unknownZoneC : (job.zones[zoneId]?.ambientC ?? standard.unknownZoneC);
  const guards = link.kind === 'fuse' || link.kind === 'channel';
  const tripS = link.kind === 'channel' ? standard.channelTripS : null;
  const { ratingA, because } = guards
    ? chooseRating(link, loadA, net?.unknown ?? 0, inrush, ambientC, standard)
    : { ratingA: null, because: 'it does not protect' };
  let weakest: PlannedProtection['weakest'] = null;
  for (const edge of guarded.get(link.id) ?? []) {
    const { steadyA } = wires[edge]!.current;
    if (steadyA !== null && (weakest === null || steadyA < weakest.steadyA)) weakest = toGuarded(wires[edge]!, standard);
  }
  const protection: PlannedProtection = {
    id: link.id,
    deviceId: link.deviceId,
    linkId: link.linkId,
    name: link.name,
    kind: link.kind,
    netId: net === null || netIndex === null ? null : grid.nets[netIndex]!.id,
    rmsA,
    loadA,
    inrushA: Math.max(0, ...inrush.map(({ currentA }) => currentA)),
    ratingA,
    pinned: link.pinnedA !== null,
    because,
    tripS,
    maxA: link.maxA,
    ambientC,
    coil: link.coil && findCoil(grid, flows, link.coil),
    loadIds: behind.map(({ load }) => load.id),
    weakest,
    leastFaultA,
    problems: [],
  };
  if (guards && net !== null) protection.problems = listProblems(protection, inrush, standard);
  else if (net !== null && link.maxA !== null && loadA > link.maxA) protection.problems = ['over-load'];
  return protection;
}

/** Is a coil fed, and by which pin is it switched: a driver, or a ground that holds it on. */
function findCoil(grid: Grid, flows: Flows, coil: NonNullable<GridLink['coil']>): PlannedProtection['coil'] {
  const rootOf = (pin: PinPlace) => {
    const node = grid.nodeOfPin.get(toPinKey(pin));
    const root = node === undefined ? null : flows.nets[grid.netOf[node]!]!.root;
    return root === null ? null : grid.nodes[root]!;
  };
  return { ...coil, fed: rootOf(coil.feed) !== null, by: rootOf(coil.switch)?.pins[0] ?? null };
}

/** A wire as what protects it sees it; null where nothing is said of what it bears. */
export function toGuarded({ loomId, wire, current }: GridWire, { insulationShortC }: ShopStandard): PlannedProtection['weakest'] {
  const { id: wireId, circuitId, conductor } = wire;
  const { steadyA, shortA, runningC } = current;
  if (steadyA === null || shortA === null || runningC === null) return null;
  return { loomId, wireId, circuitId, steadyA, shortA, areaMm2: conductor.areaMm2, runningC, shortC: insulationShortC[conductor.table] };
}

function chooseRating(
  link: GridLink,
  loadA: number,
  unknown: number,
  inrush: readonly { currentA: number; seconds: number }[],
  ambientC: number,
  standard: ShopStandard,
): { ratingA: number | null; because: string } {
  if (link.pinnedA !== null) return { ratingA: link.pinnedA, because: link.pinReason ?? '' };
  // a fuse chosen for half of its load would be a wrong number
  if (unknown > 0)
    return {
      ratingA: null,
      because: `${unknown} ${unknown === 1 ? 'load behind it gives' : 'loads behind it give'} no current: nothing is chosen before it is known`,
    };
  const mostA = link.maxA ?? Infinity;
  if (link.kind === 'channel') {
    const ratingA = Math.max(1, Math.ceil(loadA * standard.channelHeadroom - 1e-9));
    return ratingA > mostA
      ? { ratingA: null, because: `${loadA.toFixed(1)} A with headroom is more than the ${mostA} A it can be set to` }
      : { ratingA, because: `${loadA.toFixed(1)} A × ${standard.channelHeadroom} headroom, whole amperes` };
  }
  const carries = measureFuseCarries(ambientC, standard);
  const ratingA = chooseFuse(loadA, inrush, carries, mostA);
  return {
    ratingA,
    because:
      ratingA === null
        ? `no fuse up to ${Number.isFinite(mostA) ? mostA : FUSE_RATINGS.at(-1)} A bears ${loadA.toFixed(1)} A`
        : `smallest that carries ${loadA.toFixed(1)} A at ${(carries * 100).toFixed(0)} % (${ambientC} °C)${inrush.length ? ' and stays whole at the inrush' : ''}`,
  };
}

function listProblems(
  { ratingA, tripS, loadA, weakest, leastFaultA, ambientC, pinned }: PlannedProtection,
  inrush: readonly { currentA: number; seconds: number }[],
  standard: ShopStandard,
): ProtectionProblem[] {
  if (ratingA === null) return ['no-rating'];
  const problems: ProtectionProblem[] = [];
  if (weakest && ratingA > weakest.steadyA + 1e-6) problems.push('over-wire');
  const carries = tripS === null ? measureFuseCarries(ambientC, standard) : 1;
  if (loadA > ratingA * carries + 1e-6) problems.push('over-load');
  if (pinned && inrush.some(({ currentA, seconds }) => measureOpening(currentA / ratingA, tripS).shortestS <= seconds))
    problems.push('inrush');
  if (leastFaultA !== null && leastFaultA < measureSureOpening(ratingA, tripS)) problems.push('slow-fault');
  if (weakest && !problems.includes('over-wire') && findHarm(ratingA, tripS, weakest) !== null) problems.push('short-time');
  return problems;
}

/**
 * The first point of the opening limits at which the wire would pass its short-time limit before the longest opening time; × rating.
 * A current that the bundle bears for good at that limit harms nothing, however long; above it no heat is let out. Null: none.
 */
export function findHarm(
  ratingA: number,
  tripS: number | null,
  { shortA, areaMm2, runningC, shortC }: NonNullable<PlannedProtection['weakest']>,
): number | null {
  for (const times of [1.35, 1.6, 2, 3.5, 6]) {
    const currentA = times * ratingA;
    if (currentA <= shortA) continue;
    if (measureDamage(areaMm2, currentA, runningC, shortC) < measureOpening(times, tripS).longestS) return times;
  }
  return null;
}
