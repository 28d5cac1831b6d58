import type { ColourName } from '../model';

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
