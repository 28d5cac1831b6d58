import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, literals, NameSchema, PartPinSchema } from '../ids';
import { PottingSchema } from './potting';
import { PinNeedSchema, type PinNeed } from '../power/pinNeed';
import { PinOfferSchema, type PinOffer } from '../power/pinOffer';

/** What a label at an end can warn of. */
export const CAUTION_LABELS = ['live', 'no-bend', 'no-hose', 'open'] as const;
export type CautionLabel = (typeof CAUTION_LABELS)[number];

/** What is printed on each. */
export const CAUTION_LABEL_WORDS = {
  ...{ live: 'LIVE WHEN OPEN', 'no-bend': 'DO NOT BEND', 'no-hose': 'DO NOT HOSE', open: 'KEEP OPEN' },
} as const satisfies Record<CautionLabel, string>;

/** Where wires of a loom finish: a connector with cavities, rings on a stud, blades on the tongues of a device, or bare tails. */
export const EndSchema = Type.Object(
  {
    nodeId: IdSchema,
    name: NameSchema,
    kind: Type.Union([Type.Literal('connector'), Type.Literal('ring'), Type.Literal('tail'), Type.Literal('blade')]),
    familyId: Type.Union([IdSchema, Type.Null()], {
      description: 'connector family; null for rings and tails, and for a connector whose housing is still to be chosen',
    }),
    key: Type.Union([Type.String({ minLength: 1, maxLength: 8 }), Type.Null()], {
      description: 'keying of the housing; null: the only or the normal one',
    }),
    studMm: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 20 }), Type.Null()], {
      description: 'stud diameter in mm; null unless rings',
    }),
    tongueMm: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 60 }), Type.Null()], {
      description: 'width of the tongues that its blades are pushed on, mm; null unless blades',
    }),
    threadMm: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 200 }), Type.Null()], {
      description: 'free thread of its stud; null: not measured, or no stud',
    }),
    serviceLoopMm: Type.Number({ minimum: 0, maximum: 2000 }),
    wireLoops: Type.Record(Type.String({ pattern: '^[A-Za-z0-9]{1,6}$' }), Type.Number({ exclusiveMinimum: 0, maximum: 2000 }), {
      additionalProperties: false,
      description: 'cavity → slack that its wire alone has behind it, mm: for a test clamp',
    }),
    reterminations: Type.Union([Type.Integer({ minimum: 0, maximum: 10 }), Type.Null()], {
      description: 'null: as the shop standard says',
    }),
    clocking: Type.Union(
      [
        Type.Object(
          { radiusMm: Type.Number({ minimum: 0, maximum: 1000 }), angleDeg: Type.Number({ minimum: 0, maximum: 360 }) },
          { additionalProperties: false },
        ),
        Type.Null(),
      ],
      { description: 'how far the device may be turned at fitting; null: it is not' },
    ),
    cautions: Type.Array(literals(CAUTION_LABELS), { maxItems: 4, uniqueItems: true, description: 'labels of warning at its leg' }),
    bootPin: Type.Union([PartPinSchema, Type.Null()], { description: 'boot over it, chosen by hand; null: computed' }),
    potting: Type.Union([PottingSchema, Type.Null()], { description: 'its wires are potted into the device; null: they are not' }),
    pinAt: Type.Union([Type.Literal('bench'), Type.Literal('vehicle')], {
      description: 'where its contacts go into the housing: in the vehicle, once its wires are through the holes on their way',
    }),
    pins: Type.Record(Type.String({ pattern: '^[A-Za-z0-9]{1,6}$' }), PinNeedSchema, {
      additionalProperties: false,
      description: 'cavity → what the device needs there',
    }),
    offers: Type.Record(Type.String({ pattern: '^[A-Za-z0-9]{1,6}$' }), PinOfferSchema, {
      additionalProperties: false,
      description: 'cavity → what the controller, power box, battery or ground point there can do',
    }),
  },
  { additionalProperties: false },
);
export type End = Omit<Static<typeof EndSchema>, 'pins' | 'offers'> & { pins: Record<string, PinNeed>; offers: Record<string, PinOffer> };

/** A connector end with nothing special about it. */
export function createEnd(nodeId: string, name: string, familyId: string | null, rest: Partial<End> = {}): End {
  return {
    nodeId,
    name,
    kind: familyId === null ? 'tail' : 'connector',
    familyId,
    key: null,
    studMm: null,
    tongueMm: null,
    threadMm: null,
    serviceLoopMm: 0,
    wireLoops: {},
    reterminations: null,
    clocking: null,
    cautions: [],
    bootPin: null,
    potting: null,
    pinAt: 'bench',
    pins: {},
    offers: {},
    ...rest,
  };
}
