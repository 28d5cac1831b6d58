import type { Job } from '../../../model';
import { findNetOf, type Netlist, type PinPlace } from '../../../netlist';
import type { LiveNet, PlannedState } from '../types';
import type { ModeLive } from './findLive';

/** What is live in each mode, as the plan keeps it. */
export function listStates({ source: { isolator } }: Pick<Job, 'source'>, netlist: Netlist, live: readonly ModeLive[]): PlannedState[] {
  const isolatorId = isolator && `${isolator.deviceId}.${isolator.linkId}`;
  const behind = listBehind(netlist, isolatorId);
  return live.map(({ modeId, nets, links }) => {
    const isIsolated = isolatorId !== null && links.get(isolatorId)?.setting === 'open';
    return {
      modeId,
      isIsolated,
      live: nets.flatMap(({ state, via, railOf }, net): LiveNet[] =>
        state === 'dead' ? [] : [{ netId: netlist.nets[net]!.id, state, via, railOf, isByPassed: isIsolated && behind.has(net) }],
      ),
      unsaid: [...links].flatMap(([id, { setting }]) => (setting === 'unsaid' ? [id] : [])),
    };
  });
}

/** Nets that the isolator feeds, through all links beyond it. */
function listBehind(netlist: Netlist, isolatorId: string | null): ReadonlySet<number> {
  const netOf = (place: PinPlace) => findNetOf(netlist, place);
  const isolator = netlist.links.find(({ id }) => id === isolatorId);
  const first = isolator && netOf(isolator.b);
  const found = new Set<number>(first === null || first === undefined ? [] : [first]);
  for (const net of found)
    for (const link of netlist.links) {
      const beyond = netOf(link.a) === net ? netOf(link.b) : null;
      if (beyond !== null) found.add(beyond);
    }
  return found;
}
