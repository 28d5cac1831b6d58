import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, NameSchema, PartPinSchema } from '../ids';

/**
 * A point of the route tree. The datum is the zero of every measurement and carries the anchor end;
 * an end node carries one end; a breakout is where branches leave; a pass is a hole the bundle goes through.
 */
export const NodeSchema = Type.Object(
  {
    kind: Type.Union([Type.Literal('datum'), Type.Literal('breakout'), Type.Literal('pass'), Type.Literal('end')]),
    name: NameSchema,
    holeMm: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 500 }), Type.Null()], {
      description: 'bore of the hole in mm; null where there is none',
    }),
    drill: Type.Union(
      [
        Type.Object(
          {
            roomMm: Type.Union([Type.Number({ minimum: 0, maximum: 5000 }), Type.Null()], {
              description: 'straight room in front of it, from where it is drilled, mm; null: not measured',
            }),
            behindMm: Type.Union([Type.Number({ minimum: 0, maximum: 5000 }), Type.Null()], {
              description: 'free behind the panel, mm; null: not looked at',
            }),
          },
          { additionalProperties: false },
        ),
        Type.Null(),
      ],
      { description: 'the hole is still to be made; null: it is there' },
    ),
    beside: Type.Union([Type.Object({ loomId: IdSchema, nodeId: IdSchema }, { additionalProperties: false }), Type.Null()], {
      description: 'the hole of another loom that this one is: that loom is led through first; null: a hole of its own',
    }),
    onwardSegmentId: Type.Union([IdSchema, Type.Null()], {
      description: 'the segment by which the trunk goes on; null: the one with the longest run beyond it',
    }),
    transitionPin: Type.Union([PartPinSchema, Type.Null()], {
      description: 'what goes over this breakout, chosen by hand; null: computed',
    }),
    feed: Type.Union([Type.Literal('outward'), Type.Literal('inward'), Type.Null()], {
      description: 'which part of the loom is led through this hole: what lies beyond it, or the part with the datum; null: computed',
    }),
  },
  { additionalProperties: false },
);
export type LoomNode = Static<typeof NodeSchema>;

/** A node with nothing special about it. */
export function createNode(kind: LoomNode['kind'], name: string, rest: Partial<LoomNode> = {}): LoomNode {
  return { kind, name, holeMm: null, drill: null, beside: null, onwardSegmentId: null, transitionPin: null, feed: null, ...rest };
}
