/** A short id that the record does not have yet: prefix and the next number. */
export function createId(record: Record<string, unknown>, prefix: string): string {
  for (let serial = Object.keys(record).length + 1; ; serial += 1) {
    if (!Object.hasOwn(record, `${prefix}${serial}`)) return `${prefix}${serial}`;
  }
}
