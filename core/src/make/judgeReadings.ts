import type { ExpectedReading } from './step';

/** Does a reading pass? At its limit it does. */
export const isPassing = ({ least, most }: Pick<ExpectedReading, 'least' | 'most'>, value: number): boolean =>
  (least === null || value >= least) && (most === null || value <= most);

/** "at least 40 N", "at most 0.214 Ω". */
export function toLimitWords({ unit, least, most }: Pick<ExpectedReading, 'unit' | 'least' | 'most'>): string {
  const figure = (value: number) => `${Number(value.toPrecision(4))} ${unit}`;
  return [least === null ? '' : `at least ${figure(least)}`, most === null ? '' : `at most ${figure(most)}`].filter(Boolean).join(', ');
}

/** A reading as it was taken. */
export interface TakenReading {
  readId: string;
  value: number;
}

/** What is read and does not pass: of each expected reading the last one taken. */
export function listFailed<T extends TakenReading>(
  expected: readonly ExpectedReading[],
  taken: readonly T[],
): { expected: ExpectedReading; taken: T }[] {
  return expected.flatMap((one) => {
    const last = taken.findLast(({ readId }) => readId === one.id);
    return last && !isPassing(one, last.value) ? [{ expected: one, taken: last }] : [];
  });
}
