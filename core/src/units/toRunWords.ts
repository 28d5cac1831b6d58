/** "2 × AWG 22 with AWG 20": what follows one another alike is counted. */
export function toRunWords(words: readonly string[], joint: string): string {
  const runs: { word: string; count: number }[] = [];
  for (const word of words) {
    const last = runs.at(-1);
    if (last?.word === word) last.count += 1;
    else runs.push({ word, count: 1 });
  }
  return runs.map(({ word, count }) => (count > 1 ? `${count} × ${word}` : word)).join(joint);
}
