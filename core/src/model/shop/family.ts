import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, NameSchema } from '../ids';

/** As in "27" or "A": 1 to 6 letters or digits. */
export const CAVITY_NAME = /^[A-Za-z0-9]{1,6}$/;
const CavityName = Type.String({ pattern: CAVITY_NAME.source });
const counts = Type.Array(Type.Integer({ minimum: 1, maximum: 40 }), { minItems: 1, maxItems: 8 });
const along = Type.Number({ minimum: -100, maximum: 100 });

/**
 * Where the cavities are, wire side: in rings around the middle (inside first), in rows of columns (top row first), or each at a spot of
 * its own, mm from the middle of the housing, x to the right and y down.
 */
export const ArrangementSchema = Type.Union([
  Type.Object({ kind: Type.Literal('rings'), rings: counts }, { additionalProperties: false }),
  Type.Object({ kind: Type.Literal('rows'), rows: counts }, { additionalProperties: false }),
  Type.Object(
    {
      kind: Type.Literal('spots'),
      round: Type.Boolean({ description: 'outline of the housing: round, else a rectangle' }),
      spots: Type.Array(Type.Object({ xMm: along, yMm: along }, { additionalProperties: false }), { minItems: 1, maxItems: 320 }),
    },
    { additionalProperties: false },
  ),
]);

/** A housing with its cavities, as the shop can buy it or as the planner described it for one job. */
export const ConnectorFamilySchema = Type.Object(
  {
    name: NameSchema,
    arrangement: ArrangementSchema,
    cavityNames: Type.Union([Type.Array(CavityName, { minItems: 1, maxItems: 320 }), Type.Null()], {
      description: 'in the order of the arrangement; null: counted from 1',
    }),
    cavitySize: Type.String({ minLength: 1, maxLength: 12, description: 'contacts of this cavity size fit' }),
    otherSizes: Type.Record(CavityName, Type.String({ minLength: 1, maxLength: 12 }), {
      additionalProperties: false,
      description: 'cavities of another size than that, by name',
    }),
    gender: Type.Union([Type.Literal('pins'), Type.Literal('sockets'), Type.Null()], {
      description: 'contacts this half takes; null: it is one record for both halves',
    }),
    mateId: Type.Union([IdSchema, Type.Null()], { description: 'family it mates with; null: another of its own' }),
    pitchMm: Type.Number({ exclusiveMinimum: 0, maximum: 40, description: 'between neighbouring cavities, the least' }),
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
    adapterMm: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 200 }), Type.Null()], {
      description: 'diameter at its rear that a boot closes on; null: it has nothing to hold one',
    }),
  },
  { additionalProperties: false },
);
export type ConnectorFamily = Static<typeof ConnectorFamilySchema>;

/** Names of the cavities of a housing in the order of its arrangement. */
export function listCavities({ arrangement, cavityNames }: ConnectorFamily): readonly string[] {
  return cavityNames ?? Array.from({ length: countWays(arrangement) }, (_, index) => String(index + 1));
}

/** How many cavities an arrangement has. */
export function countWays(arrangement: ConnectorFamily['arrangement']): number {
  if (arrangement.kind === 'spots') return arrangement.spots.length;
  return (arrangement.kind === 'rings' ? arrangement.rings : arrangement.rows).reduce((sum, count) => sum + count, 0);
}

/** Cavity size of one cavity of a housing. */
export const findCavitySize = ({ cavitySize, otherSizes }: ConnectorFamily, cavity: string): string =>
  Object.hasOwn(otherSizes, cavity) ? otherSizes[cavity]! : cavitySize;

/** Do these two housings go into one another? By the mate that either names, else each with another of its own. */
export function isMate(idA: string, a: ConnectorFamily, idB: string, b: ConnectorFamily): boolean {
  if (a.gender !== null && a.gender === b.gender) return false;
  return a.mateId === null && b.mateId === null ? idA === idB : a.mateId === idB || b.mateId === idA;
}

/** A family as written before boots closed on it (shop formats up to 4, job formats up to 8). */
export const addAdapter = (family: Record<string, unknown>): Record<string, unknown> => ({ adapterMm: null, ...family });

/** A family as written before cavities had names and sizes of their own (shop format 1, job formats up to 6). */
export const addCavityFields = (family: Record<string, unknown>): Record<string, unknown> => ({
  cavityNames: null,
  otherSizes: {},
  gender: null,
  mateId: null,
  ...family,
});
