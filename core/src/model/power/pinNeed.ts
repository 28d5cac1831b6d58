import { Type, type Static } from '@sinclair/typebox';
import { CIRCUIT_KINDS, type CircuitKind } from '../loom/circuit';
import { DOUBTS, type Doubt } from '../hold';
import { InsulationWordsSchema } from '../loom/colour';
import { literals, NameSchema } from '../ids';
import { mapRecord } from '../mapRecord';
import { CAPABILITIES } from './pinOffer';

/** Where a fact comes from. What is only guessed stops work. */
export const EVIDENCE = ['read', 'measured', 'told', 'guessed'] as const;
export type Evidence = (typeof EVIDENCE)[number];
export const EvidenceSchema = literals(EVIDENCE);

/** What a load is, for its share of the voltage: each kind has a budget in the shop standard. */
export const LOADS = ['electronics', 'ignition', 'motor', 'lamp', 'heater', 'starter'] as const;
export type Load = (typeof LOADS)[number];

/** How the current of a supply goes home: by a pin of its device, or by its case, bolted to the engine or to the chassis. */
export const RETURNS = ['pin', 'engine-case', 'chassis-case'] as const;
export type Return = (typeof RETURNS)[number];

/** What a device needs at one pin, as far as it is known. */
export const PinNeedSchema = Type.Object(
  {
    function: NameSchema,
    kind: literals(CIRCUIT_KINDS),
    required: Type.Boolean(),
    volts: Type.Union([Type.Number({ minimum: -60, maximum: 60 }), Type.Null()], {
      description: 'voltage of a supply in V; null where it is none or not known',
    }),
    currentA: Type.Union([Type.Number({ minimum: 0, maximum: 1000 }), Type.Null()], {
      description:
        'what flows while it is on, in A; null: not known. A ground beside a supply states none: what the supplies draw comes home',
    }),
    screened: Type.Boolean({ description: 'wants a screened cable' }),
    twistWith: Type.Union([Type.String({ pattern: '^[A-Za-z0-9]{1,6}$' }), Type.Null()], {
      description: 'the pin its wire is twisted with; null: none',
    }),
    wants: Type.Union([literals(CAPABILITIES), Type.Null()], {
      description: 'what the controller pin it leads to must be able to do; null: any of its kind',
    }),
    pwmHz: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 100000 }), Type.Null()], {
      description: 'how fast it is switched in Hz; null: on and off only',
    }),
    load: Type.Union([literals(LOADS), Type.Null()], {
      description: 'kind of load of a supply; null: not known, the tightest budget counts',
    }),
    inrushA: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 5000 }), Type.Null()], {
      description: 'current when it is switched on, in A; null: no more than the continuous',
    }),
    inrushMs: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 60000 }), Type.Null()], {
      description: 'how long that lasts; null: no inrush',
    }),
    cycleS: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 86400 }), Type.Null()], {
      description: 'how long one turn of on and off takes in s; null: long, its share of the time does not cool it',
    }),
    returnBy: literals(RETURNS, { description: 'how the current of a supply goes home' }),
    noise: Type.Union([Type.String({ minLength: 1, maxLength: 40 }), Type.Null()], {
      description: 'sensor grounds and supplies of one group may be shared; null: the group of all the rest',
    }),
    lead: Type.Union([InsulationWordsSchema, Type.Null()], {
      description: 'insulation of the lead that the maker or the factory has there; null: none, or not known',
    }),
    evidence: Type.Union([EvidenceSchema, Type.Null()], { description: 'where this is known from; null: not recorded' }),
    doubts: Type.Array(literals(DOUBTS), {
      ...{ uniqueItems: true, maxItems: DOUBTS.length },
      description: 'what of it is guessed, where it is: the cavity, the current, the volts; empty: not said, all of it may be wrong',
    }),
  },
  { additionalProperties: false },
);
export type PinNeed = Static<typeof PinNeedSchema>;

/** What of a pin may be wrong where somebody guessed it: which cavity it is, and the figures that were given with it. */
export const listLikelyDoubts = ({ currentA, volts }: Pick<PinNeed, 'currentA' | 'volts'>): Doubt[] =>
  DOUBTS.filter((doubt) => doubt === 'place' || (doubt === 'current' ? currentA !== null : volts !== null));

/** What an older format had of whatever has pins, as it is written now. */
export const addDoubts = (owner: Record<string, unknown>) => ({
  ...owner,
  pins: mapRecord(owner.pins, (pin) => ({ ...pin, doubts: [] })),
});

/** Nobody said how the leads of makers look in an older format. */
export const addLeads = (owner: Record<string, unknown>) => ({
  ...owner,
  pins: mapRecord(owner.pins, (pin) => ({ ...pin, lead: null })),
  offers: mapRecord(owner.offers, (offer) => ({ ...offer, lead: null })),
});

/** A need with nothing special about it. */
export function createPinNeed(name: string, kind: CircuitKind, rest: Partial<PinNeed> = {}): PinNeed {
  return {
    function: name,
    kind,
    required: true,
    volts: null,
    currentA: null,
    screened: false,
    twistWith: null,
    wants: null,
    pwmHz: null,
    load: null,
    inrushA: null,
    inrushMs: null,
    cycleS: null,
    returnBy: 'pin',
    noise: null,
    lead: null,
    evidence: null,
    doubts: [],
    ...rest,
  };
}
