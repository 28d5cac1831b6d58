import type { Finding, FindingPlace, Grade, RuleContext } from './types';

/** A finding with its key made from code, loom and places. */
export function createFinding(
  { loomId }: Pick<RuleContext, 'loomId'>,
  code: string,
  grade: Grade,
  places: FindingPlace[],
  sentence: string,
  rest: Partial<Pick<Finding, 'measured' | 'limit' | 'fix'>> = {},
): Finding {
  return {
    code,
    grade,
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
