import type { Face } from './drawing';
import { FONT_WIDTHS } from './fontWidths';

const widths = new Map(
  Object.entries(FONT_WIDTHS).map(([face, rows]) => [
    face,
    new Map(rows.flatMap(([width, letters]) => [...(letters as string)].map((letter) => [letter, width as number] as const))),
  ]),
);

/** Width of a line of text in the unit of its size. A letter that the face lacks counts as wide as an m. */
export function measureText(words: string, size: number, face: Face): number {
  const table = widths.get(face)!;
  const unknown = table.get('m')!;
  let sum = 0;
  for (const letter of words) sum += table.get(letter) ?? unknown;
  return (sum * size) / 1000;
}

/** The text, cut at a width with an ellipsis where it is longer. */
export function fitText(words: string, size: number, face: Face, mostWidth: number): string {
  if (measureText(words, size, face) <= mostWidth) return words;
  let kept = words;
  while (kept.length > 1 && measureText(`${kept}…`, size, face) > mostWidth) kept = kept.slice(0, -1);
  return `${kept.trimEnd()}…`;
}

/** Words broken into lines no wider than given; a word that is wider by itself is cut. */
export function wrapText(words: string, size: number, face: Face, mostWidth: number): string[] {
  const lines: string[] = [];
  let open = '';
  for (const word of words.split(/\s+/).filter(Boolean)) {
    const longer = open === '' ? word : `${open} ${word}`;
    if (measureText(longer, size, face) <= mostWidth) open = longer;
    else {
      if (open !== '') lines.push(open);
      open = fitText(word, size, face, mostWidth);
    }
  }
  return open === '' ? lines : [...lines, open];
}
