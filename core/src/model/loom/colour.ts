import { Type, type Static } from '@sinclair/typebox';

export const COLOUR_NAMES = ['black', 'brown', 'red', 'orange', 'yellow', 'green', 'blue', 'violet', 'grey', 'white', 'pink'] as const;

export const ColourNameSchema = Type.Union(COLOUR_NAMES.map((name) => Type.Literal(name)));
export type ColourName = (typeof COLOUR_NAMES)[number];

/** A wire's true look: the base colour of its insulation and a stripe, or null for none. */
export const ColourSchema = Type.Object(
  { base: ColourNameSchema, stripe: Type.Union([ColourNameSchema, Type.Null()]) },
  { additionalProperties: false },
);
export type Colour = Static<typeof ColourSchema> & { base: ColourName; stripe: ColourName | null };

/** The colour in words, as it prints: "red/black", "white". */
export function toColourWords(colour: Colour): string {
  return colour.stripe === null ? colour.base : `${colour.base}/${colour.stripe}`;
}

/** Colours from words such as "red", "red/black" or "Red-Black"; null where they are no colours of ours. */
export function fromColourWords(words: string): Colour | null {
  const [base, stripe, ...more] = words
    .trim()
    .toLowerCase()
    .split(/\s*[/\-+]\s*/);
  const isName = (name: string | undefined): name is ColourName => COLOUR_NAMES.includes(name as ColourName);
  if (!isName(base) || more.length || (stripe !== undefined && !isName(stripe))) return null;
  return { base, stripe: stripe ?? null };
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
