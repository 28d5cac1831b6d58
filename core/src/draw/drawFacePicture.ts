import type { Colour, ConnectorFamily } from '../model';
import { WIRE_HEX } from '../model';
import { drawFace } from './drawFace';
import { INK, text, type Drawing, type Mark } from './drawing';
import { measureText } from './measureText';

/** of the names of cavities, mm: 9 pt */
const WORDS_MM = 3.2;
/** width and height that a face takes at most, mm */
const [MOST_WIDE_MM, MOST_TALL_MM] = [165, 110];
/** of a cavity, what is left white for its name */
const DISC = 0.7;
const MOST_ZOOM = 3;

/**
 * A face for paper, wire side, as large as the names of its cavities ask for. A cavity is a ring in the colours of its wire, an empty one is
 * dashed; names stand on white, so that they are read on every colour and in greys. wordsMm: of the names.
 */
export function drawFacePicture(family: ConnectorFamily, colourAt: (cavity: string) => Colour | null, wordsMm = WORDS_MM): Drawing {
  const face = drawFace(family, 'wire');
  const smallest = Math.min(...face.spots.map(({ cavity }) => face.cavityMm(cavity)));
  const longest = Math.max(...face.spots.map(({ cavity }) => measureText(cavity, wordsMm, 'narrow-bold')));
  const usual = Math.min(MOST_ZOOM, 15 / Math.max(face.heightMm, face.widthMm / 3));
  const asked = (Math.max(longest, wordsMm) + 0.5) / DISC / smallest;
  const zoom = Math.min(Math.max(usual, asked), MOST_WIDE_MM / face.widthMm, MOST_TALL_MM / face.heightMm);
  const [w, h] = [face.widthMm * zoom, face.heightMm * zoom];
  const [cx, cy] = [w / 2 + 1, h / 2 + 1];
  const frame = { fill: null, stroke: INK, width: 0.5 };
  const outline: Mark = face.round
    ? { kind: 'circle', x: cx, y: cy, r: w / 2, ...frame }
    : { kind: 'rect', x: cx - w / 2, y: cy - h / 2, w, h, ...frame };
  const spots = face.spots.flatMap(({ cavity, x, y }): Mark[] => {
    const colour = colourAt(cavity);
    const [px, py, r] = [cx + x * zoom, cy + y * zoom, (face.cavityMm(cavity) * zoom) / 2];
    const round = (radius: number, fill: string, stroke: string | null): Mark => ({
      ...{ kind: 'circle', x: px, y: py, r: radius, fill, stroke, width: 0.2 },
    });
    const rings: Mark[] = colour
      ? [
          round(r, WIRE_HEX[colour.base], INK),
          ...(colour.stripe ? [round(r * 0.9, WIRE_HEX[colour.stripe], null), round(r * 0.8, WIRE_HEX[colour.base], null)] : []),
          round(r * DISC, '#ffffff', null),
        ]
      : [{ kind: 'circle', x: px, y: py, r, fill: '#ffffff', stroke: INK, width: 0.25, dash: [0.5, 0.5] }];
    return [...rings, text(px, py + wordsMm * 0.36, cavity, wordsMm, { face: 'narrow-bold', anchor: 'middle' })];
  });
  const under = text(cx, h + 2 + wordsMm, 'WIRE SIDE', wordsMm, { face: 'narrow-bold', anchor: 'middle' });
  const wide = Math.max(w + 2, measureText('WIRE SIDE', wordsMm, 'narrow-bold') + 1);
  const shift = (wide - w) / 2 - 1;
  return {
    widthMm: wide,
    heightMm: h + wordsMm + 3.5,
    marks: [outline, ...spots, under].map((mark) => (mark.kind === 'path' || shift <= 0 ? mark : { ...mark, x: mark.x + shift })),
  };
}
