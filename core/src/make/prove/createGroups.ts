/** Things that belong together, told two by two. */
export interface Groups {
  join: (a: string, b: string) => void;
  /** the same name for all that were joined */
  find: (key: string) => string;
}

export function createGroups(): Groups {
  const above = new Map<string, string>();
  const find = (key: string): string => {
    let at = key;
    for (let up = above.get(at); up !== undefined && up !== at; up = above.get(at)) {
      // the way gets shorter each time it is gone
      const next = above.get(up) ?? up;
      above.set(at, next);
      at = next;
    }
    return at;
  };
  return { find, join: (a, b) => void above.set(find(a), find(b)) };
}
