import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, literals, NameSchema } from '../ids';
import { least0, positive } from './figures';

/** What a clip sits on: a threaded boss, a welded stud, or glued to what it lies on. */
const CLIP_BASES = ['boss', 'stud', 'adhesive'] as const;

/** Holds a bundle to the vehicle. Diameters are over the covering, mm. */
export const ClipSchema = Type.Object(
  {
    ...{ id: IdSchema, name: NameSchema, base: literals(CLIP_BASES) },
    leastMm: positive(300, 'thinnest bundle that it holds'),
    mostMm: positive(300, 'thickest'),
    limitC: positive(1500, 'of the clip, or of what it is glued with'),
    massG: least0(10_000),
  },
  { additionalProperties: false },
);
export type Clip = Static<typeof ClipSchema>;
