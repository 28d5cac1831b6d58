/** Whole numbers as people write them: 3, 5–9, 12. */
export function toRangeWords(numbers: readonly number[]): string {
  const sorted = [...new Set(numbers)].sort((a, b) => a - b);
  const ranges: [from: number, to: number][] = [];
  for (const one of sorted) {
    const last = ranges.at(-1);
    if (last && one === last[1] + 1) last[1] = one;
    else ranges.push([one, one]);
  }
  return ranges.map(([from, to]) => (from === to ? String(from) : to === from + 1 ? `${from}, ${to}` : `${from}–${to}`)).join(', ');
}
