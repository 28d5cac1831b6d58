/** Remembers the last results for an id by the identity of what they were made of. Only ever a shortcut. */
export type Memory<T> = (id: string, inputs: readonly unknown[], make: () => T) => T;

/** A memory that keeps the last few results for each id, the latest first. */
export function createMemory<T>(most: number): Memory<T> {
  const kept = new Map<string, { inputs: readonly unknown[]; value: T }[]>();
  return (id, inputs, make) => {
    let list = kept.get(id);
    if (!list) kept.set(id, (list = []));
    const at = list.findIndex((one) => isSame(one.inputs, inputs));
    const found = at === -1 ? { inputs, value: make() } : list[at]!;
    if (at === 0) return found.value;
    if (at > 0) list.splice(at, 1);
    list.unshift(found);
    if (list.length > most) list.pop();
    return found.value;
  };
}

function isSame(one: readonly unknown[], other: readonly unknown[]): boolean {
  if (one.length !== other.length) return false;
  for (let at = 0; at < one.length; at += 1) if (one[at] !== other[at]) return false;
  return true;
}
