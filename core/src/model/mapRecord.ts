/** Each record of a dictionary changed; what has not that shape is left as it is, for the gate to name. */
export function mapRecord(value: unknown, change: (record: Record<string, unknown>) => unknown): unknown {
  const isRecord = (one: unknown): one is Record<string, unknown> => typeof one === 'object' && one !== null && !Array.isArray(one);
  if (!isRecord(value)) return value;
  return Object.fromEntries(Object.entries(value).map(([id, one]) => [id, isRecord(one) ? change(one) : one]));
}
