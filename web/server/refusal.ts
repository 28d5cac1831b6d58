import type { Problem } from 'wattograph-core';

/** A request that is not carried out, with what is wrong. Expected, so it is said rather than logged as an error. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly problems: Problem[],
    readonly more: Record<string, unknown> = {},
  ) {
    super(problems[0]?.message ?? 'refused');
  }

  static at(status: number, path: string, message: string): Refusal {
    return new Refusal(status, [{ path, message }]);
  }
}
