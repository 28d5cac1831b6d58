import type { PlannedFeed, PlannedFeedPiece } from '../../plan';
import { FAINT, HAIR, INK, text, type Drawing, type Mark } from '../drawing';
import { fitText } from '../measureText';

const WIDTH_MM = 182;
const GAP_MM = 4;
const WORDS_MM = 13;
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
export function drawFeed({ boreMm, leaveMm, pieces }: PlannedFeed, nameOf: (endId: string) => string): Drawing {
  const scale = Math.min(1, MOST_BORE_MM / boreMm);
  const cell = Math.max(boreMm * scale + GAP_MM, 30);
  const perRow = Math.max(1, Math.floor(WIDTH_MM / cell));
  const tall = boreMm * scale + WORDS_MM + GAP_MM;
  const marks = pieces.flatMap((piece, at) => {
    const x = (at % perRow) * cell + cell / 2;
    const y = Math.floor(at / perRow) * tall + (boreMm * scale) / 2 + 1;
    return [
      ...drawHole(piece, { boreMm, leaveMm, scale, x, y }),
      ...drawWords(piece, at, nameOf(piece.id), x, y + (boreMm * scale) / 2, cell),
    ];
  });
  const rows = Math.ceil(pieces.length / perRow);
  const words = scale === 1 ? 'holes and parts at true size' : `holes and parts at ${Math.round(scale * 100)} % of their size`;
  return {
    widthMm: WIDTH_MM,
    heightMm: rows * tall + 4,
    marks: [...marks, text(WIDTH_MM, rows * tall + 2, words, 2.4, { anchor: 'end', fill: FAINT })],
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
    text(x, bottom + 4, fitText(`${at + 1}. ${name}`, 2.9, 'narrow-bold', cell - 1), 2.9, { anchor: 'middle', face: 'narrow-bold', fill }),
    text(x, bottom + 7.6, goesAs === 'wires' ? 'wires, taped' : goesAs, 2.5, { anchor: 'middle', fill: FAINT }),
    text(x, bottom + 11, sum, 2.6, { anchor: 'middle', face: 'mono', fill }),
  ];
}
