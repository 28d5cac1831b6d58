import type { FirstPower } from '../../make';
import { writeCsv } from '../toCsv';

export const POWER_COLUMNS = [
  'test',
  'part',
  'modes',
  'switches',
  'what',
  'note',
  'hazard',
  'supply limit A',
  'expected',
  'least',
  'most',
  'unit',
  'value',
] as const;

const figure = (value: number | null) => (value === null ? '' : Number(value.toPrecision(6)));

/** First power of a vehicle in its order, one line a reading; value is left to be filled in. A look is 1 where it is as said, 0 where not. */
export function toPowerCsv({ tests, states, limitA }: FirstPower): string {
  const byId = new Map(states.map((state) => [state.id, state]));
  return writeCsv(
    [...POWER_COLUMNS],
    tests.map(({ id, part, stateId, words, note, hazard, unit, expected, least, most }) => {
      const state = stateId === null ? undefined : byId.get(stateId);
      const limit = part === 'bare' || part === 'grounds' ? null : (limitA[id] ?? state?.limitA ?? null);
      return [
        ...[id, part, state?.name ?? '', state?.settings.map((one) => `${one.name}: ${one.state}`).join('; ') ?? '', words, note, hazard],
        ...[figure(limit), figure(expected), figure(least), figure(most), unit, ''],
      ];
    }),
  );
}
