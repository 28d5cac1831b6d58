import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, literals } from '../ids';

/**
 * What first power of a vehicle asks for beside what its wires say (craft E2): coding of a module, a voltage that goes into the file of the
 * controller, and what nobody can prove while it stands (boost, speed, rain).
 */
export const PROVING_KINDS = ['coding', 'value', 'later'] as const;
export type ProvingKind = (typeof PROVING_KINDS)[number];

export const ProvingSchema = Type.Object(
  {
    kind: literals(PROVING_KINDS),
    what: Type.String({ minLength: 1, maxLength: 300, pattern: '\\S' }),
    deviceId: Type.Union([IdSchema, Type.Null()], { description: 'device that it is about; null: the vehicle' }),
    when: Type.String({ maxLength: 200, description: 'of what is proved later: under which condition; empty: not said yet' }),
  },
  { additionalProperties: false },
);
export type Proving = Static<typeof ProvingSchema>;

export const createProving = (kind: ProvingKind, what: string, rest: Partial<Proving> = {}): Proving => ({
  ...{ kind, what, deviceId: null, when: '' },
  ...rest,
});

/** Where the engine starts for the first time. */
export const FIRST_STARTS = ['vehicle', 'stand'] as const;
export type FirstStart = (typeof FIRST_STARTS)[number];
