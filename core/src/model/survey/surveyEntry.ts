import { Type, type Static, type TProperties } from '@sinclair/typebox';
import { IdSchema, literals, NameSchema } from '../ids';
import { ANCHOR_STATES, BlockedSchema } from '../job/openItem';
import { EVIDENCE } from '../power/pinNeed';
import { MEASURE_METHODS, TICKS } from '../loom/segment';

/** What can be read off a tape. */
export const MARK_KINDS = ['breakout', 'pass', 'end'] as const;

const LengthSchema = Type.Number({ exclusiveMinimum: 0, maximum: 20000 });
const MethodSchema = literals(MEASURE_METHODS);
const TicksSchema = Type.Array(literals(TICKS), { maxItems: 4 });
/** side by which a branch leaves, degrees from 12 o’clock, clockwise seen from the datum; null: not known */
const SideSchema = Type.Union([Type.Number({ minimum: 0, exclusiveMaximum: 360 }), Type.Null()]);
const base = {
  id: Type.String({ pattern: '^[0-9a-fA-F-]{36}$' }),
  loomId: IdSchema,
  author: NameSchema,
  at: Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}T[0-9:.]+Z$', description: 'by the clock of the device it was entered on' }),
};
const entry = <K extends string, T extends TProperties>(kind: K, fields: T) =>
  Type.Object({ ...base, kind: Type.Literal(kind), ...fields }, { additionalProperties: false });

/**
 * One thing entered at the vehicle, whole in itself: it can wait on a device without a network and be taken later, once.
 * `seen` is what stood there when it was entered: where something else stands by then, both are shown and nothing is lost.
 */
export const SurveyEntrySchema = Type.Union([
  entry('mark', {
    zeroNodeId: IdSchema,
    viaSegmentId: Type.Union([IdSchema, Type.Null()], { description: 'first run of the line that is read; null: a new leg from the zero' }),
    atMm: Type.Number({ minimum: -20000, maximum: 20000, description: 'from the zero of the line' }),
    what: literals(MARK_KINDS),
    name: NameSchema,
    holeMm: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 500 }), Type.Null()]),
    method: MethodSchema,
    ticks: TicksSchema,
    deviceId: Type.Union([IdSchema, Type.Null()], {
      description: 'device of the brief that the end mates with; null: none, or not an end',
    }),
    nodeId: IdSchema,
    segmentId: IdSchema,
  }),
  entry('reading', {
    segmentId: IdSchema,
    lengthMm: LengthSchema,
    method: MethodSchema,
    seen: Type.Object({ lengthMm: LengthSchema, secondLengthMm: Type.Union([LengthSchema, Type.Null()]) }, { additionalProperties: false }),
  }),
  entry('fitted', {
    segmentId: IdSchema,
    fittedMm: LengthSchema,
    seen: Type.Union([LengthSchema, Type.Null()]),
  }),
  entry('ticks', { segmentId: IdSchema, ticks: TicksSchema, seen: TicksSchema }),
  entry('side', { segmentId: IdSchema, leavesDeg: SideSchema, seen: SideSchema }),
  entry('anchor', {
    anchorId: IdSchema,
    state: literals(ANCHOR_STATES),
    place: Type.String({ maxLength: 200 }),
    seen: literals(ANCHOR_STATES),
  }),
  entry('datum', { name: NameSchema, seen: NameSchema }),
  entry('clamp', { clamped: Type.Boolean(), seen: Type.Boolean() }),
  entry('answer', {
    itemId: IdSchema,
    answer: Type.String({ minLength: 1, maxLength: 400 }),
    evidence: literals(EVIDENCE),
    seen: Type.Union([Type.String({ maxLength: 400 }), Type.Null()]),
  }),
  entry('ask', {
    itemId: IdSchema,
    question: Type.String({ minLength: 1, maxLength: 300 }),
    blocks: Type.Array(BlockedSchema, { maxItems: 40 }),
  }),
]);
export type SurveyEntry = Static<typeof SurveyEntrySchema>;

/** An entry that met something else: kept whole until somebody says which counts. */
export const SurveyConflictSchema = Type.Object(
  {
    entry: SurveyEntrySchema,
    mine: Type.String({ maxLength: 300 }),
    theirs: Type.String({ maxLength: 600, description: 'what stood there, or why it could not be taken' }),
    canForce: Type.Boolean({ description: 'false: what it was about is gone, it can only be set aside' }),
  },
  { additionalProperties: false },
);
export type SurveyConflict = Static<typeof SurveyConflictSchema>;
