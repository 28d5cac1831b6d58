import { findFamily, type Catalogue } from '../../catalogue';
import { listCavities, type Job, type Loom } from '../../model';
import { findStandard, type LoomPlan } from '../../plan';
import { compareIds, pushTo } from '../../units';
import type { ContinuityRow } from '../listContinuity';
import { findIsolation, listIsolation, toPairId } from './listIsolation';
import { listBuiltIn, listProvedNets, toPiece } from './listProvedNets';
import { toProbe, toProbeKey, type ProofTest, type ProvedEnd, type ProvedNet, type RingOut } from './types';

/**
 * What is measured on a finished bare loom (craft E1): every pin against the anchor of its net, k − 1 measurements for k pins; every net once
 * against all others tied together; every part that is built into the loom. Expected values and limits are those of the continuity table.
 */
export function createRingOut(
  job: Job,
  catalogue: Catalogue,
  plan: Pick<LoomPlan, 'loomId' | 'wires' | 'splices'>,
  continuity: readonly ContinuityRow[],
): RingOut {
  const standard = findStandard(job, catalogue);
  const loom = job.looms[plan.loomId]!;
  const copper = plan.wires.map(toPiece);
  const parts = listBuiltIn(job, plan.loomId, copper);
  const nets = listProvedNets(job, plan, continuity);
  const netOf = new Map(nets.flatMap(({ id, probes }) => probes.map((probe) => [toProbeKey(probe), id])));
  const ends = listProvedEnds(job, catalogue, loom, nets);
  const jointOhm: Record<string, number> = {};
  for (const { from, to } of copper)
    for (const key of [from, to]) {
      const isBolted = !key.startsWith('splice ') && loom.ends[toProbe(key).endId]!.kind !== 'connector';
      const { spliceMilliohm, ringMilliohm, contactMilliohm } = standard;
      jointOhm[key] = (key.startsWith('splice ') ? spliceMilliohm : isBolted ? ringMilliohm : contactMilliohm) / 1000;
    }
  const joins = toOrder(
    continuity.map((row) => toJoin(row, netOf.get(toProbeKey(row.from))!)),
    ends,
  );
  const across = parts.flatMap(({ a, b, ohms }): ProofTest[] => {
    const netId = netOf.get(toProbeKey(a))!;
    if (ohms === null) return [];
    const limits = { expected: ohms, least: ohms * (1 - standard.partBandShare), most: ohms * (1 + standard.partBandShare) };
    return [{ id: toPairId(a, b), kind: 'part', netId, from: a, to: b, wires: [], unit: 'Ω', atA: null, ...limits }];
  });
  const { megohm, volts: isolationVolts } = findIsolation(loom, standard);
  const tests = [...joins, ...across, ...listIsolation(nets, megohm)];
  return { loomId: plan.loomId, ends, nets, copper, parts, jointOhm, tests, moves: countMoves(joins), isolationVolts };
}

function listProvedEnds(job: Job, catalogue: Catalogue, loom: Loom, nets: readonly ProvedNet[]): ProvedEnd[] {
  const wired = new Map<string, string[]>();
  for (const { probes } of nets) for (const { endId, cavity } of probes) pushTo(wired, endId, cavity);
  return [...wired].map(([id, used]) => {
    const { name, kind, familyId } = loom.ends[id]!;
    const family = kind === 'connector' ? findFamily(job, catalogue, familyId) : undefined;
    const cavities = family ? [...listCavities(family)] : [...used].sort(compareIds);
    return { id, name, hasCavities: kind === 'connector', cavities, empty: cavities.filter((cavity) => !used.includes(cavity)) };
  });
}

const toJoin = ({ from, to, wires, expectedOhm, mostOhm, millivolts }: ContinuityRow, netId: string): ProofTest => ({
  ...{ id: toPairId(from, to), kind: 'join', netId, from, to, wires, least: null },
  ...(millivolts
    ? { unit: 'mV', atA: millivolts.atA, expected: millivolts.expectedMv, most: millivolts.mostMv }
    : { unit: 'Ω', atA: null, expected: expectedOhm, most: mostOhm }),
});

/** One probe stays at the end where most begins; the other goes from end to end, and at each by the face. */
function toOrder(joins: readonly ProofTest[], ends: readonly ProvedEnd[]): ProofTest[] {
  const count = new Map<string, number>();
  for (const { from } of joins) count.set(from.endId, (count.get(from.endId) ?? 0) + 1);
  const place = new Map(ends.flatMap(({ id, cavities }) => cavities.map((cavity, at) => [`${id} ${cavity}`, at])));
  return [...joins].sort(
    (a, b) =>
      count.get(b.from.endId)! - count.get(a.from.endId)! ||
      compareIds(a.from.endId, b.from.endId) ||
      compareIds(a.to!.endId, b.to!.endId) ||
      place.get(toProbeKey(a.to!))! - place.get(toProbeKey(b.to!))!,
  );
}

const countMoves = (joins: readonly ProofTest[]): number =>
  joins.reduce((sum, { from, to }, at) => {
    const before = joins[at - 1];
    return sum + Number(before?.from.endId !== from.endId) + Number(before?.to!.endId !== to!.endId);
  }, 0);
