type Tree = unknown;
const isRecord = (value: Tree): value is Record<string, Tree> => typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * A document as it was read again, with every part that says the same as before as the object that it was before: what remembers by object finds it.
 * Documents of JSON alone.
 */
export function keepEqual<T>(before: unknown, now: T): T {
  if (before === now) return now;
  if (Array.isArray(now)) {
    if (!Array.isArray(before)) return now;
    const kept = now.map((one: unknown, at) => (at < before.length ? keepEqual(before[at] as unknown, one) : one));
    return (kept.length === before.length && kept.every((one, at) => one === before[at]) ? before : kept) as T;
  }
  if (!isRecord(now) || !isRecord(before)) return now;
  const keys = Object.keys(now);
  const earlier = Object.keys(before);
  const kept = Object.fromEntries(keys.map((key) => [key, Object.hasOwn(before, key) ? keepEqual(before[key], now[key]) : now[key]]));
  // the order of a record is part of what it says: what is listed is listed in it
  const isSame = keys.length === earlier.length && keys.every((key, at) => key === earlier[at] && kept[key] === before[key]);
  return (isSame ? before : kept) as T;
}
