import type { Colour, ConnectorFamily } from '../model';
import { WIRE_HEX } from '../model';
import { drawFace } from './drawFace';
import { INK, text, type Drawing, type Mark } from './drawing';

const DARK = ['black', 'brown', 'blue', 'violet', 'green', 'red'];

/** A face for paper, wire side, at up to 2.4 times its size; cavities in the colour of their wires, empty ones dashed. */
export function drawFacePicture(family: ConnectorFamily, colourAt: (cavity: string) => Colour | null): Drawing {
  const face = drawFace(family, 'wire');
  const zoom = Math.min(2.4, 52 / Math.max(face.heightMm, face.widthMm / 3));
  const [w, h] = [face.widthMm * zoom, face.heightMm * zoom];
  const [cx, cy] = [w / 2 + 2, h / 2 + 1];
  const frame = { fill: null, stroke: INK, width: 0.5 };
  const outline: Mark = face.round
    ? { kind: 'circle', x: cx, y: cy, r: w / 2, ...frame }
    : { kind: 'rect', x: cx - w / 2, y: cy - h / 2, w, h, ...frame };
  const spots = face.spots.flatMap(({ cavity, x, y }): Mark[] => {
    const colour = colourAt(cavity);
    const [px, py, r] = [cx + x * zoom, cy + y * zoom, (face.cavityMm(cavity) * zoom) / 2];
    const size = Math.min(2.4, r * 1.1);
    return [
      {
        kind: 'circle',
        x: px,
        y: py,
        r,
        fill: colour ? WIRE_HEX[colour.base] : '#ffffff',
        stroke: INK,
        width: 0.25,
        ...(colour ? {} : { dash: [0.5, 0.5] }),
      },
      ...(colour?.stripe
        ? [{ kind: 'circle' as const, x: px, y: py, r: r * 0.84, fill: null, stroke: WIRE_HEX[colour.stripe], width: r * 0.22 }]
        : []),
      text(px, py + size * 0.36, cavity, size, {
        face: 'mono',
        anchor: 'middle',
        fill: colour && DARK.includes(colour.base) ? '#ffffff' : INK,
      }),
    ];
  });
  return {
    widthMm: w + 30,
    heightMm: h + 3,
    marks: [outline, ...spots, text(cx + w / 2 + 4, cy, 'WIRE SIDE', 2.6, { face: 'narrow-bold' })],
  };
}
