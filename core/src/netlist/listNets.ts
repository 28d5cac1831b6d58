import type { Job } from '../model';
import { compareIds, pushTo } from '../units';
import { toCircuitKey, toPinKey, type CircuitPlace } from './types';

/** Circuits that copper joins through plugs and studs, in order of loom and circuit. */
export type JoinedCircuits = readonly CircuitPlace[];

/** The other face of a plug: end of a loom → the end it mates with. */
export function listOtherSides({ mates }: Pick<Job, 'mates'>): Map<string, { loomId: string; endId: string }> {
  return new Map(
    Object.values(mates).flatMap(({ a, b }) => [[`${a.loomId}/${a.endId}`, b] as const, [`${b.loomId}/${b.endId}`, a] as const]),
  );
}

/**
 * What copper joins in a job, no fuse, contact or device in between: all pins of a circuit, mated cavities, all rings of a stud. Plan, edits
 * and findings go by these.
 */
export function listNets(job: Pick<Job, 'looms' | 'mates'>): { nets: JoinedCircuits[]; netOf: ReadonlyMap<string, JoinedCircuits> } {
  const others = listOtherSides(job);
  const circuits = Object.keys(job.looms)
    .sort(compareIds)
    .flatMap((loomId) =>
      Object.keys(job.looms[loomId]!.circuits)
        .sort(compareIds)
        .map((circuitId): CircuitPlace => ({ loomId, circuitId })),
    );
  // circuits at each contact: a plug's two faces are one
  const at = new Map<string, number[]>();
  circuits.forEach(({ loomId, circuitId }, index) => {
    for (const { endId, cavity } of job.looms[loomId]!.circuits[circuitId]!.terminations) {
      const end = job.looms[loomId]!.ends[endId]!;
      pushTo(at, end.kind === 'ring' ? `${loomId}/${endId}` : toPinKey({ loomId, endId, cavity }), index);
      const other = others.get(`${loomId}/${endId}`);
      if (other) pushTo(at, toPinKey({ ...other, cavity }), index);
    }
  });
  const neighbours = circuits.map(() => new Set<number>());
  // a chain joins as much as all pairs would
  for (const list of at.values())
    for (let index = 1; index < list.length; index += 1) {
      neighbours[list[index - 1]!]!.add(list[index]!);
      neighbours[list[index]!]!.add(list[index - 1]!);
    }
  const netOf = new Map<string, JoinedCircuits>();
  const nets: JoinedCircuits[] = [];
  circuits.forEach((circuit, start) => {
    if (netOf.has(toCircuitKey(circuit))) return;
    const reached = new Set([start]);
    for (const one of reached) for (const next of neighbours[one]!) reached.add(next);
    const net = [...reached].sort((a, b) => a - b).map((index) => circuits[index]!);
    for (const one of net) netOf.set(toCircuitKey(one), net);
    nets.push(net);
  });
  return { nets, netOf };
}
