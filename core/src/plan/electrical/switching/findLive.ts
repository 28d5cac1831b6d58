import type { Job } from '../../../model';
import { findNetOf, toPinKey, type Netlist, type SwitchgearLink } from '../../../netlist';
import { compareIds, pushTo } from '../../../units';
import { findSetting, listDevicesBehind, type LinkSetting, type LinkStanding } from './findSettings';

/** live: fed; momentary: fed while a switch is held; unsaid: by a switch of which nobody said how it stands; dead: not fed. */
export type Liveness = 'live' | 'momentary' | 'unsaid' | 'dead';

const RANK: Readonly<Record<Liveness, number>> = { live: 3, momentary: 2, unsaid: 1, dead: 0 };
const OF_RANK: readonly Liveness[] = ['dead', 'unsaid', 'momentary', 'live'];
const OF_SETTING: Readonly<Record<LinkStanding['setting'], number>> = { closed: 3, momentary: 2, unsaid: 1, open: 0 };

/** What feeds a net in a mode. */
export interface NetLive {
  state: Liveness;
  /** links from the battery to it, in their order */
  via: string[];
  /** box whose own rail feeds it; null: none */
  railOf: string | null;
}

/** What is live in a mode, net by net of the netlist, and how every link stands. */
export interface ModeLive {
  modeId: string;
  nets: NetLive[];
  links: Map<string, LinkStanding>;
}

/** What of a vehicle is fed from its battery in each mode, by how its switches stand (craft G6). In order of the modes' ids. */
export function findLive(job: Job, netlist: Netlist): ModeLive[] {
  const feeds = new Feeds(job, netlist);
  const behind = listDevicesBehind(job, netlist);
  return Object.keys(job.modes)
    .sort(compareIds)
    .map((modeId) => {
      const links = new Map(netlist.links.map((link) => [link.id, findSetting(job, link, modeId, behind.get(link.id)!)]));
      return { modeId, nets: feeds.flood((id) => OF_SETTING[links.get(id)!.setting]), links };
    });
}

/** Nets that are switched off, mode by mode: fed while every switch is closed, and not as they stand. */
export function listSwitchedOff(job: Job, netlist: Netlist, live: readonly ModeLive[]): readonly (readonly boolean[])[] {
  const all = new Feeds(job, netlist).flood(() => RANK.live);
  return live.map(({ nets }) => nets.map(({ state }, net) => state === 'dead' && all[net]!.state !== 'dead'));
}

/** What of a vehicle is fed where its links stand so; isPlugged: boxes that are there to give a voltage of their own. */
export function floodFeeds(
  job: Job,
  netlist: Netlist,
  standing: ReadonlyMap<string, LinkSetting>,
  isPlugged: (box: string) => boolean,
): NetLive[] {
  return new Feeds(job, netlist).flood((id) => OF_SETTING[standing.get(id) ?? 'closed'], isPlugged);
}

class Feeds {
  private readonly links: { link: SwitchgearLink; from: number; to: number; coil: number | null; enabledBy: string | null }[] = [];
  /** nets on which a battery's positive hangs */
  private readonly batteries: number[] = [];
  /** nets that a box gives a voltage to, with the nets that the box is fed by */
  private readonly rails: { net: number; box: string; fedBy: readonly number[] }[] = [];

  constructor(
    private readonly job: Job,
    private readonly netlist: Netlist,
  ) {
    const netOf = (place: SwitchgearLink['a']) => findNetOf(netlist, place);
    const given = new Set<number>();
    for (const link of netlist.links) {
      const [from, to] = [netOf(link.a), netOf(link.b)];
      if (to !== null) given.add(netlist.nodeOfPin.get(toPinKey(link.b))!);
      if (from === null || to === null) continue;
      const by = job.devices[link.deviceId]!.enabledBy;
      const enabledBy = Object.hasOwn(by, link.linkId) ? `${by[link.linkId]!.deviceId}.${by[link.linkId]!.linkId}` : null;
      this.links.push({ link, from, to, coil: link.coil && netOf(link.coil.feed), enabledBy });
    }
    this.listSources(given);
  }

  private listSources(given: ReadonlySet<number>): void {
    const { netlist, job } = this;
    const supplies = new Map<string, number[]>();
    const boxOf = (node: number): string | null => {
      const place = netlist.nodes[node]!.pins[0];
      const deviceId = place && netlist.deviceAt.get(`${place.loomId}/${place.endId}`);
      return deviceId === undefined ? null : job.devices[deviceId]!.unit || deviceId;
    };
    netlist.nodes.forEach(({ need, offer }, node) => {
      if (offer?.can.includes('battery-positive')) this.batteries.push(netlist.netOf[node]!);
      const box = boxOf(node);
      if (box !== null && need?.kind === 'supply' && !given.has(node)) pushTo(supplies, box, netlist.netOf[node]!);
    });
    netlist.nodes.forEach(({ offer }, node) => {
      const box = boxOf(node);
      const isRail = offer !== null && offer.volts !== null && !offer.can.includes('battery-positive') && !given.has(node);
      if (isRail && box !== null) this.rails.push({ net: netlist.netOf[node]!, box, fedBy: supplies.get(box) ?? [] });
    });
  }

  /** What is fed where every link stands as said. Ranks only rise, so going round until nothing changes ends. */
  flood(standing: (linkId: string) => number, isPlugged: (box: string) => boolean = () => true): NetLive[] {
    const rank = new Uint8Array(this.netlist.nets.length);
    const cameBy: ({ link: SwitchgearLink; from: number } | { rail: string; from: number } | null)[] = this.netlist.nets.map(() => null);
    const linkRank = new Map<string, number>();
    for (const net of this.batteries) rank[net] = RANK.live;
    for (let changed = true; changed;) {
      changed = false;
      for (const { link, from, to, coil, enabledBy } of this.links) {
        const gives = Math.min(
          ...[rank[from]!, standing(link.id)],
          ...[coil === null ? RANK.live : rank[coil]!, enabledBy === null ? RANK.live : (linkRank.get(enabledBy) ?? 0)],
        );
        if (gives > (linkRank.get(link.id) ?? 0)) [changed] = [true, linkRank.set(link.id, gives)];
        if (gives > rank[to]!) [changed, rank[to], cameBy[to]] = [true, gives, { link, from }];
      }
      for (const { net, box, fedBy } of this.rails) {
        if (!isPlugged(box)) continue;
        const by = fedBy.reduce((best, one) => (best === null || rank[one]! > rank[best]! ? one : best), null as number | null);
        if (by !== null && rank[by]! > rank[net]!) [changed, rank[net], cameBy[net]] = [true, rank[by]!, { rail: box, from: by }];
      }
    }
    return this.netlist.nets.map((_, net) => {
      const via: string[] = [];
      const seen = new Set<number>();
      let railOf: string | null = null;
      for (let at = cameBy[net], here = net; at && !seen.has(here); here = at.from, at = cameBy[here]!) {
        seen.add(here);
        if ('link' in at) via.unshift(at.link.id);
        else railOf ??= at.rail;
      }
      return { state: OF_RANK[rank[net]!]!, via, railOf };
    });
  }
}
