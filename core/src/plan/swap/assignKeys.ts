const MOST_TRIALS = 20_000;

/**
 * Keys with which no two of these ends that could be confused have the same, changing as few as possible: branch and bound. null: there is no
 * such choice, or none was found within a fixed number of trials. present: the keys as they are, null the only or the normal one.
 */
export function assignKeys(
  ends: readonly string[],
  confused: readonly (readonly [string, string])[],
  keys: readonly string[],
  present: ReadonlyMap<string, string | null>,
): ReadonlyMap<string, string | null> | null {
  const against = new Map(ends.map((id): [string, string[]] => [id, []]));
  for (const [a, b] of confused) {
    against.get(a)!.push(b);
    against.get(b)!.push(a);
  }
  // who is confused with most is decided first
  const order = [...ends].sort((a, b) => against.get(b)!.length - against.get(a)!.length);
  const chosen = new Map<string, string | null>();
  let best: Map<string, string | null> | null = null;
  let least = Infinity;
  let trials = 0;
  const go = (at: number, changes: number) => {
    trials += 1;
    if (changes >= least || trials > MOST_TRIALS) return;
    const end = order[at];
    if (end === undefined) {
      best = new Map(chosen);
      least = changes;
      return;
    }
    const own = present.get(end) ?? null;
    for (const key of [own, ...keys.filter((one) => one !== own)]) {
      if (against.get(end)!.some((other) => chosen.has(other) && chosen.get(other) === key)) continue;
      chosen.set(end, key);
      go(at + 1, changes + (key === own ? 0 : 1));
      chosen.delete(end);
    }
  };
  go(0, 0);
  return best;
}
