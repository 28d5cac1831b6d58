import { toOhmWords } from '../toMeterReading';
import { isOpenReading } from './createSeen';
import type { ProofTest } from './types';

const figure = (value: number): number => Number(value.toPrecision(3));

/** A reading as it is said: 18.9 mΩ, 120 Ω, 41 mV, 2000 MΩ; OL for an open circuit. */
export function toReadingWords({ unit }: Pick<ProofTest, 'unit'>, value: number): string {
  if (isOpenReading({ unit }, value)) return 'OL';
  if (unit === 'MΩ') return value < 1 ? `${figure(value * 1000)} kΩ` : `${figure(value)} MΩ`;
  if (unit === 'mV') return `${figure(value)} mV`;
  return value < 1 ? `${figure(value * 1000)} mΩ` : toOhmWords(value);
}

/** What passes, as it is said: "up to 119 mΩ", "at least 100 MΩ", "96 to 144 Ω". */
export function toPassWords(test: Pick<ProofTest, 'unit' | 'least' | 'most'>): string {
  const { least, most } = test;
  if (least !== null && most !== null) return `${toReadingWords(test, least)} to ${toReadingWords(test, most)}`;
  if (most !== null) return `up to ${toReadingWords(test, most)}`;
  return least === null ? 'joined or not' : `at least ${toReadingWords(test, least)}`;
}
