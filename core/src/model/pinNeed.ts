import { Type, type Static } from '@sinclair/typebox';
import { CIRCUIT_KINDS, type CircuitKind } from './circuit';
import { literals, NameSchema } from './ids';

/** Where a fact comes from. What is only guessed may not be cut. */
export const EVIDENCE = ['read', 'measured', 'told', 'guessed'] as const;
export type Evidence = (typeof EVIDENCE)[number];
export const EvidenceSchema = literals(EVIDENCE);

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
      description: 'largest continuous current in A; null: not known',
    }),
    screened: Type.Boolean({ description: 'wants a screened cable' }),
    twistWith: Type.Union([Type.String({ pattern: '^[A-Za-z0-9]{1,6}$' }), Type.Null()], {
      description: 'the pin its wire is twisted with; null: none',
    }),
    evidence: Type.Union([EvidenceSchema, Type.Null()], { description: 'where this is known from; null: not recorded' }),
  },
  { additionalProperties: false },
);
export type PinNeed = Static<typeof PinNeedSchema>;

/** A need with nothing special about it. */
export function createPinNeed(name: string, kind: CircuitKind, rest: Partial<PinNeed> = {}): PinNeed {
  return { function: name, kind, required: true, volts: null, currentA: null, screened: false, twistWith: null, evidence: null, ...rest };
}
