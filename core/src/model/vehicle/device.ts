import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, literals, NameSchema, recordOf } from '../ids';
import { PinNeedSchema } from '../power/pinNeed';
import { PinOfferSchema } from '../power/pinOffer';
import { LINK_STATES, LinkRefSchema, RatingSchema, TemplateLinkSchema } from '../power/power';

/** What is to become of a device on this vehicle. */
export const DECISIONS = ['fit', 'keep', 'remove', 'repurpose', 'later'] as const;
export type Decision = (typeof DECISIONS)[number];

/** What is made for a device whose place is not known yet: an end in a connector with the tail made later, or full length left coiled. */
export const UNKNOWN_POLICIES = ['connector', 'coil'] as const;
export type UnknownPolicy = (typeof UNKNOWN_POLICIES)[number];

/** What can hurt whoever stands beside a kind of device as it is worked, beyond what its loads say. */
export const DEVICE_HAZARDS = ['injects-fuel', 'moves-fuel', 'blades', 'pressure'] as const;
export type DeviceHazard = (typeof DEVICE_HAZARDS)[number];

/** A kind of device with every pin it has: what a planner picks from, or makes for one job. */
export const DeviceTemplateSchema = Type.Object(
  {
    name: NameSchema,
    system: NameSchema,
    familyId: Type.Union([IdSchema, Type.Null()], {
      description: 'connector family that usually mates with it; null where it has studs or tails',
    }),
    pins: Type.Record(Type.String({ pattern: '^[A-Za-z0-9]{1,6}$' }), PinNeedSchema, { additionalProperties: false }),
    offers: Type.Record(Type.String({ pattern: '^[A-Za-z0-9]{1,6}$' }), PinOfferSchema, { additionalProperties: false }),
    links: recordOf(TemplateLinkSchema, { description: 'what joins pins inside it: fuses, channels, contacts' }),
    hazard: Type.Union([literals(DEVICE_HAZARDS), Type.Null()], {
      description: 'what can hurt as it is worked: first power says it; null: what its loads say',
    }),
    note: Type.String({ maxLength: 400 }),
  },
  { additionalProperties: false },
);
export type DeviceTemplate = Static<typeof DeviceTemplateSchema>;

/** One device of the vehicle, with what was decided about it, by whom and why. */
export const DeviceSchema = Type.Object(
  {
    name: NameSchema,
    system: NameSchema,
    templateId: Type.Union([IdSchema, Type.Null()], { description: 'null: pins not known yet' }),
    decision: literals(DECISIONS),
    reason: Type.String({ maxLength: 400 }),
    decidedBy: Type.String({ maxLength: 80, description: 'empty: not decided by anybody yet' }),
    zoneId: Type.Union([IdSchema, Type.Null()], { description: 'where it sits; null: not known' }),
    unknownPolicy: Type.Union([literals(UNKNOWN_POLICIES), Type.Null()], {
      description: 'what is made where the position is unknown; null: the position is known',
    }),
    at: Type.Union(
      [
        Type.Object({ loomId: IdSchema, endId: IdSchema }, { additionalProperties: false, description: 'the end that mates with it' }),
        Type.Null(),
      ],
      { description: 'null: not on a loom yet' },
    ),
    unit: Type.String({ maxLength: 80, description: 'devices of the same unit are plugs of one box; empty: it is a box of its own' }),
    duty: Type.Record(IdSchema, Type.Number({ minimum: 0, maximum: 1 }), {
      additionalProperties: false,
      description: 'mode → share of the time it is on; a mode that is not here counts as fully on',
    }),
    states: recordOf(Type.Record(IdSchema, literals(LINK_STATES), { additionalProperties: false }), {
      description: 'how its switches, relays and channels stand: link → mode → state; what is not here is not said',
    }),
    positions: Type.Record(IdSchema, NameSchema, {
      additionalProperties: false,
      description: 'mode → position of a switch of several throws; a mode that is not here is not said',
    }),
    enabledBy: recordOf(LinkRefSchema, { description: 'link → the link that has to give before this one does' }),
    ratings: recordOf(RatingSchema, { description: 'fuses and settings of its links chosen by hand; others are computed' }),
  },
  { additionalProperties: false },
);
export type Device = Static<typeof DeviceSchema>;

/** A device as it is first written on the list: to be fitted, nothing known but its name. */
export function createDevice(name: string, system: string, rest: Partial<Device> = {}): Device {
  return {
    name,
    system,
    templateId: null,
    decision: 'fit',
    reason: '',
    decidedBy: '',
    zoneId: null,
    unknownPolicy: null,
    at: null,
    unit: '',
    duty: {},
    states: {},
    positions: {},
    enabledBy: {},
    ratings: {},
    ...rest,
  };
}

const ACTUATES = /^(motor|ignition|starter|heater)$/;

/**
 * Until now first power told what can hurt by words in the names of devices: kinds that had such a name say it themselves now. What is
 * worked by nothing has none.
 */
export function addHazard(template: Record<string, unknown>): Record<string, unknown> {
  const pins = Object.values((template.pins ?? {}) as Record<string, { kind?: unknown; load?: unknown }>);
  const isWorked = pins.some((pin) => pin?.kind === 'output' || ACTUATES.test(String(pin?.load)));
  return { hazard: isWorked ? guessHazard(String(template.name), String(template.system)) : null, ...template };
}

function guessHazard(name: string, system: string): DeviceHazard | null {
  if (/inject/i.test(`${system} ${name}`)) return 'injects-fuel';
  if (/fuel/i.test(`${system} ${name}`)) return 'moves-fuel';
  if (/fan/i.test(name)) return 'blades';
  return /valve/i.test(name) ? 'pressure' : null;
}
