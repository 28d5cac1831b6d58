/** What was looked at and found right, with all else that the look went by. */
export interface Passed {
  /** Was this thing, as this name, found right beside the same things? */
  has: (value: unknown, name: string, beside?: readonly unknown[]) => boolean;
  /** It is. Kept only of what is frozen through and through: nothing of it can be another the next time. */
  add: (value: unknown, name: string, beside?: readonly unknown[]) => void;
}

/** A memory of what passed: an edit leaves most of a document as it is, and that need not be looked at again. */
export function createPassed(): Passed {
  const known = new WeakMap<object, { name: string; beside: readonly unknown[] }>();
  return {
    has: (value, name, beside = []) => {
      const found = isObject(value) ? known.get(value) : undefined;
      return found?.name === name && found.beside.length === beside.length && found.beside.every((one, index) => one === beside[index]);
    },
    add: (value, name, beside = []) => {
      if (isObject(value) && isFrozenThrough(value)) known.set(value, { name, beside });
    },
  };
}

const isObject = (value: unknown): value is object => typeof value === 'object' && value !== null;

/** what was walked through once: most of a document is as it was */
const frozen = new WeakSet<object>();

/** Can nothing of it be changed any more? */
export function isFrozenThrough(value: object): boolean {
  if (frozen.has(value)) return true;
  if (!Object.isFrozen(value) || !Object.values(value).every((one) => !isObject(one) || isFrozenThrough(one))) return false;
  frozen.add(value);
  return true;
}
