import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, NameSchema } from '../ids';
import { positive } from './figures';

/** A marker sleeve to print on; bores in mm. Of its length as much can be printed as the printer reaches. */
export const LabelStockSchema = Type.Object(
  {
    ...{ id: IdSchema, name: NameSchema, suppliedBoreMm: positive(200), recoveredBoreMm: positive(200), lengthMm: positive(500) },
    printableMm: positive(500),
  },
  { additionalProperties: false },
);
export type LabelStock = Static<typeof LabelStockSchema>;
