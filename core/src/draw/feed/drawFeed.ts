import type { PlannedFeed, PlannedFeedPiece } from '../../plan';
import { FAINT, HAIR, INK, text, type Drawing, type Mark } from '../drawing';
import { fitText } from '../measureText';

const WIDTH_MM = 182;
const GAP_MM = 4;
const WORDS_MM = 15;
const BRASS = '#b8862f';
const ALARM = '#b3261e';
const PANEL = '#e6e9e6';
const WIRES = '#cfc4a5';
/** a hole is drawn at its true size up to this, mm */
const MOST_BORE_MM = 54;

/**
 * The hole once for each part that is led through it, in their order: the bore, what lies in it already, and the part on its way. nameOf: of an
 * end. What is through is drawn as the round that it counts with.
 */
export function drawFeed(feed: PlannedFeed, nameOf: (endId: string) => string): Drawing {
  return drawTurns(feed, 0, feed.pieces.length, nameOf);
}

/** The same in pictures of one row each, so that a sheet can part between them. */
export function drawFeedRows(feed: PlannedFeed, nameOf: (endId: string) => string): Drawing[] {
  const { perRow } = toGrid(feed.boreMm);
  return Array.from({ length: Math.ceil(feed.pieces.length / perRow) }, (_, row) =>
    drawTurns(feed, row * perRow, Math.min((row + 1) * perRow, feed.pieces.length), nameOf),
  );
}

function toGrid(boreMm: number): { scale: number; cell: number; perRow: number; tall: number } {
  const scale = Math.min(1, MOST_BORE_MM / boreMm);
  const cell = Math.max(boreMm * scale + GAP_MM, 30);
  return { scale, cell, perRow: Math.max(1, Math.floor(WIDTH_MM / cell)), tall: boreMm * scale + WORDS_MM + GAP_MM };
}

/** Turns from one on, up to another. */
function drawTurns({ boreMm, leaveMm, pieces: all }: PlannedFeed, from: number, until: number, nameOf: (endId: string) => string): Drawing {
  const { scale, cell, perRow, tall } = toGrid(boreMm);
  const pieces = all.slice(from, until);
  const marks = pieces.flatMap((piece, at) => {
    const x = (at % perRow) * cell + cell / 2;
    const y = Math.floor(at / perRow) * tall + (boreMm * scale) / 2 + 1;
    return [
      ...drawHole(piece, { boreMm, leaveMm, scale, x, y }),
      ...drawWords(piece, from + at, nameOf(piece.id), x, y + (boreMm * scale) / 2, cell),
    ];
  });
  const rows = Math.ceil(pieces.length / perRow);
  const words = scale === 1 ? 'holes and parts at true size' : `holes and parts at ${Math.round(scale * 100)} % of their size`;
  return {
    widthMm: WIDTH_MM,
    heightMm: rows * tall + 4,
    marks: [...marks, ...(until === all.length ? [text(WIDTH_MM, rows * tall + 2, words, 3.2, { anchor: 'end', fill: FAINT })] : [])],
  };
}

interface Place {
  boreMm: number;
  leaveMm: number;
  scale: number;
  x: number;
  y: number;
}

/** Bore, what is through to the left, what comes to the right of it. */
function drawHole({ throughMm, envelopeMm, needMm, goesAs, passes }: PlannedFeedPiece, { boreMm, leaveMm, scale, x, y }: Place): Mark[] {
  const left = x - (needMm / 2) * scale;
  const round = (fromMm: number, mm: number, fill: string, stroke: string): Mark => ({
    ...{ kind: 'circle', x: left + (fromMm + mm / 2) * scale, y, r: (mm / 2) * scale, fill, stroke, width: 0.3 },
  });
  const fill = goesAs === 'wires' ? WIRES : passes ? '#ffffff' : '#f6dcd8';
  return [
    { kind: 'circle', x, y, r: (boreMm / 2) * scale, fill: PANEL, stroke: INK, width: 0.4 },
    { kind: 'circle', x, y, r: ((boreMm - leaveMm) / 2) * scale, fill: '#fdfcf8', stroke: HAIR, width: 0.15, dash: [0.8, 0.8] },
    ...(throughMm > 0 ? [round(0, throughMm, WIRES, FAINT)] : []),
    round(throughMm, envelopeMm, fill, passes ? BRASS : ALARM),
  ];
}

function drawWords(
  { throughMm, envelopeMm, needMm, goesAs, passes }: PlannedFeedPiece,
  at: number,
  name: string,
  x: number,
  bottom: number,
  cell: number,
): Mark[] {
  const sum = throughMm > 0 ? `${envelopeMm.toFixed(1)} + ${throughMm.toFixed(1)} = ${needMm.toFixed(1)}` : envelopeMm.toFixed(1);
  const fill = passes ? INK : ALARM;
  return [
    text(x, bottom + 4, fitText(`${at + 1}. ${name}`, 3.4, 'narrow-bold', cell - 1), 3.4, { anchor: 'middle', face: 'narrow-bold', fill }),
    text(x, bottom + 8.2, goesAs === 'wires' ? 'wires, taped' : goesAs, 3.2, { anchor: 'middle', fill: FAINT }),
    text(x, bottom + 12.2, sum, 3.2, { anchor: 'middle', face: 'narrow', fill }),
  ];
}
