import type { TSchema } from '@sinclair/typebox';

/** A field of a record as a cell: nothing for null, JSON for what is a list or a table of its own. */
export const toCell = (value: unknown): string | number =>
  value === null || value === undefined
    ? ''
    : typeof value === 'number'
      ? value
      : typeof value === 'boolean'
        ? value
          ? 'yes'
          : 'no'
        : typeof value === 'string'
          ? value
          : JSON.stringify(value);

/** What writing led with an apostrophe, so that a spreadsheet does not run it. */
export const fromEscaped = (text: string) => (/^'[=+\-@\t\r]/.test(text) ? text.slice(1) : text).trim();

const listShapes = (schema: TSchema): TSchema[] => (schema.anyOf as TSchema[] | undefined)?.flatMap(listShapes) ?? [schema];

/** The value of a cell by the first shape that it has; undefined: it has none of them. */
export function readCell(text: string, schemas: readonly TSchema[]): { value: unknown } | undefined {
  const shapes = schemas.flatMap(listShapes);
  const words = shapes.filter(({ const: one }) => typeof one === 'string').map(({ const: one }) => one as string);
  if (words.includes(text)) return { value: text };
  if (text === '' && shapes.some(({ type }) => type === 'null')) return { value: null };
  for (const { type, const: fixed } of shapes) {
    if (fixed !== undefined) continue;
    if (type === 'number' || type === 'integer') {
      const value = Number(text.replace(',', '.'));
      if (text !== '' && Number.isFinite(value) && (type === 'number' || Number.isInteger(value))) return { value };
    } else if (type === 'boolean') {
      if (/^(yes|no)$/i.test(text)) return { value: /^yes$/i.test(text) };
    } else if (type === 'string') return { value: text };
    else if (type === 'object' || type === 'array') {
      const value = toJson(text);
      if (value !== undefined && Array.isArray(value) === (type === 'array')) return { value };
    }
  }
  return undefined;
}

function toJson(text: string): object | undefined {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null ? value : undefined;
  } catch {
    return undefined;
  }
}

/** The shapes of a cell in words: "a number or nothing". */
export function describeCell(schema: TSchema): string {
  const shapes = listShapes(schema);
  const words = shapes.flatMap(({ const: one, type }) =>
    one !== undefined
      ? [`"${String(one)}"`]
      : type === 'null'
        ? ['nothing']
        : type === 'boolean'
          ? ['yes or no']
          : type === 'number' || type === 'integer'
            ? [type === 'integer' ? 'a whole number' : 'a number']
            : type === 'object' || type === 'array'
              ? ['JSON']
              : ['text'],
  );
  return [...new Set(words)].join(' or ');
}
