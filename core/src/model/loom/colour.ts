import { Type, type Static } from '@sinclair/typebox';

export const COLOUR_NAMES = ['black', 'brown', 'red', 'orange', 'yellow', 'green', 'blue', 'violet', 'grey', 'white', 'pink'] as const;

export const ColourNameSchema = Type.Union(COLOUR_NAMES.map((name) => Type.Literal(name)));
export type ColourName = (typeof COLOUR_NAMES)[number];

/** so many rings are still read */
export const MOST_BANDS = 3;

/** A wire's true look: the base colour of its insulation, a stripe, or null for none, and the rings put on near its ends. */
export const ColourSchema = Type.Object(
  {
    base: ColourNameSchema,
    stripe: Type.Union([ColourNameSchema, Type.Null()]),
    bands: Type.Array(ColourNameSchema, { maxItems: MOST_BANDS, description: 'rings round it, the one nearest to the end first' }),
  },
  { additionalProperties: false },
);
export type Colour = Static<typeof ColourSchema> & { base: ColourName; stripe: ColourName | null; bands: ColourName[] };

const NAMED = `(${COLOUR_NAMES.join('|')})`;

/** Insulation in words: "red", "red/black". */
export const InsulationWordsSchema = Type.String({ pattern: `^${NAMED}(/${NAMED})?$` });

/** Every insulation that there can be, plain ones first. */
export const INSULATIONS: readonly string[] = [
  ...COLOUR_NAMES,
  ...COLOUR_NAMES.flatMap((base) => COLOUR_NAMES.filter((one) => one !== base).map((stripe) => `${base}/${stripe}`)),
];

/** What the insulation itself looks like, as it is bought: "red/black", "white". */
export const toInsulationWords = ({ base, stripe }: Pick<Colour, 'base' | 'stripe'>): string =>
  stripe === null ? base : `${base}/${stripe}`;

/** The whole look in words, as it prints: "red/black", "white", "white (red blue)" with its bands from the end on. */
export const toColourWords = (colour: Colour): string =>
  colour.bands.length === 0 ? toInsulationWords(colour) : `${toInsulationWords(colour)} (${colour.bands.join(' ')})`;

/** Looks from words such as "red", "red/black", "Red-Black" or "white (red blue)"; null where they are none of ours. */
export function fromColourWords(words: string): Colour | null {
  const [, insulation, rings] = /^([^()]*)(?:\(([^()]*)\))?$/.exec(words.trim().toLowerCase()) ?? [];
  if (insulation === undefined) return null;
  const [base, stripe, ...more] = insulation.trim().split(/\s*[/\-+]\s*/);
  const bands = rings === undefined ? [] : rings.split(/[\s,]+/).filter((one) => one !== '');
  const isName = (name: string | undefined): name is ColourName => COLOUR_NAMES.includes(name as ColourName);
  if (!isName(base) || more.length || (stripe !== undefined && !isName(stripe))) return null;
  if (bands.length > MOST_BANDS || !bands.every(isName)) return null;
  return { base, stripe: stripe ?? null, bands: bands as ColourName[] };
}

/** Insulation colours as they are drawn; always beside the word, for nobody goes by hue alone. */
export const WIRE_HEX = {
  black: '#23282b',
  brown: '#7a4a26',
  red: '#c9302c',
  orange: '#e8801c',
  yellow: '#f0c52e',
  green: '#2f8a4a',
  blue: '#2f63c4',
  violet: '#7c4bb0',
  grey: '#8f989d',
  white: '#fbfaf4',
  pink: '#e58aa9',
} satisfies Record<ColourName, string>;
