import { findFamily, type Catalogue } from '../catalogue';
import { listCavities, type Circuit, type Job } from '../model';
import { compareIds } from '../units';

/** One half of a break. */
export interface BreakSide {
  loomId: string;
  endId: string;
  /** "firewall plug, engine" */
  words: string;
  prefix: string;
}

/** A cavity of a break and what lies in it on either side; null: nothing. */
export interface BreakRow {
  cavity: string;
  circuits: readonly [Circuit | null, Circuit | null];
}

/** Both faces of a break, cavity by cavity as its housing has them (or as they are wired, where no housing is chosen); all that is empty on both sides as spare. */
export function listBreak(
  job: Job,
  catalogue: Catalogue,
  mateId: string,
): { sides: readonly [BreakSide, BreakSide]; rows: BreakRow[]; spare: string[] } {
  const { a, b } = job.mates[mateId]!;
  const at = [a, b].map(({ loomId, endId }) => {
    const found = new Map<string, Circuit>();
    for (const circuit of Object.values(job.looms[loomId]!.circuits))
      for (const one of circuit.terminations) if (one.endId === endId) found.set(one.cavity, circuit);
    return found;
  });
  const toSide = ({ loomId, endId }: typeof a): BreakSide => {
    const { name, prefix, ends } = job.looms[loomId]!;
    return { loomId, endId, words: `${ends[endId]!.name}, ${name}`, prefix };
  };
  const family = findFamily(job, catalogue, job.looms[a.loomId]!.ends[a.endId]!.familyId);
  const cavities = family ? listCavities(family) : [...new Set(at.flatMap((found) => [...found.keys()]))].sort(compareIds);
  const all = cavities.map((cavity): BreakRow => ({ cavity, circuits: [at[0]!.get(cavity) ?? null, at[1]!.get(cavity) ?? null] }));
  return {
    sides: [toSide(a), toSide(b)],
    rows: all.filter(({ circuits: [one, other] }) => one !== null || other !== null),
    spare: all.filter(({ circuits: [one, other] }) => one === null && other === null).map(({ cavity }) => cavity),
  };
}
