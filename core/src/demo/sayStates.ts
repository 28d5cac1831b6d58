import type { Catalogue } from '../catalogue';
import type { Job, LinkState, Load } from '../model';
import { plan } from '../plan';

/** Kinds of load that a channel gives power to in a mode in which the engine stands. */
const ON_WHILE_STANDING: Readonly<Record<string, readonly (Load | 'feed' | null)[]>> = {
  isolated: [],
  'key-off': [],
  'key-on': ['electronics', null],
  display: ['electronics'],
};
/** With the car parked only these devices run. */
const PARKED = ['display', 'logger', 'keypad'];

/**
 * How the Skerry's switches, relay and channels stand in each mode: there is no by-pass in it, the isolator takes everything but the starter's
 * lead, the module gives what the controller and the keypad ask for. Changes the job given.
 */
export function sayStates(job: Job, catalogue: Catalogue): Job {
  delete job.modes.bypass;
  job.source.isolator = { deviceId: 'kill', linkId: 'main' };
  job.source.capacityAh = 16;
  const { protections, loads } = plan(job, catalogue).power;
  for (const { deviceId, linkId, kind, id } of protections) {
    if (kind === 'fuse' || kind === 'bar') continue;
    const behind = loads.filter(({ load, linkIds }) => load !== 'feed' && linkIds.includes(id));
    const toState = (modeId: string): LinkState => {
      if (kind === 'switch') return modeId === 'isolated' ? 'open' : 'closed';
      if (kind === 'relay') return job.modes[modeId]!.engine === 'cranking' ? 'closed' : 'open';
      const kinds = ON_WHILE_STANDING[modeId];
      if (!kinds) return 'closed';
      const isOn = behind.some(({ load, deviceId: of }) => kinds.includes(load) && (modeId !== 'display' || PARKED.includes(of ?? '')));
      return isOn ? 'closed' : 'open';
    };
    job.devices[deviceId]!.states[linkId] = Object.fromEntries(Object.keys(job.modes).map((modeId) => [modeId, toState(modeId)]));
  }
  return job;
}
