export const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Each record of a dictionary changed; what has not that shape is left as it is, for the gate to name. */
export function mapRecord(value: unknown, change: (record: Record<string, unknown>) => unknown): unknown {
  if (!isRecord(value)) return value;
  return Object.fromEntries(Object.entries(value).map(([id, one]) => [id, isRecord(one) ? change(one) : one]));
}
