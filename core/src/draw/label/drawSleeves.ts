import { LINE_SHARE, measureFlat } from '../../plan';
import { FAINT, HAIR, INK, text, type Drawing, type Mark } from '../drawing';
import { toLetterSize, type PrintedSleeve, type PrintedStock } from './printSleeves';

const GAP = 1.2;
const ALARM = '#b3261e';

/** Sleeves of one stock at their true size, side by side as wide as the paper, in the order in which they are printed. */
export function drawSleeves({ stock, sleeves }: PrintedStock, widthMm: number): Drawing {
  const perRow = Math.max(1, Math.floor((widthMm + GAP) / (stock.lengthMm + GAP)));
  const height = measureFlat(stock.suppliedBoreMm);
  const marks = sleeves.flatMap((sleeve, at) =>
    drawSleeve(sleeve, (at % perRow) * (stock.lengthMm + GAP), Math.floor(at / perRow) * (height + GAP), stock.lengthMm, height),
  );
  return { widthMm, heightMm: Math.ceil(sleeves.length / perRow) * (height + GAP), marks };
}

function drawSleeve({ lines, capMm, cutOffMm }: PrintedSleeve, x: number, y: number, w: number, h: number): Mark[] {
  const size = toLetterSize(capMm);
  const block = capMm * (1 + LINE_SHARE * (lines.length - 1));
  const first = y + (h - block) / 2 + capMm;
  return [
    { kind: 'rect', x, y, w, h, fill: '#ffffff', stroke: cutOffMm > 0 ? ALARM : HAIR, width: cutOffMm > 0 ? 0.4 : 0.15 },
    ...lines.map((words, at) =>
      text(x + w / 2, first + at * LINE_SHARE * capMm, words, size, { anchor: 'middle', fill: cutOffMm > 0 ? FAINT : INK }),
    ),
  ];
}
