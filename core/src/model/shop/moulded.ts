import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, NameSchema } from '../ids';
import { least0, positive } from './figures';

const common = {
  id: IdSchema,
  name: NameSchema,
  lengthMm: positive(1000),
  wallMm: positive(20, 'over the cable, once fully recovered'),
  lined: Type.Boolean({ description: 'lined with adhesive: seals, and does not open again' }),
  limitC: positive(1500),
  shrinkC: Type.Union([positive(1500), Type.Null()], { description: 'recovers in full at so much, °C; null: not known' }),
  massG: least0(10_000),
};

/** Moulded boot that shrinks onto the rear of a connector and onto the leg behind it. */
export const BootSchema = Type.Object(
  {
    ...common,
    bodySuppliedMm: positive(300, 'bore at the connector as supplied'),
    bodyRecoveredMm: positive(300, 'the same, fully recovered'),
    leadSuppliedMm: positive(300, 'bore at the cable as supplied'),
    leadRecoveredMm: positive(300, 'the same, fully recovered'),
  },
  { additionalProperties: false },
);
export type Boot = Static<typeof BootSchema>;

/** Moulded transition over a breakout: one bore for the trunk, one for each leg that leaves it, the one that goes on among them. */
export const TransitionSchema = Type.Object(
  {
    ...common,
    legs: Type.Integer({ minimum: 2, maximum: 8, description: 'bores beside that of the trunk' }),
    trunkSuppliedMm: positive(300),
    trunkRecoveredMm: positive(300),
    legSuppliedMm: positive(300),
    legRecoveredMm: positive(300),
    onwardSuppliedMm: Type.Union([positive(300), Type.Null()], {
      description: 'bore of the leg that goes straight on, where it differs from the others; null: as they are',
    }),
    onwardRecoveredMm: Type.Union([positive(300), Type.Null()], { description: 'the same, fully recovered' }),
  },
  { additionalProperties: false },
);
export type Transition = Static<typeof TransitionSchema>;
