import { findFamily } from '../../catalogue';
import { toColourWords } from '../../model';
import { compareIds } from '../../units';
import { FAINT, HAIR, line, text, type Drawing, type Mark } from '../drawing';
import { fitText, measureText } from '../measureText';
import { drawSwatch } from './flow/drawCell';
import type { SheetContext } from './sheetContext';

const WIDE_MM = 86;
const EDGE_MM = 3;
const SIZE = 3.2;
const LINE_MM = 4.5;
/** more than this go on another card */
const MOST_LINES = 20;
const HEAD_MM = 15;

/** Cards for the pocket: what goes to which cavity of a device, as one asks at the trackside. */
export function addPocket(context: SheetContext): void {
  const cards = listPocketCards(context);
  if (cards.length === 0) return;
  context.flow.sheet('Pin cards', 'pocket', 'Cut along the dashes; a card fits a shirt pocket.');
  context.flow.pack(cards);
}

function listPocketCards({ job, loom, plan, catalogue, wires }: SheetContext): Drawing[] {
  const circuitName = (wireId: string) => loom.circuits[wires.get(wireId)!.circuitId]?.name ?? '';
  return Object.keys(loom.ends)
    .sort(compareIds)
    .flatMap((endId) => {
      const end = loom.ends[endId]!;
      const family = findFamily(job, catalogue, end.familyId);
      const rows = plan.terminations
        .filter((one) => one.endId === endId && one.wireIds.length > 0)
        .flatMap(({ cavity, wireIds }) => wireIds.map((id) => ({ cavity, wire: wires.get(id)!, words: circuitName(id) })));
      if (end.kind !== 'connector' || rows.length === 0) return [];
      const count = Math.ceil(rows.length / MOST_LINES);
      return Array.from({ length: count }, (_, part) =>
        drawCard(
          `${end.name}${count > 1 ? `, ${part + 1} of ${count}` : ''}`,
          `${family?.name ?? 'housing to be chosen'}${end.key === null ? '' : `, key ${end.key}`} · loom ${loom.name}`,
          rows.slice(part * MOST_LINES, (part + 1) * MOST_LINES),
        ),
      );
    });
}

interface Row {
  cavity: string;
  wire: Parameters<typeof toWireWords>[0];
  words: string;
}

const toWireWords = ({ number, colour }: { number: string; colour: Parameters<typeof toColourWords>[0] }) =>
  `${number} ${toColourWords(colour)}`;

function drawCard(title: string, words: string, rows: readonly Row[]): Drawing {
  const heightMm = HEAD_MM + rows.length * LINE_MM + 2;
  const cavityMm = Math.max(8, ...rows.map(({ cavity }) => measureText(cavity, SIZE, 'narrow-bold') + 2));
  const right = WIDE_MM - EDGE_MM;
  const dash = [1.2, 1.2];
  const marks: Mark[] = [
    line([0, 0], [WIDE_MM, 0], 0.2, FAINT, dash),
    line([0, heightMm], [WIDE_MM, heightMm], 0.2, FAINT, dash),
    line([0, 0], [0, heightMm], 0.2, FAINT, dash),
    line([WIDE_MM, 0], [WIDE_MM, heightMm], 0.2, FAINT, dash),
    text(EDGE_MM, 6.2, fitText(title, 4.4, 'narrow-bold', right - EDGE_MM), 4.4, { face: 'narrow-bold' }),
    text(EDGE_MM, 10.6, fitText(words, SIZE, 'narrow', right - EDGE_MM), SIZE),
    line([EDGE_MM, 12], [right, 12], 0.3),
  ];
  rows.forEach(({ cavity, wire, words: serves }, at) => {
    const y = HEAD_MM + (at + 1) * LINE_MM - 1.2;
    const wireWords = toWireWords(wire);
    const wide = measureText(wireWords, SIZE, 'narrow');
    marks.push(
      text(EDGE_MM, y, cavity, SIZE, { face: 'narrow-bold' }),
      text(EDGE_MM + cavityMm, y, fitText(serves, SIZE, 'narrow', right - wide - 8 - EDGE_MM - cavityMm), SIZE),
      ...drawSwatch(wire.colour, right - wide - 6, y - 2.2, 5, 2.2),
      text(right, y, wireWords, SIZE, { anchor: 'end' }),
      line([EDGE_MM, y + 1], [right, y + 1], 0.1, HAIR),
    );
  });
  return { widthMm: WIDE_MM, heightMm, marks };
}
