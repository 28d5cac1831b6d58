import type { Present } from './listPresent';

/**
 * Threads by when they leave and come: what is there longest first, and of those what does not come out within the stretch. What is in a later
 * class can lie over what is in an earlier one without being passed by it, where all began together.
 */
export function listClasses(present: readonly Present[]): Present[][] {
  const byKey = new Map<string, Present[]>();
  for (const one of present) {
    const key = `${one.fromMm} ${one.toMm} ${one.exits.join()} ${one.joints.join()}`;
    const known = byKey.get(key);
    if (known) known.push(one);
    else byKey.set(key, [one]);
  }
  const length = ([one]: readonly Present[]) => one!.toMm - one!.fromMm;
  const ways = ([one]: readonly Present[]) => one!.exits.length + one!.joints.length;
  return [...byKey.values()].sort((a, b) => length(b) - length(a) || ways(a) - ways(b) || a[0]!.fromMm - b[0]!.fromMm);
}

/** The heavy and thick inside. */
const byThickness = (a: Present, b: Present) =>
  b.thread.areaMm2 - a.thread.areaMm2 || b.thread.odMm - a.thread.odMm || (a.thread.id < b.thread.id ? -1 : 1);

/**
 * Threads in the order in which they lie from the middle outwards: class by class, the thickest of each inside. isJoined: of each class but the
 * first, is it ordered together with the one before it, as if they left together?
 */
export function orderThreads(classes: readonly (readonly Present[])[], isJoined: (index: number) => boolean = () => false): Present[] {
  const groups: Present[][] = [];
  classes.forEach((members, index) => {
    if (index > 0 && isJoined(index)) groups.at(-1)!.push(...members);
    else groups.push([...members]);
  });
  return groups.flatMap((members) => members.sort(byThickness));
}
