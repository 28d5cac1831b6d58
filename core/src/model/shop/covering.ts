import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, literals, NameSchema } from '../ids';
import { least0, positive } from './figures';

/** What it keeps out of the bundle. */
export const KEEPS_OUT = ['nothing', 'splash', 'water'] as const;
export const STIFFNESSES = ['limp', 'firm', 'stiff'] as const;

/** Kinds of one shape, as a list that tells it from the others. */
const oneOf = <const K extends readonly string[]>(kinds: K) => Type.Unsafe<K[number]>({ type: 'string', enum: kinds });

/** What any covering says of itself, whatever its shape. */
const common = {
  id: IdSchema,
  name: NameSchema,
  limitC: positive(1500),
  massGPerM: least0(10_000, 'of a metre as it is bought'),
  opens: Type.Boolean({ description: 'opens again, and closes, without being destroyed' }),
  keepsOut: literals(KEEPS_OUT, { description: 'what it keeps out of the bundle' }),
  stiffness: literals(STIFFNESSES, { description: 'a stiff one is not put where the run moves' }),
  wears: Type.Boolean({ description: 'stands edges and chafing' }),
  handled: Type.Boolean({ description: 'stands being taken in the hand often' }),
  minutesPerM: least0(10_000, 'of work, for a metre of run'),
};

/** Expandable braid: goes over a bundle from its relaxed bore up to a share of its expanded bore, and shortens as it opens. */
export const BraidSchema = Type.Object(
  {
    kind: Type.Literal('braid'),
    ...common,
    relaxedBoreMm: positive(200),
    expandedBoreMm: positive(300),
    wallMm: positive(20),
    yarnAngleDeg: positive(89, 'yarn to the axis when relaxed'),
  },
  { additionalProperties: false },
);
export type Braid = Static<typeof BraidSchema>;

/** Heat-shrink sleeve: elastomer, thin plain, lined with adhesive, or clear, which goes over labels. */
export const ShrinkSchema = Type.Object(
  {
    kind: oneOf(['shrink', 'plain-shrink', 'adhesive-shrink', 'clear-shrink']),
    ...common,
    suppliedBoreMm: positive(300),
    recoveredBoreMm: positive(300),
    wallMm: positive(20, 'once fully recovered'),
    shrinkC: Type.Union([positive(1500), Type.Null()], { description: 'recovers in full at so much, °C; null: not known' }),
    longitudinalChange: Type.Number({ minimum: 0, exclusiveMaximum: 1, description: 'share of its length that it loses in shrinking' }),
  },
  { additionalProperties: false },
);
export type Shrink = Static<typeof ShrinkSchema>;

/** Tape, wound with an overlap. */
export const TapeSchema = Type.Object(
  {
    kind: oneOf(['cloth-tape', 'pvc-tape']),
    ...common,
    widthMm: positive(200),
    thicknessMm: positive(10),
    overlap: Type.Number({ minimum: 0, maximum: 0.9, description: 'share of its width that lies on the turn before' }),
    leastOdMm: positive(300, 'thinnest bundle that it is wound on'),
    endsOnly: Type.Boolean({ description: 'closes ends; never chosen for a whole run' }),
  },
  { additionalProperties: false },
);
export type Tape = Static<typeof TapeSchema>;

/** What goes on from the side and closes by itself: wrap with its edges overlapped, split braid, spiral. */
export const WrapSchema = Type.Object(
  {
    kind: oneOf(['wrap', 'split-braid', 'spiral']),
    ...common,
    leastOdMm: positive(300),
    mostOdMm: positive(300),
    wallMm: positive(20),
    lengthPerRun: Type.Number({ minimum: 1, maximum: 20, description: 'what is cut for a run, times its length' }),
  },
  { additionalProperties: false },
);
export type Wrap = Static<typeof WrapSchema>;

/** A tube that does not shrink: convoluted, or a heat sleeve of glass or foil. Slit: it goes on from the side. */
export const TubeSchema = Type.Object(
  {
    kind: oneOf(['convoluted', 'heat-sleeve']),
    ...common,
    boreMm: positive(300),
    wallMm: positive(50),
    slit: Type.Boolean({ description: 'goes on from the side' }),
    fillMost: Type.Number({ exclusiveMinimum: 0, maximum: 1, description: 'bundle over bore, at most' }),
    leastOdMm: positive(300, 'a thinner bundle rattles in it'),
  },
  { additionalProperties: false },
);
export type Tube = Static<typeof TubeSchema>;

/** By its kind, so that what is wrong in one is told of its own shape alone. */
export const CoveringItemSchema = Type.Unsafe<CoveringItem>({
  type: 'object',
  required: ['kind'],
  discriminator: { propertyName: 'kind' },
  oneOf: [BraidSchema, ShrinkSchema, TapeSchema, WrapSchema, TubeSchema],
});
export type CoveringItem = Braid | Shrink | Tape | Wrap | Tube;

export const isShrink = (item: CoveringItem): item is Shrink => 'recoveredBoreMm' in item;
export const isTape = (item: CoveringItem): item is Tape => 'overlap' in item;
export const isWrap = (item: CoveringItem): item is Wrap => 'mostOdMm' in item;
export const isTube = (item: CoveringItem): item is Tube => 'fillMost' in item;

/** Does it go on from the side, so that nothing has to pass through it? */
export const isFromTheSide = (item: CoveringItem): boolean => isTape(item) || isWrap(item) || (isTube(item) && item.slit);

/** What the coverings of a shop of format 4 and older say of themselves now: the usual of their kind. */
export const addCoveringTraits = (item: Record<string, unknown>): Record<string, unknown> => ({
  opens: false,
  handled: true,
  ...(item.kind === 'braid'
    ? { keepsOut: 'nothing', stiffness: 'limp', wears: true, minutesPerM: 4 }
    : { keepsOut: item.kind === 'adhesive-shrink' ? 'water' : 'splash', stiffness: 'firm', wears: false, minutesPerM: 5 }),
  ...item,
});
