/** What was made of an object, for as long as that is there and the rest that it was made with is the same. Only ever a shortcut. */
export function createKeeper<Of extends object, T>(): (of: Of, inputs: readonly unknown[], make: () => T) => T {
  const kept = new WeakMap<Of, { inputs: readonly unknown[]; value: T }>();
  return (of, inputs, make) => {
    const known = kept.get(of);
    if (known && known.inputs.every((one, at) => one === inputs[at])) return known.value;
    const value = make();
    kept.set(of, { inputs, value });
    return value;
  };
}
