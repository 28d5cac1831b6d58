import type { InlinePart, Job } from '../../model';
import type { JobPlan } from '../../plan';
import { compareIds, createKeeper, pushTo } from '../../units';
import { type NetPin, listNetPins } from '../../netlist';

/** A CAN bus as it is wired: one of its two lines speaks for both. */
export interface Bus {
  /** the pin of a box that it belongs to */
  host: NetPin;
  /** ends with a pin on it, the host's among them */
  nodes: string[];
  /** ends at which it is terminated */
  terminators: string[];
  /** by what */
  parts: InlinePart[];
  /** what a meter reads across the pair, power off, Ω; null: no terminator, or the value of one is not known */
  ohms: number | null;
  /** the longest way off the line at each splice, mm */
  stubs: { loomId: string; circuitId: string; spliceId: string; number: string; lengthMm: number }[];
  /** of the twist, loosest; null: a part of it is not twisted */
  pitchMm: number | null;
}

/** Buses of a job, with what terminates them and how far their nodes hang off the line (calculations 9). */
export function listBuses(job: Job, plan: JobPlan): Bus[] {
  const plugs = new Set(Object.values(job.mates).flatMap(({ a, b }) => [a, b].map(({ loomId, endId }) => `${loomId}/${endId}`)));
  return findHosts(job, plan).map(({ net, host, pins }): Bus => {
    const here = new Set(pins.map(({ loomId, endId, cavity }) => `${loomId}/${endId}/${cavity}`));
    const parts = Object.values(job.parts).filter(
      ({ kind, at }) => kind === 'terminator' && at.cavities.some((cavity) => here.has(`${at.loomId}/${at.endId}/${cavity}`)),
    );
    const nameOf = ({ loomId, endId }: { loomId: string; endId: string }) => job.looms[loomId]!.ends[endId]!.name;
    const twists = net.circuits.map(({ loomId, circuitId }) => job.looms[loomId]!.circuits[circuitId]!.twist);
    return {
      host,
      nodes: [...new Set(pins.filter(({ loomId, endId }) => !plugs.has(`${loomId}/${endId}`)).map(nameOf))],
      terminators: parts.map(({ at }) => nameOf(at)),
      parts,
      ohms: toTermination(parts),
      stubs: net.circuits.flatMap(({ loomId, circuitId }) => listStubs(plan, plugs, loomId, circuitId)),
      pitchMm: twists.includes(null) ? null : Math.max(...twists.map((twist) => twist!.pitchMm)),
    };
  });
}

interface Hosted {
  net: JobPlan['power']['nets'][number];
  host: NetPin;
  pins: readonly NetPin[];
}

/** Nets that are the line of a bus which speaks for both, with the pin of its box. */
const findHosts = (job: Job, { power: { nets } }: JobPlan): readonly Hosted[] =>
  remember(nets, [...Object.values(job.looms).flatMap(({ ends, circuits }) => [ends, circuits]), job.devices, job.mates], () =>
    nets.flatMap((net): Hosted[] => {
      const pins = listNetPins(job, net);
      // of the two lines the one with the lower pin speaks for both
      const host = pins.find(
        ({ offer, cavity }) => offer?.can.includes('can') && (offer.pairWith === null || compareIds(cavity, offer.pairWith) < 0),
      );
      return host ? [{ net, host, pins }] : [];
    }),
  );
const remember = createKeeper<JobPlan['power']['nets'], readonly Hosted[]>();

/** What a meter reads across parts side by side, Ω; null: there is none, or the value of one is not known. */
export const toTermination = (parts: readonly Pick<InlinePart, 'ohms'>[]): number | null =>
  parts.length === 0 || parts.some(({ ohms }) => ohms === null) ? null : 1 / parts.reduce((sum, { ohms }) => sum + 1 / ohms!, 0);

/** Wires from a splice of a bus to a node; where fewer than two other wires go on from there, the longest of them are the line itself. */
function listStubs(plan: JobPlan, plugs: ReadonlySet<string>, loomId: string, circuitId: string): Bus['stubs'] {
  const wires = plan.looms.find((one) => one.loomId === loomId)!.wires.filter((wire) => wire.circuitId === circuitId);
  const atSplice = new Map<string, { wire: (typeof wires)[number]; isNode: boolean }[]>();
  for (const wire of wires)
    for (const [here, there] of [
      [wire.from, wire.to],
      [wire.to, wire.from],
    ] as const)
      if (here.kind === 'splice') {
        const isNode = there.kind === 'cavity' && !plugs.has(`${loomId}/${there.endId}`);
        pushTo(atSplice, here.spliceId, { wire, isNode });
      }
  return [...atSplice].flatMap(([spliceId, list]) => {
    const nodes = list.filter(({ isNode }) => isNode).sort((a, b) => b.wire.lengthMm - a.wire.lengthMm);
    const stub = nodes.slice(Math.max(0, 2 - (list.length - nodes.length)))[0]?.wire;
    return stub ? [{ loomId, circuitId, spliceId, number: stub.number, lengthMm: stub.lengthMm }] : [];
  });
}
