import { Type } from '@sinclair/typebox';

/** A figure above 0 and no larger than anything of its kind is. */
export const positive = (maximum: number, description?: string) =>
  Type.Number({ exclusiveMinimum: 0, maximum, ...(description === undefined ? {} : { description }) });

/** A figure of 0 or more. */
export const least0 = (maximum: number, description?: string) =>
  Type.Number({ minimum: 0, maximum, ...(description === undefined ? {} : { description }) });

/** Words of a tool or a part: one line, may be empty. */
export const Words = Type.String({ maxLength: 120 });

export const CavitySize = Type.String({ minLength: 1, maxLength: 12 });
