import type { LengthAllowance } from './types';

/** What a cut length is made of, in a few figures: "910 run + 8.2 out + 101 ends + 0.8 up". Terms that are nothing are left out. */
export function toSumWords(addends: readonly LengthAllowance[]): string {
  const sums = { run: 0, out: 0, ends: 0, up: 0 };
  for (const { kind, mm } of addends) {
    if (kind === 'segment') sums.run += mm;
    else if (kind === 'breakout') sums.out += mm;
    else if (kind === 'rounding') sums.up += mm;
    else sums.ends += mm;
  }
  return Object.entries(sums)
    .filter(([, mm]) => mm > 0.05)
    .map(([words, mm]) => `${Number(mm.toFixed(1))} ${words}`)
    .join(' + ');
}
