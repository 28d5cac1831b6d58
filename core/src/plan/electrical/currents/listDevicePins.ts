import type { Colour, Job, PinNeed } from '../../../model';
import { compareIds } from '../../../units';
import type { PlannedNet } from '../types';
import type { PinPlace } from '../../../netlist';

/** How a device's pin stands: led to a box, wired but led nowhere, not wired though it must be, not wired and free to be. */
export type PinState = 'served' | 'waiting' | 'open' | 'free';

export interface DevicePin extends PinPlace {
  need: PinNeed;
  state: PinState;
  /** circuit of its own loom; null: not wired */
  circuitId: string | null;
  colour: Colour | null;
  net: PlannedNet | null;
  /** pin of a box that serves it; null: none does */
  host: PinPlace | null;
}

/** One device, or an end that is described without one, with every pin it has. */
export interface DeviceLine {
  id: string;
  deviceId: string | null;
  name: string;
  system: string;
  loomId: string;
  endId: string;
  pins: DevicePin[];
}

/** Every end with needs, loom by loom in the order of their names, with how each pin stands. */
export function listDevicePins(job: Job, nets: readonly PlannedNet[]): DeviceLine[] {
  const netOf = new Map(nets.flatMap((net) => net.circuits.map(({ loomId, circuitId }) => [`${loomId}/${circuitId}`, net] as const)));
  const deviceAt = new Map(Object.entries(job.devices).flatMap(([id, { at }]) => (at ? [[`${at.loomId}/${at.endId}`, id] as const] : [])));
  return Object.keys(job.looms)
    .sort(compareIds)
    .flatMap((loomId) => {
      const loom = job.looms[loomId]!;
      const circuitAt = new Map(
        Object.entries(loom.circuits).flatMap(([id, { terminations }]) =>
          terminations.map((one) => [`${one.endId} ${one.cavity}`, id] as const),
        ),
      );
      return Object.keys(loom.ends)
        .filter((endId) => Object.keys(loom.ends[endId]!.pins).length > 0)
        .sort((a, b) => compareIds(loom.ends[a]!.name, loom.ends[b]!.name))
        .map((endId): DeviceLine => {
          const end = loom.ends[endId]!;
          const deviceId = deviceAt.get(`${loomId}/${endId}`) ?? null;
          const pins = Object.keys(end.pins)
            .sort(compareIds)
            .map((cavity): DevicePin => {
              const need = end.pins[cavity]!;
              const circuitId = circuitAt.get(`${endId} ${cavity}`) ?? null;
              const net = circuitId === null ? null : (netOf.get(`${loomId}/${circuitId}`) ?? null);
              const host = net?.root ?? null;
              const state: PinState = circuitId === null ? (need.required ? 'open' : 'free') : host === null ? 'waiting' : 'served';
              return {
                loomId,
                endId,
                cavity,
                need,
                state,
                circuitId,
                colour: circuitId === null ? null : loom.circuits[circuitId]!.colour,
                net,
                host,
              };
            });
          return {
            id: `${loomId}/${endId}`,
            deviceId,
            name: end.name,
            system: deviceId === null ? '' : job.devices[deviceId]!.system,
            loomId,
            endId,
            pins,
          };
        });
    });
}
