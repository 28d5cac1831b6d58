import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, literals, NameSchema } from '../ids';
import { positive } from './figures';

/** The id of a wire in its shop: its kind and its size. */
export const toWireId = ({ table, size }: Pick<Conductor, 'table' | 'size'>): string => `${table} ${size}`;

/** What an older Wattograph called the kinds of wire that every shop had, and could have no other. */
const FIRST_KINDS: Readonly<Record<string, string>> = { etfe: 'ETFE', 'etfe-plated': 'ETFE plated', thinwall: 'thin-wall' };

/** A conductor of an older Wattograph, with what it is called and what its size counts in. */
export const addWireKind = <T extends object>(conductor: T): T & Pick<Conductor, 'insulation' | 'gauge'> => {
  const { table } = conductor as { table?: unknown };
  return { insulation: FIRST_KINDS[String(table)] ?? String(table), gauge: table === 'thinwall' ? 'mm²' : 'AWG', ...conductor };
};

/** kinds of wire that a shop may have */
export const MOST_WIRE_KINDS = 60;

/** What sizes count in: AWG numbers, or mm². */
const GAUGES = ['AWG', 'mm²'] as const;

/** A conductor of a kind of wire. Resistance at 20 °C, outside diameter over the insulation. */
export const ConductorSchema = Type.Object(
  {
    table: IdSchema,
    insulation: Type.String({
      ...{ minLength: 1, maxLength: 40, pattern: '\\S' },
      description: 'the kind as it is spoken, with its plating where that is not tin; one for all its sizes',
    }),
    size: Type.String({ minLength: 1, maxLength: 12 }),
    gauge: literals(GAUGES, { description: 'what its size counts in' }),
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
    table: IdSchema,
    size: Type.String({ minLength: 1, maxLength: 12, description: 'of each conductor; check the maker’s sheet' }),
    screened: Type.Boolean(),
    odMm: positive(60),
    massGPerM: positive(10_000),
  },
  { additionalProperties: false },
);
export type CableItem = Static<typeof CableItemSchema>;
