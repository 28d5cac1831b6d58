import type { Job } from '../model';
import { listNetPins, type NetPin } from './listNetPins';
import { listNets, type JoinedCircuits } from './listNets';
import { toPinKey } from './types';

/** What is joined by circuits and mated plugs, before any wire is led. */
export interface MappedNet {
  circuits: JoinedCircuits;
  pins: readonly NetPin[];
}

/** Nets of a job by its circuits, and the net of every pin that is wired. */
export function createNetMap(job: Job): { nets: MappedNet[]; netOf: Map<string, MappedNet> } {
  const nets = listNets(job).nets.map((circuits) => ({ circuits, pins: listNetPins(job, { circuits }) }));
  return { nets, netOf: new Map(nets.flatMap((net) => net.pins.map((pin) => [toPinKey(pin), net] as const))) };
}
