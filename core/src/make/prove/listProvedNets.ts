import type { Job } from '../../model';
import type { LoomPlan, PlannedWire } from '../../plan';
import { compareIds, pushTo } from '../../units';
import type { ContinuityRow } from '../listContinuity';
import { toPartWords } from '../toMeterReading';
import { createGroups } from './createGroups';
import { toProbe, toProbeKey, type CopperPiece, type Probe, type ProvedNet, type ProvedPart } from './types';

const toKey = (end: PlannedWire['from']) => (end.kind === 'cavity' ? toProbeKey(end) : `splice ${end.spliceId}`);

/** A wire as a tester sees it. */
export const toPiece = ({ id, number, circuitId, from, to, conductor, cutMm, cable }: PlannedWire): CopperPiece => ({
  ...{ wireId: id, number, circuitId, from: toKey(from), to: toKey(to) },
  ohm: (conductor.r20MilliohmPerM * cutMm) / 1e6,
  groupId: cable?.groupId ?? null,
});

/** Parts that are built into this loom, at both of whose cavities a wire ends; what is inside a device is not there when a loom is proved. */
export function listBuiltIn(job: Job, loomId: string, copper: readonly CopperPiece[]): ProvedPart[] {
  const wired = new Set(copper.flatMap(({ from, to }) => [from, to]));
  return Object.entries(job.parts).flatMap(([id, part]) => {
    const { at, inside, ohms } = part;
    const [a, b] = at.cavities.map((cavity) => ({ endId: at.endId, cavity })) as [Probe, Probe];
    if (inside || at.loomId !== loomId || !wired.has(toProbeKey(a)) || !wired.has(toProbeKey(b))) return [];
    return [{ id, words: toPartWords(part), a, b, ohms }];
  });
}

/** Nets of a bare loom: what its wires join, the anchor of the continuity table first among its pins. */
export function listProvedNets(
  job: Job,
  { loomId, wires }: Pick<LoomPlan, 'loomId' | 'wires'>,
  continuity: readonly ContinuityRow[],
): ProvedNet[] {
  const { circuits: known } = job.looms[loomId]!;
  const copper = wires.map(toPiece);
  const { join, find } = createGroups();
  for (const { from, to } of copper) join(from, to);
  const pieces = new Map<string, CopperPiece[]>();
  for (const piece of copper) pushTo(pieces, find(piece.from), piece);
  const anchors = new Set(continuity.map(({ from }) => toProbeKey(from)));
  const nets = [...pieces.values()].map((of): ProvedNet => {
    const circuits = [...new Set(of.map(({ circuitId }) => circuitId))].sort(compareIds);
    const keys = [...new Set(of.flatMap(({ from, to }) => [from, to]))].filter((key) => !key.startsWith('splice '));
    keys.sort((a, b) => Number(anchors.has(b)) - Number(anchors.has(a)) || compareIds(a, b));
    return {
      id: circuits[0]!,
      name: circuits.map((id) => known[id]!.name).join(' + '),
      kind: known[circuits[0]!]!.kind,
      probes: keys.map(toProbe),
      wireIds: of.map(({ wireId }) => wireId),
      partnerIds: [],
    };
  });
  const netOf = new Map(nets.flatMap((net) => net.probes.map((probe) => [toProbeKey(probe), net])));
  for (const { a, b } of listBuiltIn(job, loomId, copper)) {
    const [one, other] = [netOf.get(toProbeKey(a))!, netOf.get(toProbeKey(b))!];
    if (one !== other)
      [one.partnerIds, other.partnerIds] = [
        [...one.partnerIds, other.id],
        [...other.partnerIds, one.id],
      ];
  }
  return nets.filter(({ probes }) => probes.length > 0).sort((a, b) => compareIds(a.id, b.id));
}
