import { findFamily } from '../../catalogue';
import type { Job } from '../../model';
import { listNets, toCircuitKey, type PinPlace } from '../../netlist';
import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, WiringRule } from '../types';

type Mate = Job['mates'][string];

/** MT4, check: the half of a mated pair that stays live once they are apart has pins, which a tool or the body can touch. */
export const checkLiveHalves: WiringRule = ({ job, plan, catalogue }) => {
  const halves = listPinHalves(job, (familyId) => findFamily(job, catalogue, familyId)?.gender ?? null);
  if (halves.length === 0) return [];
  const roots = new Map<string, string>();
  for (const { kind, root, circuits } of plan.power.nets) {
    const from = kind === 'supply' && root ? findCircuit(job, root) : undefined;
    if (from !== undefined) for (const circuit of circuits) roots.set(toCircuitKey(circuit), from);
  }
  return halves.flatMap(({ mateId, half, other }): Finding[] => {
    // what copper still joins once this pair is apart
    const { [mateId]: _, ...mates } = job.mates;
    const { netOf } = listNets({ looms: job.looms, mates });
    const live = Object.entries(job.looms[half.loomId]!.circuits)
      .flatMap(([circuitId, { terminations }]) => {
        const key = toCircuitKey({ loomId: half.loomId, circuitId });
        const root = roots.get(key);
        const isLive = root !== undefined && netOf.get(root) === netOf.get(key);
        return isLive ? terminations.filter(({ endId }) => endId === half.endId).map(({ cavity }) => cavity) : [];
      })
      .sort(compareIds);
    if (live.length === 0) return [];
    const name = ({ loomId, endId }: Mate['a']) => `${job.looms[loomId]!.ends[endId]!.name} (${job.looms[loomId]!.name})`;
    const places = [half, other].map(({ endId }) => ({ kind: 'end' as const, id: endId }));
    return [
      createFinding(
        half,
        'MT4',
        places,
        `${name(half)} stays live in ${live.length === 1 ? 'cavity' : 'cavities'} ${live.join(', ')} once ${name(other)} is off, and has pins: give it the half with sockets.`,
        { measured: live.length, limit: 0 },
      ),
    ];
  });
};

function findCircuit(job: Job, { loomId, endId, cavity }: PinPlace): string | undefined {
  const found = Object.entries(job.looms[loomId]!.circuits).find(([, { terminations }]) =>
    terminations.some((one) => one.endId === endId && one.cavity === cavity),
  );
  return found && toCircuitKey({ loomId, circuitId: found[0] });
}

/** Halves of mated pairs that take pins, where the other does not. */
function listPinHalves(job: Job, toGender: (familyId: string | null) => 'pins' | 'sockets' | null) {
  return Object.keys(job.mates)
    .sort(compareIds)
    .flatMap((mateId) => {
      const { a, b } = job.mates[mateId]!;
      const [one, two] = [a, b].map(({ loomId, endId }) => toGender(job.looms[loomId]!.ends[endId]!.familyId));
      if (one === two || (one !== 'pins' && two !== 'pins')) return [];
      return [one === 'pins' ? { mateId, half: a, other: b } : { mateId, half: b, other: a }];
    });
}
