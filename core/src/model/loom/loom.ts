import { Type, type Static } from '@sinclair/typebox';
import { BoardSpreadSchema, createBoardSpread } from './board';
import { CircuitSchema, type Circuit } from './circuit';
import { EndSchema, type End } from './end';
import { IdSchema, literals, NameSchema, ReasonSchema, recordOf } from '../ids';
import { NodeSchema, createNode, type LoomNode } from './node';
import { BUNDLINGS, DRESSINGS, SegmentSchema, type Segment } from './segment';

/** Where a splice is put by hand: so far from the datum side of a segment. */
export const SplicePinSchema = Type.Object(
  { segmentId: IdSchema, offsetMm: Type.Number({ minimum: 0, maximum: 20000 }), reason: ReasonSchema },
  { additionalProperties: false },
);
export type SplicePin = Static<typeof SplicePinSchema>;

const ThreadIdSchema = Type.String({ minLength: 1, maxLength: 200, description: 'wire id, or "twist" or "cable" and the id of the group' });

/** Which threads lie in which layer from a breakout on (null: from where the strip begins), from the core outwards. */
export const LaidStretchSchema = Type.Object(
  {
    fromNodeId: Type.Union([IdSchema, Type.Null()]),
    coreFillers: Type.Integer({ minimum: 0, maximum: 5 }),
    layers: Type.Array(Type.Array(ThreadIdSchema, { maxItems: 2000 }), { minItems: 1, maxItems: 60 }),
    unpinned: Type.Array(ThreadIdSchema, { maxItems: 2000, description: 'pinned threads that could not be put into their layer here' }),
  },
  { additionalProperties: false },
);

/** A thread put into a layer by hand, the core 0. */
export const LayerPinSchema = Type.Object(
  { layer: Type.Integer({ minimum: 0, maximum: 40 }), reason: ReasonSchema },
  { additionalProperties: false },
);
export type LayerPin = Static<typeof LayerPinSchema>;

/** One loom: a route tree, the ends on it, the circuits that run in it, and what was pinned by hand. */
export const LoomSchema = Type.Object(
  {
    name: NameSchema,
    prefix: Type.String({ pattern: '^[A-Z]{1,3}$', description: 'first letters of every wire number' }),
    nodes: recordOf(NodeSchema),
    segments: recordOf(SegmentSchema),
    ends: recordOf(EndSchema),
    circuits: recordOf(CircuitSchema),
    splicePins: recordOf(SplicePinSchema, { description: 'splice id (circuit@node) → place' }),
    clampedBy: Type.Union([NameSchema, Type.Null()], {
      description: 'who tied and taped the datum, so that every cut shares one zero; null: it may still slip',
    }),
    bundling: Type.Union([literals(BUNDLINGS), Type.Null()], { description: 'how its wires lie; null: as the shop standard says' }),
    dressing: Type.Union([literals(DRESSINGS), Type.Null()], {
      description: 'how its ends and breakouts are finished; null: as the shop standard says',
    }),
    laidUp: recordOf(Type.Array(LaidStretchSchema, { minItems: 1, maxItems: 200 }), {
      description: 'lay-up found by search, by the first run of each strip; one that no longer fits what lies there is left aside',
    }),
    layerPins: Type.Record(ThreadIdSchema, LayerPinSchema, {
      additionalProperties: false,
      maxProperties: 2000,
      description: 'thread → layer, chosen by hand',
    }),
    board: BoardSpreadSchema,
    hasReusedWire: Type.Boolean({
      description: 'some of its wire was in use before: its insulation is asked for less, at a lower voltage',
    }),
  },
  { additionalProperties: false },
);
export type Loom = Omit<Static<typeof LoomSchema>, 'nodes' | 'segments' | 'ends' | 'circuits'> & {
  nodes: Record<string, LoomNode>;
  segments: Record<string, Segment>;
  ends: Record<string, End>;
  circuits: Record<string, Circuit>;
};

/** An empty loom: a datum and nothing on it. */
export function createLoom(name: string, prefix: string): Loom {
  return {
    name,
    prefix,
    nodes: { datum: createNode('datum', 'datum') },
    segments: {},
    ends: {},
    circuits: {},
    splicePins: {},
    clampedBy: null,
    bundling: null,
    dressing: null,
    laidUp: {},
    layerPins: {},
    board: createBoardSpread(),
    hasReusedWire: false,
  };
}
