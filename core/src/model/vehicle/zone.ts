import { Type, type Static } from '@sinclair/typebox';
import { NameSchema } from '../ids';

/** A part of the vehicle that a segment lies in, with what it does to a loom. */
export const ZoneSchema = Type.Object(
  {
    name: NameSchema,
    ambientC: Type.Number({ minimum: -60, maximum: 400, description: 'hottest ambient in use, degrees Celsius' }),
    wet: Type.Boolean(),
    abrasion: Type.Boolean(),
    flexing: Type.Boolean({ description: 'moves in use: no splice here' }),
    reopen: Type.Boolean({ description: 'must be opened later: no adhesive' }),
    handled: Type.Boolean({ description: 'taken in the hand often: at a test plug, a seat, a steering wheel' }),
    clipEveryMm: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 10_000 }), Type.Null()], {
      description: 'most from one clip to the next, mm; null: as the shop has it',
    }),
  },
  { additionalProperties: false },
);
export type Zone = Static<typeof ZoneSchema>;
