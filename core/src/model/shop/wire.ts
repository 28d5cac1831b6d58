import { Type, type Static } from '@sinclair/typebox';
import { WIRE_TABLE_NAMES } from '../loom/circuit';
import { IdSchema, literals, NameSchema } from '../ids';
import { positive } from './figures';

/** A conductor of a wire table. Resistance at 20 °C, outside diameter over the insulation. */
export const ConductorSchema = Type.Object(
  {
    table: literals(WIRE_TABLE_NAMES),
    size: Type.String({ minLength: 1, maxLength: 12 }),
    areaMm2: positive(200),
    r20MilliohmPerM: positive(10_000),
    odMm: positive(60),
    massGPerM: positive(10_000),
  },
  { additionalProperties: false },
);
export type Conductor = Static<typeof ConductorSchema>;

/** A cable as it is bought: alike conductors under one jacket, with or without a screen. */
export const CableItemSchema = Type.Object(
  {
    id: IdSchema,
    name: NameSchema,
    conductors: Type.Integer({ minimum: 1, maximum: 60 }),
    table: literals(WIRE_TABLE_NAMES),
    size: Type.String({ minLength: 1, maxLength: 12, description: 'of each conductor; check the maker’s sheet' }),
    screened: Type.Boolean(),
    odMm: positive(60),
    massGPerM: positive(10_000),
  },
  { additionalProperties: false },
);
export type CableItem = Static<typeof CableItemSchema>;
