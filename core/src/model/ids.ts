import { Type, type TSchema } from '@sinclair/typebox';

/** Ids are short, typed by people at times, and safe inside a JSON Pointer (no slash, no tilde). */
export const IdSchema = Type.String({ pattern: '^[A-Za-z0-9][A-Za-z0-9_.@-]{0,39}$' });

/** What people read: one line, not empty. */
export const NameSchema = Type.String({ minLength: 1, maxLength: 80, pattern: '\\S' });

/** Why something was chosen by hand. Never empty: a pin without a reason is not accepted. */
export const ReasonSchema = Type.String({ minLength: 1, maxLength: 400, pattern: '\\S' });

/** A record keyed by ids in which no other key may stand. */
export function recordOf<T extends TSchema>(schema: T, options: Record<string, unknown> = {}) {
  return Type.Record(IdSchema, schema, { additionalProperties: false, ...options });
}
