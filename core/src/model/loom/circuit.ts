import { Type, type Static } from '@sinclair/typebox';
import { ColourSchema, type Colour } from './colour';
import { IdSchema, NameSchema, ReasonSchema } from '../ids';

export const CIRCUIT_KINDS = ['supply', 'sensor-supply', 'sensor-ground', 'power-ground', 'signal', 'output', 'data', 'screen'] as const;
export type CircuitKind = (typeof CIRCUIT_KINDS)[number];

/** What a kind of circuit is called where people read it. */
export const KIND_WORDS = {
  supply: 'supply',
  'sensor-supply': 'sensor supply',
  'sensor-ground': 'sensor ground',
  'power-ground': 'power ground',
  signal: 'signal',
  output: 'switched output',
  data: 'data',
  screen: 'screen',
} as const satisfies Record<CircuitKind, string>;

export const TerminationSchema = Type.Object(
  { endId: IdSchema, cavity: Type.String({ pattern: '^[A-Za-z0-9]{1,6}$' }) },
  { additionalProperties: false },
);
export type Termination = Static<typeof TerminationSchema>;

/** One function that joins pins of a loom. The first termination is the source: supply, ground point or controller pin. */
export const CircuitSchema = Type.Object(
  {
    number: Type.String({ pattern: '^[0-9A-Z]{1,8}$', description: 'unique in the loom; part of every wire number' }),
    name: NameSchema,
    kind: Type.Union(CIRCUIT_KINDS.map((kind) => Type.Literal(kind))),
    join: Type.Union([Type.Literal('splice'), Type.Literal('chain'), Type.Literal('stud')], {
      description:
        'how more than two terminations are joined: least-cost splices, double-crimped contacts in the order listed, or rings on the stud at the source',
    }),
    terminations: Type.Array(TerminationSchema, { maxItems: 64 }),
    wireTable: Type.String({ ...IdSchema, description: 'kind of wire of the shop that it is made of' }),
    colour: ColourSchema,
    sizePin: Type.Union(
      [
        Type.Object({ size: Type.String({ minLength: 1, maxLength: 6 }), reason: ReasonSchema }, { additionalProperties: false }),
        Type.Null(),
      ],
      { description: 'conductor size chosen by hand (AWG, or mm² for thin-wall); null: computed' },
    ),
    colourPin: Type.Union([Type.Object({ reason: ReasonSchema }, { additionalProperties: false }), Type.Null()], {
      description: 'why it has this colour: no scheme and no proposal gives it another; null: it may',
    }),
    twist: Type.Union(
      [
        Type.Object({ groupId: IdSchema, pitchMm: Type.Number({ minimum: 5, maximum: 200 }) }, { additionalProperties: false }),
        Type.Null(),
      ],
      { description: 'circuits with the same group are twisted together at this pitch in mm' },
    ),
    cable: Type.Union([Type.Object({ groupId: IdSchema, itemId: IdSchema }, { additionalProperties: false }), Type.Null()], {
      description: 'circuits with the same group lie in one bought cable, item of the catalogue; screens in its screen',
    }),
    currentA: Type.Union([Type.Number({ minimum: 0, maximum: 1000 }), Type.Null()], {
      description: 'design current in A; null: not known yet',
    }),
  },
  { additionalProperties: false },
);
export type Circuit = Omit<Static<typeof CircuitSchema>, 'kind' | 'colour'> & {
  kind: CircuitKind;
  colour: Colour;
};

/** A circuit with nothing pinned, of this kind of wire. */
export function createCircuit(
  number: string,
  name: string,
  terminations: Termination[],
  rest: Partial<Circuit> & Pick<Circuit, 'wireTable'>,
): Circuit {
  return {
    number,
    name,
    kind: 'signal',
    join: 'splice',
    terminations,
    colour: { base: 'white', stripe: null, bands: [] },
    sizePin: null,
    colourPin: null,
    twist: null,
    cable: null,
    currentA: null,
    ...rest,
  };
}
