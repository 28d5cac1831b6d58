import { Type, type Static } from '@sinclair/typebox';
import { CircuitSchema, type Circuit } from './circuit';
import { EndSchema, type End } from './end';
import { IdSchema, NameSchema, ReasonSchema, recordOf } from '../ids';
import { NodeSchema, createNode, type LoomNode } from './node';
import { SegmentSchema, type Segment } from './segment';

/** Where a splice is put by hand: so far from the datum side of a segment. */
export const SplicePinSchema = Type.Object(
  { segmentId: IdSchema, offsetMm: Type.Number({ minimum: 0, maximum: 20000 }), reason: ReasonSchema },
  { additionalProperties: false },
);
export type SplicePin = Static<typeof SplicePinSchema>;

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
  };
}
