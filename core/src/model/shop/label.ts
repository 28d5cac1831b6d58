import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, NameSchema } from '../ids';
import { positive } from './figures';

/** A marker sleeve to print on; bores in mm. Of its length as much can be printed as the printer reaches. */
export const LabelStockSchema = Type.Object(
  {
    ...{ id: IdSchema, name: NameSchema, suppliedBoreMm: positive(200), recoveredBoreMm: positive(200), lengthMm: positive(500) },
    printableMm: positive(500),
    limitC: Type.Union([positive(1500), Type.Null()], { description: 'stands so much for good, °C; null: not known' }),
    shortC: Type.Union([positive(1500), Type.Null()], {
      description: 'and for the minute in which something is shrunk over it; null: not known',
    }),
  },
  { additionalProperties: false },
);
export type LabelStock = Static<typeof LabelStockSchema>;
