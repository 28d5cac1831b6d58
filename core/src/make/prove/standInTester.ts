import { createRandom } from '../../units';
import { toOpen } from './createSeen';
import type { Move } from './faultTypes';
import { toProbeKey, type Probe, type ProofTest, type RingOut } from './types';

/** A fault put into a simulated loom. */
export type Planted =
  | { kind: 'open'; wireId: string }
  | { kind: 'poor'; wireId: string; ohm: number }
  | { kind: 'bridge'; a: Probe; b: Probe }
  | { kind: 'moved'; endId: string; moves: Move[] };

/** one sigma of an ohmmeter, four-wire, Ω; of a millivolt reading, as a share of it; of an insulation meter */
const NOISE_OHM = 0.002;
const NOISE_MV = 0.01;
const GOOD_MEGOHM = 2000;
const BRIDGE_OHM = 0.03;
/** lowest and highest that the meter shows, MΩ */
const DEAD_MEGOHM = 0.001;

interface Edge {
  to: string;
  ohm: number;
}

/**
 * A stand-in for a harness tester: a loom of copper with faults in it, measured with noise. It knows the loom and the faults, and answers one
 * measurement at a time, as a device does; what it answers is what examine has to go by. Deterministic for a seed and an order of questions.
 */
export function createStandInTester(ringOut: RingOut, planted: readonly Planted[], seed: number): (test: ProofTest) => number {
  const random = createRandom(seed);
  const gauss = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const { edges, nodeAt } = createNetwork(ringOut, planted);
  const reach = (from: readonly string[]) => measureFrom(edges, ringOut.jointOhm, from);
  return (test) => {
    if (test.to === null) {
      const net = ringOut.nets.find(({ id }) => id === test.netId)!;
      const others = ringOut.nets.filter(({ id }) => id !== net.id && !net.partnerIds.includes(id));
      const reached = reach(net.probes.map(nodeAt));
      const isJoined = others.some(({ probes }) => probes.some((probe) => reached.has(nodeAt(probe))));
      return isJoined ? DEAD_MEGOHM : GOOD_MEGOHM * (1 + random());
    }
    const ohm = reach([nodeAt(test.from)]).get(nodeAt(test.to));
    if (ohm === undefined) return toOpen(test);
    if (test.unit === 'mV') return 1000 * ohm * test.atA! * (1 + NOISE_MV * gauss());
    return Math.max(0, ohm + NOISE_OHM * gauss());
  };
}

/** The loom as it was made, faults and all: what each place is joined with, and what is met when a probe is put to a cavity. */
function createNetwork({ copper, parts }: RingOut, planted: readonly Planted[]) {
  const edges = new Map<string, Edge[]>();
  const add = (a: string, b: string, ohm: number) => {
    edges.set(a, [...(edges.get(a) ?? []), { to: b, ohm }]);
    edges.set(b, [...(edges.get(b) ?? []), { to: a, ohm }]);
  };
  const open = new Set(planted.flatMap((one) => (one.kind === 'open' ? [one.wireId] : [])));
  const more = new Map(planted.flatMap((one) => (one.kind === 'poor' ? [[one.wireId, one.ohm]] : [])));
  for (const { wireId, from, to, ohm } of copper) if (!open.has(wireId)) add(from, to, ohm + (more.get(wireId) ?? 0));
  for (const { a, b, ohms } of parts) if (ohms !== null) add(toProbeKey(a), toProbeKey(b), ohms);
  const sitsAt = new Map<string, string>();
  for (const one of planted) {
    if (one.kind === 'bridge') add(toProbeKey(one.a), toProbeKey(one.b), BRIDGE_OHM);
    else if (one.kind === 'moved')
      for (const [belongs, sits] of one.moves) {
        sitsAt.set(`${one.endId} ${sits}`, `${one.endId} ${belongs}`);
        // where nothing else came to, nothing is
        if (!one.moves.some(([, other]) => other === belongs)) sitsAt.set(`${one.endId} ${belongs}`, `nothing ${belongs}`);
      }
  }
  const nodeAt = (probe: Probe) => sitsAt.get(toProbeKey(probe)) ?? toProbeKey(probe);
  return { edges, nodeAt };
}

/** Least resistance from some places to all that they reach, joints on the way counted once. */
function measureFrom(
  edges: ReadonlyMap<string, readonly Edge[]>,
  jointOhm: Readonly<Record<string, number>>,
  from: readonly string[],
): Map<string, number> {
  const reached = new Map<string, number>();
  const waiting = new Map(from.map((key) => [key, jointOhm[key] ?? 0]));
  while (waiting.size > 0) {
    let [key, ohm] = ['', Infinity];
    for (const [one, so] of waiting) if (so < ohm) [key, ohm] = [one, so];
    waiting.delete(key);
    reached.set(key, ohm);
    for (const edge of edges.get(key) ?? []) {
      if (reached.has(edge.to)) continue;
      const next = ohm + edge.ohm + (jointOhm[edge.to] ?? 0);
      if (next < (waiting.get(edge.to) ?? Infinity)) waiting.set(edge.to, next);
    }
  }
  return reached;
}
