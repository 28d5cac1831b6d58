import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, literals, NameSchema } from '../ids';
import { least0, positive, Words } from './figures';

/** Butt: crimped side by side, wires of each side in their own half. Parallel: all wires lie together in one crimp. */
export const BARREL_KINDS = ['butt', 'parallel'] as const;
export type BarrelKind = (typeof BARREL_KINDS)[number];

/** No splice joins more wires. */
export const MOST_SPLICED = 40;

/** A crimp barrel for a splice, by the conductor area on its fuller side, or of all its wires where it is a parallel one. */
export const SpliceBarrelSchema = Type.Object(
  {
    id: IdSchema,
    name: NameSchema,
    kind: literals(BARREL_KINDS),
    minAreaMm2: least0(500),
    maxAreaMm2: positive(500),
    lengthMm: positive(200),
    stripMm: positive(100),
    tool: Words,
    sleeveBoreMm: positive(200, 'adhesive sleeve that closes over the finished joint, bore supplied'),
    sleeveMm: positive(500),
    sleevedOdMm: positive(200, 'over the closed sleeve'),
    massG: least0(1000),
    sleeveMassG: least0(1000),
  },
  { additionalProperties: false },
);
export type SpliceBarrel = Static<typeof SpliceBarrelSchema>;

/** A ring terminal, by stud and conductor area; or a blade terminal, by the tongue that it is pushed on. */
export const RingSchema = Type.Object(
  {
    id: IdSchema,
    name: NameSchema,
    studMm: Type.Union([positive(60), Type.Null()], { description: 'stud that its eye goes over; null: it is pushed on a tongue' }),
    tongueMm: Type.Union([positive(60), Type.Null()], { description: 'width of the tongue that it is pushed on; null: a ring' }),
    insulated: Type.Boolean({ description: 'insulated as it is bought; a blade that is not gets a sleeve over all of it' }),
    lengthMm: Type.Union([positive(200), Type.Null()], {
      description: 'of a blade from its mouth to the end of its barrel, for that sleeve',
    }),
    minAreaMm2: least0(500),
    maxAreaMm2: positive(500),
    stripMm: positive(100),
    tool: Words,
    thickMm: Type.Union([positive(60), Type.Null()], { description: 'of its eye, on a stud; null: not known' }),
    widthMm: Type.Union([positive(200), Type.Null()], { description: 'across it, for holes that it is led through; null: not known' }),
    massG: least0(1000),
  },
  { additionalProperties: false },
);
export type Ring = Static<typeof RingSchema>;
