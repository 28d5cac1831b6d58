import { Type, type Static } from '@sinclair/typebox';
import { IdSchema } from '../ids';

const side = Type.Number({ exclusiveMinimum: 0, maximum: 300 });

/** Wires that are joined to the open blades of a device for good: resin poured round them. */
export const PottingSchema = Type.Object(
  {
    resinId: IdSchema,
    lengthMm: side,
    widthMm: side,
    depthMm: side,
    contactsMm3: Type.Number({ minimum: 0, maximum: 1_000_000, description: 'blades and contacts together' }),
    changesPerYear: Type.Union([Type.Number({ minimum: 0, maximum: 1000 }), Type.Null()], {
      description: 'how often the device is changed; null: not known',
    }),
  },
  { additionalProperties: false },
);
export type Potting = Static<typeof PottingSchema>;
