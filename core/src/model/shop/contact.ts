import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, NameSchema } from '../ids';
import { CavitySize, least0, positive, Words } from './figures';

/** A wire size as its table has it, a space, and mm: "22 1.12". */
const CRIMP_HEIGHT = /^[0-9]{1,3}(?:[./][0-9]{1,3})? [0-9]{1,2}(?:\.[0-9]{1,3})?$/;

/** A contact that fits a cavity size, with what it takes and how it is worked. */
export const ContactSchema = Type.Object(
  {
    id: IdSchema,
    name: NameSchema,
    cavitySize: CavitySize,
    gender: Type.Union([Type.Literal('pin'), Type.Literal('socket'), Type.Null()], {
      description: 'goes into halves of this kind alone; null: one record for both',
    }),
    minAreaMm2: least0(200, 'conductor cross-section taken, both limits included'),
    maxAreaMm2: positive(200),
    currentA: positive(2000, 'in free air at 20 °C'),
    peakA: Type.Union([positive(20_000), Type.Null()], {
      description: 'largest for a moment; null: not stated, three times its rating counts',
    }),
    maxC: positive(600, 'its metal and plastic stand'),
    pullOffN: Type.Union([positive(10_000), Type.Null()], {
      description: 'least pull-off force that its maker asks for; null: that of the standard',
    }),
    crimpHeights: Type.Array(Type.String({ pattern: CRIMP_HEIGHT.source, maxLength: 24 }), {
      maxItems: 40,
      description: 'crimp height by the maker’s sheet: a wire size and mm, as in “22 1.12”; none: it is not measured',
    }),
    stripMm: positive(60),
    tool: Words,
    positioner: Words,
    removalTool: Words,
    massG: least0(1000),
  },
  { additionalProperties: false },
);
export type Contact = Static<typeof ContactSchema>;

/** Height of a crimp on a size of wire by the sheet of its maker, mm; null: it gives none. */
export function findCrimpHeight({ crimpHeights }: Pick<Contact, 'crimpHeights'>, size: string): number | null {
  const words = crimpHeights.find((one) => one.startsWith(`${size} `));
  return words === undefined ? null : Number(words.slice(size.length + 1));
}

/** A single-wire seal or the plug of an empty cavity. Insulation diameters in mm, both limits included. */
export const SealSchema = Type.Object(
  { id: IdSchema, name: NameSchema, cavitySize: CavitySize, minOdMm: positive(60), maxOdMm: positive(60) },
  { additionalProperties: false },
);
export type Seal = Static<typeof SealSchema>;

/** What the holes of a grommet close on, mm. */
export const GrommetSchema = Type.Object({ minOdMm: positive(60), maxOdMm: positive(60) }, { additionalProperties: false });

export const PlugSchema = Type.Object({ id: IdSchema, name: NameSchema }, { additionalProperties: false });
