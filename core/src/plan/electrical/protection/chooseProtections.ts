import type { ShopStandard } from '../../../catalogue';
import type { Job } from '../../../model';
import { measureContactPeak } from '../../terminate/measureContactRating';
import { mostOf } from '../currents/currents';
import type { VehicleCurrents } from '../currents/vehicleCurrents';
import { chooseFuse, FUSE_RATINGS, measureFuseCarries, measureOpening, measureShortTimeFactor, measureSureOpening } from './fuse';
import { findWorst, listInrushes, type Inrush } from '../transient/listInrushes';
import type { NetlistWire, MeasuredLoad } from '../drop/measureLoads';
import type { CurrentPaths } from '../currents/currentPaths';
import type { PlannedProtection, ProtectionProblem } from '../types';
import { type Netlist, type PinPlace, type SwitchgearLink, toPinKey } from '../../../netlist';
import { createKeeper } from '../../../units';

interface Context {
  standard: ShopStandard;
  /** by edge of the netlist */
  wires: readonly NetlistWire[];
  /** edges of the wires that a fault behind each protection can load, by link id */
  guarded: ReadonlyMap<string, readonly number[]>;
  known: GuardedWires;
}

/** What wires bear, found as it is asked for: the same for as long as they have their sizes and are as warm, however long they are. */
export interface GuardedWires {
  /** by edge; a return stands behind many: what it bears is made once */
  bears: Map<number, PlannedProtection['weakest']>;
  /** by link id: the wire that bears least for good behind it */
  weakest: Map<string, PlannedProtection['weakest']>;
  /** by link id: is any spoilt by a fault before that opens */
  burnt: Map<string, boolean>;
}

export const createGuardedWires = (): GuardedWires => ({ bears: new Map(), weakest: new Map(), burnt: new Map() });

/** Which fuse or channel has to open for each net, by net index; null: none (calculations 5). */
export function listGuards(netlist: Netlist, flows: VehicleCurrents): (SwitchgearLink | null)[] {
  const guards: (SwitchgearLink | null)[] = netlist.nets.map(() => null);
  const find = (index: number, seen: Set<number>): SwitchgearLink | null => {
    const link = flows.nets[index]!.fedBy;
    if (link === null || seen.has(index)) return null;
    if (link.kind === 'fuse' || link.kind === 'channel') return link;
    const before = netlist.nodeOfPin.get(toPinKey(link.a));
    return before === undefined ? null : find(netlist.netOf[before]!, seen.add(index));
  };
  netlist.nets.forEach((_, index) => (guards[index] = find(index, new Set())));
  return guards;
}

/** A protection or contact before any wire is sized: what it carries decides its rating. */
export type RatedLink = Omit<PlannedProtection, 'weakest' | 'leastFaultA' | 'problems'> & { inrushes: readonly Inrush[] };

/** What every link of the vehicle carries, and the rating of fuses and channels: pinned, else the smallest that bears load and inrush. */
export function rateLinks(
  job: Job,
  netlist: Netlist,
  flows: VehicleCurrents,
  ways: readonly CurrentPaths[],
  standard: ShopStandard,
): RatedLink[] {
  const behind = new Map<string, CurrentPaths[]>(netlist.links.map(({ id }) => [id, []]));
  for (const one of ways) for (const id of one.load.linkIds) behind.get(id)!.push(one);
  const kinds = new Map(netlist.links.map(({ id, kind }) => [id, kind]));
  return netlist.links.map((link) => {
    const node = netlist.nodeOfPin.get(toPinKey(link.b));
    const netIndex = node === undefined ? null : netlist.netOf[node]!;
    const net = netIndex === null || flows.nets[netIndex]!.fedBy?.id !== link.id ? null : flows.nets[netIndex]!;
    const onA = net?.current.on ?? flows.modeIds.map(() => 0);
    const loadA = mostOf(onA);
    // the feed of a box is no load of its own
    const loads = behind.get(link.id)!.filter(({ load }) => load.load !== 'feed');
    const inrushes = listInrushes(
      loads.map((one) => ({ ways: one, share: 1 })),
      loadA,
      link.id,
      kinds,
    );
    const zoneId = job.devices[link.deviceId]!.zoneId;
    const ambientC = zoneId === null ? standard.unknownZoneC : (job.zones[zoneId]?.ambientC ?? standard.unknownZoneC);
    const { ratingA, because } = isGuard(link)
      ? chooseRating(link, loadA, net?.unknown ?? 0, inrushes, ambientC, standard)
      : { ratingA: null, because: 'it does not protect' };
    const worst = findWorst(inrushes);
    return {
      id: link.id,
      deviceId: link.deviceId,
      linkId: link.linkId,
      name: link.name,
      kind: link.kind,
      netId: net === null || netIndex === null ? null : netlist.nets[netIndex]!.id,
      onA,
      loadA,
      inrushA: worst.currentA,
      inrushMs: worst.seconds * 1000,
      inrushes,
      ratingA,
      pinned: link.pinnedA !== null,
      because,
      tripS: link.kind === 'channel' ? standard.channelTripS : null,
      maxA: link.maxA,
      peakA:
        link.kind === 'fuse' || link.kind === 'bar' || link.maxA === null
          ? null
          : measureContactPeak({ currentA: link.maxA, peakA: link.peakA }),
      ambientC,
      coil: link.coil && findCoil(netlist, flows, link.coil),
      loadIds: behind.get(link.id)!.map(({ load }) => load.id),
    };
  });
}

/**
 * A fuse before each plug through which something outside the job feeds a loom: the smallest that carries what the loom draws there. It is
 * not in the job, but the wires beyond the plug have to bear it (calculations 3).
 */
export function rateOutsideFeeds(
  job: Job,
  netlist: Netlist,
  flows: VehicleCurrents,
  ways: readonly CurrentPaths[],
  standard: ShopStandard,
): RatedLink[] {
  return flows.nets.flatMap(({ root, isOutside, current, unknown }, index): RatedLink[] => {
    const pin = root === null ? undefined : netlist.nodes[root]!.pins[0];
    if (!isOutside || !pin || netlist.nets[index]!.kind !== 'supply') return [];
    const loads = ways.filter(({ load }) => load.isOutside && netlist.netOf[netlist.nodeOfPin.get(toPinKey(load.pin))!] === index);
    const loadA = mostOf(current.on);
    const inrushes = listInrushes(
      loads.map((one) => ({ ways: one, share: 1 })),
      loadA,
      null,
      new Map(),
    );
    const link = { kind: 'fuse', pinnedA: null, pinReason: null, maxA: null } as const;
    const worst = findWorst(inrushes);
    return [
      {
        id: toOutsideId(pin),
        deviceId: '',
        linkId: '',
        name: `fuse before ${job.looms[pin.loomId]!.ends[pin.endId]!.name} ${pin.cavity}`,
        kind: 'fuse',
        netId: netlist.nets[index]!.id,
        onA: current.on,
        loadA,
        inrushA: worst.currentA,
        inrushMs: worst.seconds * 1000,
        inrushes,
        ...chooseRating(link, loadA, unknown, inrushes, standard.unknownZoneC, standard),
        pinned: false,
        tripS: null,
        maxA: null,
        peakA: null,
        ambientC: standard.unknownZoneC,
        coil: null,
        loadIds: loads.map(({ load }) => load.id),
      },
    ];
  });
}

export const toOutsideId = (pin: PinPlace) => `outside ${toPinKey(pin)}`;

export const isGuard = ({ kind }: Pick<SwitchgearLink, 'kind'>) => kind === 'fuse' || kind === 'channel';

/** What is wrong with each protection, the wires as they are sized now. */
export function chooseProtections(rated: readonly RatedLink[], context: Context, loads: readonly MeasuredLoad[]): PlannedProtection[] {
  const guarding = new Set(rated.flatMap((one) => (isGuard(one) ? [one.id] : [])));
  // a short beyond another fuse or channel is that one's to clear
  const faults = new Map<string, number>();
  for (const { load, faultA } of loads) {
    const nearest = load.linkIds.findLast((id) => guarding.has(id));
    if (nearest !== undefined && faultA !== null) faults.set(nearest, Math.min(faults.get(nearest) ?? Infinity, faultA));
  }
  return rated.map(({ inrushes, ...link }) => {
    const weakest = findWeakest(link.id, context);
    const protection: PlannedProtection = { ...link, weakest, leastFaultA: faults.get(link.id) ?? null, problems: [] };
    if (link.netId === null) return protection;
    if (isGuard(link)) protection.problems = listProblems(protection, inrushes, context);
    else if (link.maxA !== null && link.loadA > link.maxA) protection.problems = ['over-load'];
    if (link.peakA !== null && link.inrushA > link.peakA + 1e-9) protection.problems.push('over-peak');
    return protection;
  });
}

const isOverWire = (ratingA: number, weakest: PlannedProtection['weakest']) => weakest !== null && ratingA > weakest.steadyA + 1e-6;

/** Ids of the protections whose wires bear less than they let through, for good or until they open. */
export const listOverWires = (rated: readonly RatedLink[], context: Context): string[] =>
  rated.flatMap(({ id, kind, netId, ratingA, tripS }) => {
    if (netId === null || ratingA === null || !isGuard({ kind })) return [];
    const weakest = findWeakest(id, context);
    return weakest !== null && (isOverWire(ratingA, weakest) || isAnyBurnt({ id, ratingA, tripS }, context)) ? [id] : [];
  });

function findBears(edge: number, { known: { bears }, wires, standard }: Context): PlannedProtection['weakest'] {
  let found = bears.get(edge);
  if (found === undefined) bears.set(edge, (found = toGuarded(wires[edge]!, standard)));
  return found;
}

function findWeakest(linkId: string, context: Context): PlannedProtection['weakest'] {
  const { weakest } = context.known;
  let found = weakest.get(linkId);
  if (found !== undefined) return found;
  found = null;
  for (const edge of context.guarded.get(linkId) ?? []) {
    const bears = findBears(edge, context);
    if (bears !== null && (found === null || bears.steadyA < found.steadyA)) found = bears;
  }
  weakest.set(linkId, found);
  return found;
}

/** The wire that bears least for good need not be the one that a short burns first. */
function isAnyBurnt({ id, ratingA, tripS }: Pick<PlannedProtection, 'id' | 'tripS'> & { ratingA: number }, context: Context): boolean {
  const { burnt } = context.known;
  let found = burnt.get(id);
  if (found === undefined) {
    found = (context.guarded.get(id) ?? []).some((edge) => {
      const bears = findBears(edge, context);
      return bears !== null && findHarm(ratingA, tripS, bears) !== null;
    });
    burnt.set(id, found);
  }
  return found;
}

/** Is a coil fed, and by which pin is it switched: a driver, or a ground that holds it on. */
function findCoil(netlist: Netlist, flows: VehicleCurrents, coil: NonNullable<SwitchgearLink['coil']>): PlannedProtection['coil'] {
  const rootOf = (pin: PinPlace) => {
    const node = netlist.nodeOfPin.get(toPinKey(pin));
    const root = node === undefined ? null : flows.nets[netlist.netOf[node]!]!.root;
    return root === null ? null : netlist.nodes[root]!;
  };
  return { ...coil, fed: rootOf(coil.feed) !== null, by: rootOf(coil.switch)?.pins[0] ?? null };
}

/** A wire as what protects it sees it; null where nothing is said of what it bears. */
export function toGuarded({ loomId, wire, current }: NetlistWire, { insulationShortC }: ShopStandard): PlannedProtection['weakest'] {
  const { id: wireId, circuitId, conductor } = wire;
  const { steadyA, shortA, runningC } = current;
  if (steadyA === null || shortA === null || runningC === null) return null;
  return { loomId, wireId, circuitId, steadyA, shortA, areaMm2: conductor.areaMm2, runningC, shortC: insulationShortC[conductor.table]! };
}

function chooseRating(
  link: Pick<SwitchgearLink, 'kind' | 'pinnedA' | 'pinReason' | 'maxA'>,
  loadA: number,
  unknown: number,
  inrush: readonly Inrush[],
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
  const limit = Number.isFinite(mostA) ? mostA : FUSE_RATINGS.at(-1)!;
  if (ratingA !== null) {
    const whole = inrush.length ? ' and stays whole at the inrush' : '';
    return { ratingA, because: `smallest that carries ${loadA.toFixed(1)} A at ${(carries * 100).toFixed(0)} % (${ambientC} °C)${whole}` };
  }
  if (loadA > limit * carries)
    return {
      ratingA,
      because: `no fuse up to ${limit} A carries ${loadA.toFixed(1)} A at ${(carries * 100).toFixed(0)} % (${ambientC} °C)`,
    };
  const worst = findWorst(inrush);
  return {
    ratingA,
    because: `every fuse up to ${limit} A that carries ${loadA.toFixed(1)} A may open at the inrush of ${worst.currentA.toFixed(0)} A for ${Math.round(worst.seconds * 1000)} ms`,
  };
}

function listProblems(
  { id, ratingA, tripS, loadA, weakest, leastFaultA, ambientC, pinned }: PlannedProtection,
  inrush: readonly Inrush[],
  context: Context,
): ProtectionProblem[] {
  const { standard } = context;
  if (ratingA === null) return ['no-rating'];
  const problems: ProtectionProblem[] = [];
  if (isOverWire(ratingA, weakest)) problems.push('over-wire');
  const carries = tripS === null ? measureFuseCarries(ambientC, standard) : 1;
  if (loadA > ratingA * carries + 1e-6) problems.push('over-load');
  if (pinned && tripS === null && inrush.some(({ currentA, seconds }) => measureOpening(currentA / ratingA, tripS).shortestS <= seconds))
    problems.push('inrush');
  if (leastFaultA !== null && leastFaultA < measureSureOpening(ratingA, tripS)) problems.push('slow-fault');
  if (weakest && !problems.includes('over-wire') && isAnyBurnt({ id, ratingA, tripS }, context)) problems.push('short-time');
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
  // k²S² once, for the times are those of the table (IEC 60364-4-43)
  const bearsA2S = (measureShortTimeFactor(runningC, shortC) * areaMm2) ** 2;
  for (const times of HARM_TIMES) {
    const currentA = times * ratingA;
    if (currentA <= shortA) continue;
    if (bearsA2S < measureOpening(times, tripS).longestS * currentA ** 2) return times;
  }
  return null;
}

/** Points of the opening limits at which a wire is looked at. */
const HARM_TIMES = [1.35, 1.6, 2, 3.5, 6];

/** Of the protections behind which a fault can load each edge the hardest to bear: the largest fuse and the largest channel. */
export const listHardest = (
  protections: readonly RatedLink[],
  guarded: ReadonlyMap<string, readonly number[]>,
): ReadonlyMap<number, readonly RatedLink[]> => remember(protections, [guarded], () => findHardest(protections, guarded));

/** asked for in every round of sizing */
const remember = createKeeper<readonly RatedLink[], ReadonlyMap<number, readonly RatedLink[]>>();

function findHardest(protections: readonly RatedLink[], guarded: ReadonlyMap<string, readonly number[]>): Map<number, RatedLink[]> {
  const hardest = new Map<number, RatedLink[]>();
  for (const one of protections) {
    if (one.ratingA === null) continue;
    for (const edge of guarded.get(one.id) ?? []) {
      const known = hardest.get(edge);
      if (!known) {
        hardest.set(edge, [one]);
        continue;
      }
      const at = known.findIndex(({ tripS }) => tripS === one.tripS);
      if (at === -1) known.push(one);
      else if (known[at]!.ratingA! < one.ratingA) known[at] = one;
    }
  }
  return hardest;
}
