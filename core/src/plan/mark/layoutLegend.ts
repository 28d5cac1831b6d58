import type { ShopStandard } from '../../catalogue';
import type { LabelStock } from '../../model';

/** How a legend stands on its sleeve. */
export interface Legend {
  lines: string[];
  /** height of a capital letter as it is printed, mm, down to a tenth */
  capMm: number;
  /** not lower than the shop reads */
  fits: boolean;
}

/** Room along the sleeve that a letter takes, of its height (craft A6). */
export const LETTER_SHARE = 0.62;
/** From one line to the next, of the height of a letter. */
export const LINE_SHARE = 1.4;
const MOST_LINES = 3;

/**
 * A legend in as many lines as make its letters largest, as high as the shop wants them and no higher: letters × 0.62 × height within the printable
 * length (craft A6), all lines on the one side that a sleeve shows as it goes through the printer flat, half its supplied circumference.
 */
export function layoutLegend(
  text: string,
  { printableMm, suppliedBoreMm }: Pick<LabelStock, 'printableMm' | 'suppliedBoreMm'>,
  { legendMm, legendLeastMm }: Pick<ShopStandard, 'legendMm' | 'legendLeastMm'>,
): Legend {
  const words = text.split(/\s+/).filter(Boolean);
  let best: Omit<Legend, 'fits'> = { lines: words, capMm: 0 };
  for (let count = 1; count <= Math.min(MOST_LINES, words.length); count += 1) {
    const lines = breakEvenly(words, count);
    const along = printableMm / (LETTER_SHARE * Math.max(...lines.map(({ length }) => length)));
    const across = measureFlat(suppliedBoreMm) / (1 + LINE_SHARE * (count - 1));
    const capMm = Math.floor(Math.min(legendMm, along, across) * 10 + 1e-9) / 10;
    if (capMm > best.capMm) best = { lines, capMm };
  }
  return { ...best, fits: best.capMm >= legendLeastMm };
}

/** Width of a sleeve that lies flat, mm. */
export const measureFlat = (suppliedBoreMm: number): number => (Math.PI * suppliedBoreMm) / 2;

/** Words in so many lines, the longest as short as can be. */
function breakEvenly(words: readonly string[], count: number): string[] {
  if (count === 1) return [words.join(' ')];
  let best: string[] = [];
  let least = Infinity;
  for (let first = 1; first <= words.length - count + 1; first += 1) {
    const lines = [words.slice(0, first).join(' '), ...breakEvenly(words.slice(first), count - 1)];
    const longest = Math.max(...lines.map(({ length }) => length));
    if (longest < least) [best, least] = [lines, longest];
  }
  return best;
}
