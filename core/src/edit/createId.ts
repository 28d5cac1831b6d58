/**
 * Put a new thing into a record, under the id that it was begun with or, where that has been given meanwhile, the next one: the
 * page that began it may have been a change behind, and nothing that is added takes the place of what is there.
 */
export function putNew<Value>(record: Record<string, Value>, id: string, value: Value): void {
  record[Object.hasOwn(record, id) ? createId(record, id.replace(/\d+$/, '')) : id] = value;
}

/** A short id that the record does not have yet: prefix and the next number. */
export function createId(record: Record<string, unknown>, prefix: string): string {
  for (let serial = Object.keys(record).length + 1; ; serial += 1) {
    if (!Object.hasOwn(record, `${prefix}${serial}`)) return `${prefix}${serial}`;
  }
}
