import { REGISTER, type RuleCode } from './register';
import type { Finding, FindingPlace, RuleContext } from './types';

/** A finding of the grade that its rule has, or a lesser one where less is known; with its key made from code, loom and places. */
export function createFinding(
  { loomId }: Pick<RuleContext, 'loomId'>,
  code: RuleCode,
  places: FindingPlace[],
  sentence: string,
  rest: Partial<Pick<Finding, 'grade' | 'measured' | 'limit' | 'fix'>> = {},
): Finding {
  return {
    code,
    grade: REGISTER[code].grade,
    loomId,
    places,
    sentence,
    measured: null,
    limit: null,
    fix: null,
    key: [code, loomId, ...places.map(({ id }) => id)].join(':').slice(0, 120),
    ...rest,
  };
}

/** Where a finding about something at an end stands: the end, and what of it: a load, a pin. */
export const toPlacesAt = (endId: string, itemId: string): FindingPlace[] => [
  { kind: 'end', id: endId },
  { kind: 'item', id: itemId },
];
