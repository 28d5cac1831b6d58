const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'variant' });

/** Natural order for ids and cavity names: "9" before "10", and the same on every machine. */
export function compareIds(a: string, b: string): number {
  return collator.compare(a, b) || (a < b ? -1 : a > b ? 1 : 0);
}
