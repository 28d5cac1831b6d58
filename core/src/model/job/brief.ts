import { Type, type Static } from '@sinclair/typebox';
import { DateSchema, IdSchema, NameSchema, ReasonSchema, recordOf } from '../ids';

/** The scope as it was agreed with the customer: what is added later is counted against it. */
export const AgreedSchema = Type.Object(
  {
    on: DateSchema,
    by: NameSchema,
    deviceIds: Type.Array(IdSchema, { maxItems: 2000 }),
    circuitIds: Type.Array(Type.String({ maxLength: 90 }), { maxItems: 5000, description: 'loom/circuit' }),
  },
  { additionalProperties: false },
);
export type Agreed = Static<typeof AgreedSchema>;

/** What the vehicle is and what was agreed. */
export const BriefSchema = Type.Object(
  {
    vehicle: Type.String({ maxLength: 200 }),
    promisedOn: Type.Union([DateSchema, Type.Null()], { description: 'null: no day promised' }),
    agreed: Type.Union([AgreedSchema, Type.Null()], { description: 'null: scope not agreed yet' }),
    departures: recordOf(
      Type.Object({ side: Type.Integer({ minimum: 0, maximum: 9 }), reason: ReasonSchema }, { additionalProperties: false }),
      { description: 'question of the house style → the side this job takes, and why' },
    ),
  },
  { additionalProperties: false },
);
export type Brief = Static<typeof BriefSchema>;

export function createBrief(): Brief {
  return { vehicle: '', promisedOn: null, agreed: null, departures: {} };
}

/** Two ends of two looms that plug into each other. */
export const MateSchema = Type.Object(
  {
    a: Type.Object({ loomId: IdSchema, endId: IdSchema }, { additionalProperties: false }),
    b: Type.Object({ loomId: IdSchema, endId: IdSchema }, { additionalProperties: false }),
  },
  { additionalProperties: false },
);
export type Mate = Static<typeof MateSchema>;
