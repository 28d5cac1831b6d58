import { Type, type Static } from '@sinclair/typebox';
import { literals, NameSchema, recordOf } from '../ids';

/** What becomes of a wire of the old loom. */
export const DONOR_DECISIONS = ['keep', 'shorten', 'extend', 'repurpose', 'remove'] as const;
export type DonorDecision = (typeof DONOR_DECISIONS)[number];

/** One wire of a donor loom as found, with what is to become of it. Colour and size in the words of the old loom. */
export const DonorWireSchema = Type.Object(
  {
    number: Type.String({ maxLength: 40 }),
    from: NameSchema,
    fromPin: Type.String({ maxLength: 12 }),
    to: NameSchema,
    toPin: Type.String({ maxLength: 12 }),
    functions: Type.Array(NameSchema, { maxItems: 12, description: 'everything this wire serves' }),
    colour: Type.String({ maxLength: 40 }),
    size: Type.String({ maxLength: 20 }),
    lengthMm: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 20000 }), Type.Null()], {
      description: 'as found; null: not measured',
    }),
    decision: Type.Union([literals(DONOR_DECISIONS), Type.Null()], { description: 'null: not decided' }),
    newLengthMm: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 20000 }), Type.Null()], {
      description: 'after shortening, extending or repurposing; null where the length stays',
    }),
    newName: Type.String({
      maxLength: 40,
      description: 'on labels over the name printed on it, where it is put to other use; empty: the printed name holds',
    }),
    note: Type.String({ maxLength: 200 }),
  },
  { additionalProperties: false },
);
export type DonorWire = Static<typeof DonorWireSchema>;

/** An old loom that is thinned, shortened, extended or put to other use. */
export const DonorSchema = Type.Object({ name: NameSchema, wires: recordOf(DonorWireSchema) }, { additionalProperties: false });
export type Donor = Static<typeof DonorSchema>;
