import { toPinKey, type PinPlace } from '../../plan';
import type { Job, PinNeed, PinOffer } from '../../model';
import { compareIds } from '../../units';

export interface NetPin extends PinPlace {
  need: PinNeed | null;
  offer: PinOffer | null;
}

/** What is joined by circuits and mated plugs, before any wire is led. */
export interface MappedNet {
  circuits: { loomId: string; circuitId: string }[];
  pins: NetPin[];
}

/** The other face of a plug: end of a loom → the end it mates with. */
export function listOtherSides(job: Job): Map<string, { loomId: string; endId: string }> {
  return new Map(
    Object.values(job.mates).flatMap(({ a, b }) => [[`${a.loomId}/${a.endId}`, b] as const, [`${b.loomId}/${b.endId}`, a] as const]),
  );
}

/** Nets of a job by its circuits, and the net of every pin that is wired. All rings of a stud are one net. */
export function createNetMap(job: Job): { nets: MappedNet[]; netOf: Map<string, MappedNet> } {
  const others = listOtherSides(job);
  const circuits = Object.keys(job.looms)
    .sort(compareIds)
    .flatMap((loomId) =>
      Object.keys(job.looms[loomId]!.circuits)
        .sort(compareIds)
        .map((circuitId) => ({ loomId, circuitId })),
    );
  const at = new Map<string, number[]>();
  const add = (key: string, index: number) => at.set(key, [...(at.get(key) ?? []), index]);
  circuits.forEach(({ loomId, circuitId }, index) => {
    for (const place of job.looms[loomId]!.circuits[circuitId]!.terminations) {
      const end = job.looms[loomId]!.ends[place.endId]!;
      add(end.kind === 'ring' ? `${loomId}/${place.endId}` : toPinKey({ loomId, ...place }), index);
      const other = others.get(`${loomId}/${place.endId}`);
      if (other) add(toPinKey({ ...other, cavity: place.cavity }), index);
    }
  });
  const neighbours = circuits.map(() => new Set<number>());
  for (const list of at.values()) for (const one of list) for (const other of list) neighbours[one]!.add(other);
  const seen = new Set<number>();
  const nets: MappedNet[] = [];
  const netOf = new Map<string, MappedNet>();
  circuits.forEach((_, start) => {
    if (seen.has(start)) return;
    const reached = new Set([start]);
    for (const one of reached) for (const next of neighbours[one]!) reached.add(next);
    const net: MappedNet = { circuits: [...reached].sort((a, b) => a - b).map((index) => circuits[index]!), pins: [] };
    for (const index of reached) seen.add(index);
    for (const { loomId, circuitId } of net.circuits)
      for (const place of job.looms[loomId]!.circuits[circuitId]!.terminations) {
        const end = job.looms[loomId]!.ends[place.endId]!;
        const pin = {
          loomId,
          ...place,
          need: end.pins[place.cavity] ?? null,
          offer: end.offers[place.cavity] ?? (end.kind === 'ring' ? (Object.values(end.offers)[0] ?? null) : null),
        };
        net.pins.push(pin);
        netOf.set(toPinKey(pin), net);
      }
    nets.push(net);
  });
  return { nets, netOf };
}
