import encode from 'qr';
import { INK, type Mark, type SheetPage } from '../drawing';

/** Dark modules of a code as one path. Two-dimensional code of ISO/IEC 18004, 15 % of it may be dirty. */
export function drawCode(words: string, x: number, y: number, sizeMm: number): Mark {
  // the encoder will have an edge; the paper has its own
  const rows = encode(words, 'raw', { ecc: 'medium', border: 1 })
    .slice(1, -1)
    .map((row) => row.slice(1, -1));
  const module = sizeMm / rows.length;
  const at = (value: number) => value.toFixed(3);
  const d = rows.flatMap((row, line) =>
    listDarkRuns(row).map(([from, to]) => {
      const [left, right, top, low] = [x + from * module, x + to * module, y + line * module, y + (line + 1) * module];
      return `M${at(left)} ${at(top)}L${at(right)} ${at(top)}L${at(right)} ${at(low)}L${at(left)} ${at(low)}Z`;
    }),
  );
  return { kind: 'path', d: d.join(''), fill: INK, stroke: null, width: 0 };
}

/** From and to of each run of dark modules in a row. */
function listDarkRuns(row: readonly boolean[]): [from: number, to: number][] {
  const runs: [number, number][] = [];
  row.forEach((isDark, at) => {
    if (!isDark) return;
    const last = runs.at(-1);
    if (last && last[1] === at) last[1] = at + 1;
    else runs.push([at, at + 1]);
  });
  return runs;
}

/**
 * Pages with the codes that open their cards on the floor. Drawn when they are printed and not before: pages are kept for years, and the
 * address of a server changes. toAddress: of a card.
 */
export const addCodes = (pages: readonly SheetPage[], toAddress: (card: string) => string): SheetPage[] =>
  pages.map((page) => ({
    ...page,
    marks: [...page.marks, ...(page.codes ?? []).map(({ card, x, y, sizeMm }) => drawCode(toAddress(card), x, y, sizeMm))],
  }));
