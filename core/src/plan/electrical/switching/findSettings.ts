import type { Device, Job } from '../../../model';
import { findNetOf, type Netlist, type SwitchgearLink } from '../../../netlist';

/** How a link stands in a mode: as it is said, or, where it is a relay or a channel, as its loads are on; unsaid: nobody said. */
export type LinkSetting = 'closed' | 'momentary' | 'unsaid' | 'open';

/** A link as it stands in a mode, and whether somebody said so or its loads do. */
export interface LinkStanding {
  setting: LinkSetting;
  by: 'kind' | 'said' | 'position' | 'loads' | 'nobody';
}

/** The devices whose loads hang behind each link, through all links beyond it. */
export function listDevicesBehind(job: Job, netlist: Netlist): Map<string, ReadonlySet<string>> {
  const from = new Map<number, SwitchgearLink[]>();
  const netOf = (place: SwitchgearLink['a']) => findNetOf(netlist, place);
  for (const link of netlist.links) {
    const net = netOf(link.a);
    if (net === null) continue;
    const known = from.get(net);
    if (known) known.push(link);
    else from.set(net, [link]);
  }
  const behind = new Map<string, ReadonlySet<string>>();
  const collect = (net: number, seen: Set<number>, found: Set<string>): void => {
    if (seen.has(net)) return;
    seen.add(net);
    for (const node of netlist.nets[net]!.nodes) {
      const { need, pins } = netlist.nodes[node]!;
      if (need?.kind !== 'supply' || need.currentA === null) continue;
      const deviceId = netlist.deviceAt.get(`${pins[0]!.loomId}/${pins[0]!.endId}`);
      if (deviceId !== undefined) found.add(deviceId);
    }
    for (const link of from.get(net) ?? []) {
      const next = netOf(link.b);
      if (next !== null) collect(next, seen, found);
    }
  };
  for (const link of netlist.links) {
    const found = new Set<string>();
    const net = netOf(link.b);
    if (net !== null) collect(net, new Set(), found);
    behind.set(link.id, found);
  }
  return behind;
}

/** How a link of a device stands in a mode (craft G6). behind: devices whose loads it feeds. */
export function findSetting(
  job: Job,
  { deviceId, linkId, kind, closedIn }: Pick<SwitchgearLink, 'deviceId' | 'linkId' | 'kind' | 'closedIn'>,
  modeId: string,
  behind: ReadonlySet<string>,
): LinkStanding {
  if (kind === 'fuse' || kind === 'bar') return { setting: 'closed', by: 'kind' };
  const device: Device = job.devices[deviceId]!;
  if (closedIn.length > 0) {
    const position = Object.hasOwn(device.positions, modeId) ? device.positions[modeId]! : null;
    if (position === null) return { setting: 'unsaid', by: 'nobody' };
    return { setting: closedIn.includes(position) ? 'closed' : 'open', by: 'position' };
  }
  const said = Object.hasOwn(device.states, linkId) ? device.states[linkId]![modeId] : undefined;
  if (said !== undefined) return { setting: said, by: 'said' };
  if (kind === 'switch') return { setting: 'unsaid', by: 'nobody' };
  // what works by itself is on while what it feeds is on, where all of that says so
  const duties = [...behind].map((id) => (Object.hasOwn(job.devices[id]!.duty, modeId) ? job.devices[id]!.duty[modeId]! : null));
  if (duties.length === 0 || duties.includes(null)) return { setting: 'unsaid', by: 'nobody' };
  return { setting: duties.some((share) => share! > 0) ? 'closed' : 'open', by: 'loads' };
}
