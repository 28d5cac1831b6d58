import type { PlannedTermination } from '../plan';
import { toLetters } from '../units';

type Tooling = Pick<PlannedTermination, 'contactName' | 'sealName' | 'stripMm' | 'tool' | 'positioner' | 'problem'>;

/** Crimps of one end that are made alike: the same contact, seal, strip and tool. */
export interface CrimpKind extends Tooling {
  /** a, b, c … */
  letter: string;
  /** how many there are */
  count: number;
}

const toKey = ({ contactName, sealName, stripMm, tool, positioner, problem }: Tooling) =>
  JSON.stringify([contactName, sealName, stripMm, tool, positioner, problem]);

/** The kinds of crimps of an end, most of them first, and which kind each termination is. */
export function listCrimpKinds(terminations: readonly PlannedTermination[]): {
  kinds: CrimpKind[];
  kindOf: (one: PlannedTermination) => CrimpKind;
} {
  const counts = new Map<string, { of: PlannedTermination; count: number }>();
  for (const one of terminations) {
    const known = counts.get(toKey(one));
    if (known) known.count += 1;
    else counts.set(toKey(one), { of: one, count: 1 });
  }
  const byKey = new Map(
    [...counts]
      .sort(([, a], [, b]) => b.count - a.count)
      .map(
        (
          [
            key,
            {
              of: { contactName, sealName, stripMm, tool, positioner, problem },
              count,
            },
          ],
          index,
        ): [string, CrimpKind] => [key, { letter: toLetters(index), count, contactName, sealName, stripMm, tool, positioner, problem }],
      ),
  );
  return { kinds: [...byKey.values()], kindOf: (one) => byKey.get(toKey(one))! };
}
