import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, literals, ReasonSchema } from '../ids';

export const MEASURE_METHODS = ['tape', 'rope', 'board', 'drawing', 'estimate', 'fitted'] as const;
export const LENGTH_STATUSES = ['guessed', 'roped', 'boarded', 'rough-cut', 'fitted'] as const;
/** What was ticked at the vehicle about a run: it counts beside the zone. */
export const TICKS = ['hot', 'wet', 'moving', 'sharp'] as const;
export const COVERING_KINDS = [
  ...(['shrink', 'braid', 'adhesive-shrink', 'plain-shrink', 'wrap', 'split-braid', 'cloth-tape'] as const),
  ...(['convoluted', 'spiral', 'heat-sleeve', 'pvc-tape', 'clear-shrink', 'none'] as const),
] as const;

export type MeasureMethod = (typeof MEASURE_METHODS)[number];
export type LengthStatus = (typeof LENGTH_STATUSES)[number];
export type Tick = (typeof TICKS)[number];
export type CoveringKind = (typeof COVERING_KINDS)[number];

/** What each is called where people read it. */
export const COVERING_WORDS = {
  ...{ shrink: 'elastomer shrink', braid: 'braid', 'adhesive-shrink': 'lined shrink', 'plain-shrink': 'plain shrink' },
  ...{ wrap: 'self-closing wrap', 'split-braid': 'split braid', 'cloth-tape': 'cloth tape', convoluted: 'convoluted tube' },
  ...{ spiral: 'spiral wrap', 'heat-sleeve': 'heat sleeve', 'pvc-tape': 'PVC tape', none: 'bare' },
  ...{ 'clear-shrink': 'clear shrink' },
} as const satisfies Record<CoveringKind, string>;

/** A choice of covering made by hand. itemId null: of this kind, the size is still computed. */
export const CoveringPinSchema = Type.Object(
  { kind: literals(COVERING_KINDS), itemId: Type.Union([IdSchema, Type.Null()]), reason: ReasonSchema },
  { additionalProperties: false },
);

/** How the wires of a bundle lie: twisted in layers, straight and tied, or straight but for what is twisted by pairs. */
export const BUNDLINGS = ['concentric', 'straight', 'pairs-only'] as const;
export type Bundling = (typeof BUNDLINGS)[number];

/** What each is called where people read it. */
export const BUNDLING_WORDS = {
  concentric: 'twisted in layers',
  straight: 'straight and tied',
  'pairs-only': 'pairs twisted, the rest straight',
} as const satisfies Record<Bundling, string>;

/** How ends and breakouts are finished: sleeves that meet, or boots and transitions over them. */
export const DRESSINGS = ['sleeves', 'boots'] as const;
export type Dressing = (typeof DRESSINGS)[number];
export const DRESSING_WORDS = {
  sleeves: 'sleeves meet, nothing over the joints',
  boots: 'boots on ends, transitions on breakouts',
} as const satisfies Record<Dressing, string>;

/** One run of the tree between two nodes, as measured. */
export const SegmentSchema = Type.Object(
  {
    fromNodeId: IdSchema,
    toNodeId: IdSchema,
    lengthMm: Type.Number({ exclusiveMinimum: 0, maximum: 20000 }),
    secondLengthMm: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 20000 }), Type.Null()], {
      description: 'a second reading of the same run in mm; null where none was taken',
    }),
    fittedMm: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 20000 }), Type.Null()], {
      description: 'as it was at the trial fit, in mm: final lengths follow it; null: not fitted yet',
    }),
    method: literals(MEASURE_METHODS),
    status: literals(LENGTH_STATUSES),
    ticks: Type.Array(literals(TICKS), { maxItems: 4, uniqueItems: true, description: 'as ticked at the vehicle, beside the zone' }),
    zoneId: Type.Union([IdSchema, Type.Null()], { description: 'null: no zone known, covered as the shop standard says' }),
    coveringPin: Type.Union([CoveringPinSchema, Type.Null()], { description: 'null: computed' }),
    slideOn: Type.Union([Type.Literal('before-ends'), Type.Literal('after-ends')], {
      description: 'whether the covering goes on before the ends beyond it are closed, or over them afterwards',
    }),
    clipsAtMm: Type.Union([Type.Array(Type.Number({ minimum: 0, maximum: 20000 }), { maxItems: 200, uniqueItems: true }), Type.Null()], {
      description: 'where it is clipped, chosen by hand: mm from where it begins, nearest to the datum first; null: computed',
    }),
    bundling: Type.Union([literals(BUNDLINGS), Type.Null()], { description: 'how its wires lie; null: as the loom says' }),
    leavesDeg: Type.Union([Type.Number({ minimum: 0, exclusiveMaximum: 360 }), Type.Null()], {
      description: 'side by which it leaves the run before, degrees from 12 o’clock, clockwise seen from the datum; null: not known',
    }),
  },
  { additionalProperties: false },
);
export type CoveringPin = Static<typeof CoveringPinSchema>;
export type Segment = Static<typeof SegmentSchema>;

/** What a length is worth by the way it was taken. */
export const STATUS_OF_METHOD = {
  tape: 'roped',
  rope: 'roped',
  board: 'boarded',
  drawing: 'boarded',
  estimate: 'guessed',
  fitted: 'fitted',
} as const satisfies Record<MeasureMethod, LengthStatus>;

/** A segment as it is first entered: measured by tape, not yet fitted, everything else computed. */
export function createSegment(fromNodeId: string, toNodeId: string, lengthMm: number, rest: Partial<Segment> = {}): Segment {
  return {
    fromNodeId,
    toNodeId,
    lengthMm,
    secondLengthMm: null,
    fittedMm: rest.status === 'fitted' ? lengthMm : null,
    method: 'tape',
    status: 'roped',
    ticks: [],
    zoneId: null,
    coveringPin: null,
    slideOn: 'before-ends',
    clipsAtMm: null,
    bundling: null,
    leavesDeg: null,
    ...rest,
  };
}
