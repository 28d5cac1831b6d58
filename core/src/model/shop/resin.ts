import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, NameSchema } from '../ids';
import { positive } from './figures';

/** Two parts that are mixed by mass, poured behind the contacts of a device, and cure. */
export const ResinSchema = Type.Object(
  {
    ...{ id: IdSchema, name: NameSchema },
    partA: positive(10_000, 'parts by mass'),
    partB: positive(10_000, 'of the hardener, parts by mass'),
    densityGPerMl: positive(20),
    potLifeMin: positive(10_000, 'to pour it in, at 23 °C'),
    cureH: positive(10_000, 'at 23 °C, until it may be moved and powered'),
    halvingK: positive(100, 'so much warmer it cures in half the time, K'),
    limitC: positive(1500, 'stands for good'),
  },
  { additionalProperties: false },
);
export type Resin = Static<typeof ResinSchema>;
