import { Type, type Static } from '@sinclair/typebox';
import { IdSchema, literals, NameSchema, ReasonSchema, recordOf } from '../ids';
import { mapRecord } from '../mapRecord';

const CavitySchema = Type.String({ pattern: '^[A-Za-z0-9]{1,6}$' });

/** What the engine does in a mode: while it is off the battery alone gives, while it is cranked the starter's own budget counts. */
export const ENGINE_STATES = ['off', 'cranking', 'running'] as const;
export type EngineState = (typeof ENGINE_STATES)[number];

/** A state of the vehicle in which loads are on or off and switches open or closed; a device counts as fully on until somebody says otherwise (craft G6). */
export const ModeSchema = Type.Object(
  { name: NameSchema, engine: literals(ENGINE_STATES, { description: 'cranking: the starter turns, and its own drop budget counts' }) },
  { additionalProperties: false },
);
export type Mode = Static<typeof ModeSchema>;

/** How a switch, a relay or a channel stands in a mode. momentary: open, and closed for as long as it is held. */
export const LINK_STATES = ['open', 'closed', 'momentary'] as const;
export type LinkState = (typeof LINK_STATES)[number];

/** A link of a device of this job. */
export const LinkRefSchema = Type.Object({ deviceId: IdSchema, linkId: IdSchema }, { additionalProperties: false });
export type LinkRef = Static<typeof LinkRefSchema>;

/** Battery, generator and the way back through the chassis. */
export const SourceSchema = Type.Object(
  {
    volts: Type.Number({ minimum: 1, maximum: 60, description: 'what drop budgets are a share of' }),
    milliohm: Type.Number({ minimum: 0, maximum: 1000, description: 'inner resistance of the battery' }),
    chassisMilliohm: Type.Union([Type.Number({ minimum: 0, maximum: 1000 }), Type.Null()], {
      description:
        'through the chassis to the stud of battery negative in mΩ: of cases bolted to it, and of ground studs without a figure of their own; null: a composite tub, every return needs a wire',
    }),
    continuousA: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 1000 }), Type.Null()], {
      description: 'what the generator gives for good; null: not known',
    }),
    capacityAh: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 1000 }), Type.Null()], {
      description: 'what the battery holds; null: not known, no time is told',
    }),
    isolator: Type.Union([LinkRefSchema, Type.Null()], {
      description: 'the switch that has to stop the engine and to leave nothing live but what the rules allow; null: not said',
    }),
  },
  { additionalProperties: false },
);
export type Source = Static<typeof SourceSchema>;

/** What joins two pins inside a box: it protects, switches, or just joins. a is the side of the supply. */
export const LINK_KINDS = ['fuse', 'channel', 'relay', 'switch', 'bar'] as const;
export type LinkKind = (typeof LINK_KINDS)[number];
const LinkSideSchema = Type.Object(
  {
    part: Type.Union([IdSchema, Type.Null()], { description: 'template of another part of the same unit; null: this one' }),
    cavity: CavitySchema,
  },
  { additionalProperties: false },
);
export const TemplateLinkSchema = Type.Object(
  {
    name: NameSchema,
    kind: literals(LINK_KINDS),
    a: LinkSideSchema,
    b: LinkSideSchema,
    maxA: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 1000 }), Type.Null()], {
      description: 'largest fuse, setting or contact current; null: no limit of its own',
    }),
    peakA: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 5000 }), Type.Null()], {
      description: 'what a contact bears for a moment in A; null: not stated, three times its largest current counts',
    }),
    coil: Type.Union([Type.Object({ feed: CavitySchema, switch: CavitySchema }, { additionalProperties: false }), Type.Null()], {
      description: 'pins of the coil that works a relay contact; null: no relay, or worked inside',
    }),
    closedIn: Type.Array(NameSchema, {
      ...{ maxItems: 12, uniqueItems: true },
      description: 'positions of a switch of several throws in which this contact is closed; empty: it is open or closed by itself',
    }),
  },
  { additionalProperties: false },
);
export type TemplateLink = Static<typeof TemplateLinkSchema>;

/** What an older format had of whatever has links, as it is written now. */
export const addThrows = (owner: Record<string, unknown>) => ({
  ...owner,
  links: mapRecord(owner.links, (link) => ({ ...link, closedIn: [] })),
});

/** A fuse or setting chosen by hand. */
export const RatingSchema = Type.Object(
  { ratingA: Type.Number({ exclusiveMinimum: 0, maximum: 1000 }), reason: ReasonSchema },
  { additionalProperties: false },
);
export type Rating = Static<typeof RatingSchema>;

/** A small part that is neither wire nor device: where it is, why, and what a meter reads with it in. */
export const PART_KINDS = ['resistor', 'diode', 'pull-up', 'terminator', 'suppressor'] as const;
export type PartKind = (typeof PART_KINDS)[number];
export const InlinePartSchema = Type.Object(
  {
    kind: literals(PART_KINDS),
    ohms: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 1e7 }), Type.Null()], { description: 'null: it is no resistor' }),
    watts: Type.Union([Type.Number({ exclusiveMinimum: 0, maximum: 500 }), Type.Null()], {
      description: 'what it may give off; null: not known',
    }),
    at: Type.Object(
      { loomId: IdSchema, endId: IdSchema, cavities: Type.Tuple([CavitySchema, CavitySchema]) },
      { additionalProperties: false, description: 'between these two cavities of an end' },
    ),
    inside: Type.Boolean({ description: 'built into the device there' }),
    reason: ReasonSchema,
  },
  { additionalProperties: false },
);
export type InlinePart = Static<typeof InlinePartSchema>;

export const ModesSchema = recordOf(ModeSchema);
export const InlinePartsSchema = recordOf(InlinePartSchema);
