import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, literals, NameSchema } from '../ids';
import { least0, positive } from './figures';

/** Expandable braid: goes over a bundle from its relaxed bore up to a share of its expanded bore, and shortens as it opens. */
export const BraidSchema = Type.Object(
  {
    kind: Type.Literal('braid'),
    id: IdSchema,
    name: NameSchema,
    relaxedBoreMm: positive(200),
    expandedBoreMm: positive(300),
    wallMm: positive(20),
    yarnAngleDeg: positive(89, 'yarn to the axis when relaxed'),
    limitC: positive(1500),
    massGPerM: least0(10_000),
  },
  { additionalProperties: false },
);
export type Braid = Static<typeof BraidSchema>;

/** Heat-shrink sleeve, plain elastomer or adhesive-lined. */
export const ShrinkSchema = Type.Object(
  {
    kind: literals(['shrink', 'adhesive-shrink']),
    id: IdSchema,
    name: NameSchema,
    suppliedBoreMm: positive(300),
    recoveredBoreMm: positive(300),
    wallMm: positive(20, 'once fully recovered'),
    longitudinalChange: Type.Number({ minimum: 0, exclusiveMaximum: 1, description: 'share of its length that it loses in shrinking' }),
    limitC: positive(1500),
    massGPerM: least0(10_000),
  },
  { additionalProperties: false },
);
export type Shrink = Static<typeof ShrinkSchema>;

export const CoveringItemSchema = Type.Union([BraidSchema, ShrinkSchema]);
export type CoveringItem = Braid | Shrink;
