import { Type, type Static } from '@sinclair/typebox';
import { NameSchema } from './ids';

/** Cavities in rings around the middle (inside first), or in rows of columns (top row first, wire side). */
export const ArrangementSchema = Type.Union([
  Type.Object(
    { kind: Type.Literal('rings'), rings: Type.Array(Type.Integer({ minimum: 1, maximum: 40 }), { minItems: 1, maxItems: 8 }) },
    { additionalProperties: false },
  ),
  Type.Object(
    { kind: Type.Literal('rows'), rows: Type.Array(Type.Integer({ minimum: 1, maximum: 40 }), { minItems: 1, maxItems: 8 }) },
    { additionalProperties: false },
  ),
]);

/** A housing with its cavities, as the shop can buy it or as the planner described it for one job. */
export const ConnectorFamilySchema = Type.Object(
  {
    name: NameSchema,
    arrangement: ArrangementSchema,
    cavitySize: Type.String({ minLength: 1, maxLength: 12, description: 'contacts of this cavity size fit' }),
    pitchMm: Type.Number({ exclusiveMinimum: 0, maximum: 40, description: 'between neighbouring cavities' }),
    envelopeMm: Type.Number({ exclusiveMinimum: 0, maximum: 200, description: 'smallest round hole the housing passes, diameter in mm' }),
    entryDepthMm: Type.Number({ minimum: 0, maximum: 200, description: 'rear face to crimp barrel' }),
    seating: Type.Union([Type.Literal('push-to-seat'), Type.Literal('pull-to-seat')]),
    sealed: Type.Boolean(),
    secondaryLock: Type.Boolean(),
    keys: Type.Array(Type.String({ minLength: 1, maxLength: 8 }), {
      maxItems: 12,
      description: 'keyings to be had, empty where there is one only',
    }),
    massG: Type.Number({ minimum: 0, maximum: 5000 }),
  },
  { additionalProperties: false },
);
export type ConnectorFamily = Static<typeof ConnectorFamilySchema>;

/** Names of the cavities of a housing, counted 1, 2, 3 … in the order of its arrangement. */
export function listCavities(family: ConnectorFamily): string[] {
  const counts = family.arrangement.kind === 'rings' ? family.arrangement.rings : family.arrangement.rows;
  const ways = counts.reduce((sum, count) => sum + count, 0);
  return Array.from({ length: ways }, (_, index) => String(index + 1));
}
