import type { ShopStandard } from '../../../catalogue';
import type { Job } from '../../../model';
import { pushTo } from '../../../units';
import type { JobPlan } from '../../types';
import type { LiveNet, PlannedLoad, PlannedNet, PlannedProtection } from '../types';

/** A net that is live in a mode, with what guards it and what it feeds. */
export interface LiveLine {
  net: PlannedNet;
  name: string;
  state: LiveNet['state'];
  /** the smallest fuse on its way; null: none */
  fuse: PlannedProtection | null;
  /** links on the way, by name, the battery's side first */
  via: string[];
  loads: PlannedLoad[];
  /** round the isolator: elsewhere it is fed through it */
  isByPassed: boolean;
}

type Planned = Pick<JobPlan, 'power'>;

/** What is live in a mode, in the order of the nets; a battery's own studs are left out. mode: place in the plan's modes. */
export function listLive(job: Job, { power }: Planned, mode: number): LiveLine[] {
  const state = power.states[mode];
  if (!state) return [];
  const byId = new Map(power.protections.map((one) => [one.id, one]));
  const netById = new Map(power.nets.map((net) => [net.id, net]));
  const loadsOf = createLoadsOf(power);
  return state.live.flatMap(({ netId, state: how, via, railOf, isByPassed }): LiveLine[] => {
    const net = netById.get(netId);
    if (!net) return [];
    const links = via.flatMap((id) => byId.get(id) ?? []);
    const fuses = links.filter(({ kind }) => kind === 'fuse');
    const fuse = fuses.reduce<PlannedProtection | null>(
      (least, one) => ((one.ratingA ?? Infinity) < (least?.ratingA ?? Infinity) ? one : (least ?? one)),
      null,
    );
    const { loomId, circuitId } = net.circuits[0]!;
    return [
      {
        ...{ net, state: how, fuse, loads: loadsOf(net) },
        name: job.looms[loomId]!.circuits[circuitId]!.name,
        via: [...links.map(({ name }) => name), ...(railOf === null ? [] : [job.devices[railOf]?.name ?? railOf])],
        isByPassed,
      },
    ];
  });
}

function createLoadsOf({ loads }: Planned['power']): (net: PlannedNet) => PlannedLoad[] {
  const ofCircuitEnd = new Map(loads.filter(({ load }) => load !== 'feed').map((load) => [load.id, load]));
  const lastWire = new Map<string, PlannedLoad[]>();
  for (const load of ofCircuitEnd.values()) {
    const wire = load.steps.findLast(({ kind, way }) => kind === 'wire' && way === 'out');
    if (wire?.wireId) {
      pushTo(lastWire, `${wire.loomId} ${wire.wireId.slice(0, wire.wireId.lastIndexOf('.'))}`, load);
    }
  }
  return ({ circuits }) => circuits.flatMap(({ loomId, circuitId }) => lastWire.get(`${loomId} ${circuitId}`) ?? []);
}

/** Hours until so much of a battery is gone as may be taken out of it (craft E2): share · Ah / A. */
export const measureBatteryHours = (capacityAh: number, share: number, currentA: number): number => (capacityAh * share) / currentA;

/** For how long the battery gives what a mode draws while the engine does not run. */
export interface StandingMode {
  mode: number;
  meanA: number;
  /** null: nothing is drawn, or nobody said what the battery holds */
  hours: number | null;
  /** by switches of which nobody said how they stand, so that it may be less */
  isAtMost: boolean;
}

/** Every mode in which the engine is off, with what is drawn of the battery and for how long it gives that. */
export function listStandingModes(job: Job, { power }: Planned, { batteryShare }: Pick<ShopStandard, 'batteryShare'>): StandingMode[] {
  const { capacityAh } = job.source;
  return power.modeIds.flatMap((id, mode): StandingMode[] => {
    if (job.modes[id]!.engine !== 'off' || !power.sourceA) return [];
    const meanA = power.sourceA.mean[mode]!;
    const hours = capacityAh !== null && meanA > 0 ? measureBatteryHours(capacityAh, batteryShare, meanA) : null;
    return [{ mode, meanA, hours, isAtMost: power.states[mode]!.live.some(({ state }) => state !== 'live') }];
  });
}
