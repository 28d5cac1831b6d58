import type { PlannedPlank, PlankStation } from '../../make';
import { FAINT, HAIR, INK, line, text, type Drawing, type Mark } from '../drawing';
import { measureText } from '../measureText';

const LARGE = 4.9;
const SMALL = 3.2;
const LEADING = 4.4;
/** from the edge of the drawing to the datum, and room for what is written at the last station */
const LEFT_MM = 25;
const RIGHT_MM = 90;
/** from the top to the line */
const LINE_MM = 34;
const MARK_MM = 100;

/** The trunk of a loom at full scale as one line, with a station where something leaves: its distance, its name, what leaves and how long. */
export function drawPlank({ stations, runs, lengthMm }: PlannedPlank): Drawing {
  const placed = placeWords(stations);
  const lowest = Math.max(...placed.map(({ bottom }) => bottom), LINE_MM + 30);
  const marks: Mark[] = [
    ...runs.flatMap(({ fromMm, toMm, odMm }): Mark[] =>
      odMm > 0
        ? [{ kind: 'rect', x: LEFT_MM + fromMm, y: LINE_MM - odMm / 2, w: toMm - fromMm, h: odMm, fill: '#dbe4e2', stroke: null, width: 0 }]
        : [],
    ),
    ...runs.map(({ fromMm, toMm, isFitted }) =>
      line([LEFT_MM + fromMm, LINE_MM], [LEFT_MM + toMm, LINE_MM], 0.5, INK, isFitted ? undefined : [6, 2]),
    ),
    ...Array.from({ length: Math.floor(lengthMm / MARK_MM) + 1 }, (_, nth) => [
      line([LEFT_MM + nth * MARK_MM, LINE_MM - 16], [LEFT_MM + nth * MARK_MM, LINE_MM - 12], 0.25, FAINT),
      text(LEFT_MM + nth * MARK_MM, LINE_MM - 17.5, String(nth * MARK_MM), SMALL, { anchor: 'middle', face: 'mono', fill: FAINT }),
    ]).flat(),
    ...placed.flatMap(drawStation),
  ];
  return { widthMm: LEFT_MM + lengthMm + RIGHT_MM, heightMm: lowest + 16, marks };
}

interface PlacedStation {
  station: PlankStation;
  lines: string[];
  x: number;
  top: number;
  bottom: number;
}

const toLines = ({ branches }: PlankStation) => branches.map(({ words, side }) => `${side === null ? '' : `${side}: `}${words}`);

/** Words of each station as high as they can be without lying on those of another. */
function placeWords(stations: readonly PlankStation[]): PlacedStation[] {
  const placed: (PlacedStation & { right: number })[] = [];
  for (const station of stations) {
    const lines = toLines(station);
    const x = LEFT_MM + station.atMm;
    const wide = Math.max(
      measureText(station.name, LARGE, 'narrow-bold'),
      measureText(String(Math.round(station.atMm)), LARGE, 'mono') + 4,
      ...lines.map((words) => measureText(words, SMALL, 'narrow')),
    );
    const high = 2 * (LEADING + 1.2) + lines.length * LEADING;
    let top = LINE_MM + 16;
    for (const one of [...placed].sort((a, b) => a.top - b.top))
      if (one.right + 3 > x && one.x < x + wide + 3 && one.top < top + high && one.bottom > top) top = one.bottom + 3;
    placed.push({ station, lines, x, top, bottom: top + high, right: x + wide });
  }
  return placed;
}

function drawStation({ station, lines, x, top }: PlacedStation): Mark[] {
  return [
    line([x, LINE_MM - 10], [x, LINE_MM + 12], station.kind === 'pass' ? 0.3 : 0.6),
    line([x, LINE_MM + 12], [x, top + 3], 0.2, HAIR),
    text(x + 1.5, top + LEADING, `${Math.round(station.atMm)}`, LARGE, { face: 'mono' }),
    text(x + 1.5, top + 2 * LEADING + 1.4, station.name, LARGE, { face: 'narrow-bold' }),
    ...lines.map((words, nth) => text(x + 1.5, top + 2 * LEADING + 1.8 + (nth + 1) * LEADING, words, SMALL)),
  ];
}
