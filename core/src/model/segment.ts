import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, ReasonSchema } from './ids';

export const MEASURE_METHODS = ['tape', 'rope', 'board', 'drawing', 'estimate', 'fitted'] as const;
export const LENGTH_STATUSES = ['guessed', 'roped', 'boarded', 'rough-cut', 'fitted'] as const;
export const COVERING_KINDS = ['braid', 'shrink', 'adhesive-shrink', 'none'] as const;

export type MeasureMethod = (typeof MEASURE_METHODS)[number];
export type LengthStatus = (typeof LENGTH_STATUSES)[number];
export type CoveringKind = (typeof COVERING_KINDS)[number];

const literals = <T extends string>(names: readonly T[]) => Type.Union(names.map((name) => Type.Literal(name)));

/** A choice of covering made by hand. itemId null: of this kind, the size is still computed. */
export const CoveringPinSchema = Type.Object(
  { kind: literals(COVERING_KINDS), itemId: Type.Union([IdSchema, Type.Null()]), reason: ReasonSchema },
  { additionalProperties: false },
);

/** One run of the tree between two nodes, as measured. */
export const SegmentSchema = Type.Object(
  {
    fromNodeId: IdSchema,
    toNodeId: IdSchema,
    lengthMm: Type.Number({ exclusiveMinimum: 0, maximum: 20000 }),
    secondLengthMm: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 20000 }), Type.Null()], {
      description: 'a second reading of the same run in mm; null where none was taken',
    }),
    method: literals(MEASURE_METHODS),
    status: literals(LENGTH_STATUSES),
    zoneId: Type.Union([IdSchema, Type.Null()], { description: 'null: no zone known, covered as the shop standard says' }),
    coveringPin: Type.Union([CoveringPinSchema, Type.Null()], { description: 'null: computed' }),
    slideOn: Type.Union([Type.Literal('before-ends'), Type.Literal('after-ends')], {
      description: 'whether the covering goes on before the ends beyond it are closed, or over them afterwards',
    }),
  },
  { additionalProperties: false },
);
export type CoveringPin = Static<typeof CoveringPinSchema> & { kind: CoveringKind };
export type Segment = Omit<Static<typeof SegmentSchema>, 'method' | 'status' | 'coveringPin'> & {
  method: MeasureMethod;
  status: LengthStatus;
  coveringPin: CoveringPin | null;
};

/** A segment as it is first entered: measured by tape, not yet fitted, everything else computed. */
export function createSegment(fromNodeId: string, toNodeId: string, lengthMm: number, rest: Partial<Segment> = {}): Segment {
  return {
    fromNodeId,
    toNodeId,
    lengthMm,
    secondLengthMm: null,
    method: 'tape',
    status: 'roped',
    zoneId: null,
    coveringPin: null,
    slideOn: 'before-ends',
    ...rest,
  };
}
