import { Type, type Static } from '@sinclair/typebox';
import { InsulationWordsSchema } from '../loom/colour';
import { literals, NameSchema } from '../ids';

/** What a pin of a controller, power module, relay panel, fuse box, battery or ground point can do. */
export const CAPABILITIES = [
  'analogue',
  'temperature',
  'digital',
  'frequency',
  'coil-pair',
  'knock-pair',
  'low-side',
  'high-side',
  'ignition',
  'half-bridge',
  'sensor-supply',
  'sensor-ground',
  'can',
  'screen',
  'feed',
  'ground',
  'battery-positive',
  'battery-negative',
  'chassis',
  'engine-block',
] as const;
export type Capability = (typeof CAPABILITIES)[number];

/** What one pin offers to the rest of the vehicle. Limits are the maker's; null: not known, or none. */
export const PinOfferSchema = Type.Object(
  {
    name: NameSchema,
    can: Type.Array(literals(CAPABILITIES), { minItems: 1, maxItems: 8, uniqueItems: true }),
    volts: Type.Union([Type.Number({ minimum: -60, maximum: 60 }), Type.Null()], {
      description: 'voltage it gives in V; null where it gives none',
    }),
    limitA: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 1000 }), Type.Null()], {
      description: 'largest continuous current in A; of a rail the limit of all its pins together; null: not known',
    }),
    pwmHz: Type.Union([Type.Number({ minimum: 0, maximum: 100000 }), Type.Null()], {
      description: 'fastest switching in Hz, 0 where it only turns on and off; null: it does not switch',
    }),
    group: Type.Union([Type.String({ minLength: 1, maxLength: 40 }), Type.Null()], {
      description: 'rail, ground group or bus of this unit that it belongs to; null: none',
    }),
    pairWith: Type.Union([Type.String({ pattern: '^[A-Za-z0-9]{1,6}$' }), Type.Null()], {
      description: 'pin it works in a pair with; null: alone',
    }),
    chassisMilliohm: Type.Union([Type.Number({ minimum: 0, maximum: 1000 }), Type.Literal('none'), Type.Null()], {
      description:
        'of a ground stud: through the chassis to the stud of battery negative in mΩ; none: it stands on a composite tub; null: as the source says',
    }),
    lead: Type.Union([InsulationWordsSchema, Type.Null()], {
      description: 'insulation of the lead that its maker supplies there; null: none, or not known',
    }),
    suppressed: Type.Boolean({ description: 'takes the kick of a coil by itself' }),
  },
  { additionalProperties: false },
);
export type PinOffer = Static<typeof PinOfferSchema>;

/** An offer with nothing special about it. */
export function createPinOffer(name: string, can: Capability[], rest: Partial<PinOffer> = {}): PinOffer {
  return {
    name,
    can,
    volts: null,
    limitA: null,
    pwmHz: null,
    group: null,
    pairWith: null,
    chassisMilliohm: null,
    lead: null,
    suppressed: false,
    ...rest,
  };
}
