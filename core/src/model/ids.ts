import { Type, type TSchema } from '@sinclair/typebox';

/** One of these words, with the words as its type. */
export const literals = <const T extends readonly string[]>(names: T, options: Record<string, unknown> = {}) =>
  Type.Unsafe<T[number]>(
    Type.Union(
      names.map((name) => Type.Literal(name)),
      options,
    ),
  );

/** A day, as in 2026-11-25. */
export const DateSchema = Type.String({ pattern: '^\\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\\d|3[01])$' });

/** Ids are short, typed by people at times, and safe inside a JSON Pointer (no slash, no tilde). */
export const IdSchema = Type.String({ pattern: '^[A-Za-z0-9][A-Za-z0-9_.@-]{0,39}$' });

/** What people read: one line, not empty. */
export const NameSchema = Type.String({ minLength: 1, maxLength: 80, pattern: '\\S' });

/** Why something was chosen by hand. Never empty: a pin without a reason is not accepted. */
export const ReasonSchema = Type.String({ minLength: 1, maxLength: 400, pattern: '\\S' });

/** A part of the shop chosen by hand. itemId null: nothing goes there. */
export const PartPinSchema = Type.Object(
  { itemId: Type.Union([IdSchema, Type.Null()]), reason: ReasonSchema },
  { additionalProperties: false },
);

/** A record keyed by ids in which no other key may stand. */
export function recordOf<T extends TSchema>(schema: T, options: Record<string, unknown> = {}) {
  return Type.Record(IdSchema, schema, { additionalProperties: false, ...options });
}
