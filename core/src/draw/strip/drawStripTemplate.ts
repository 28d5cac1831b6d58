import { WIRE_HEX, type Colour } from '../../model';
import type { PlannedScreen } from '../../plan';
import { FAINT, INK, line, text, type Drawing, type Mark } from '../drawing';

const WIDTH_MM = 110;
/** jacket that is drawn before its edge */
const BEFORE_MM = 26;
const COPPER = '#b87333';
const JACKET = '#5d6c70';
const SCREEN = '#aab4b6';
const SLEEVE = '#1f7a80';

/**
 * A screened cable as it is opened, at its true size: laid on the paper it is cut by. Jacket to the left, tips of the cores to the right.
 * colours: of its cores, in their order.
 */
export function drawStripTemplate(screen: PlannedScreen, colours: readonly Colour[]): Drawing {
  const { jacketMm, coreMm, stripMm, insulationMm, screenMm, backMm, sleeveMm, drainId } = screen;
  const pitch = Math.max(coreMm * 1.8, 3.2);
  const tall = Math.max(jacketMm, pitch * colours.length);
  const middle = 9 + tall / 2;
  const edge = BEFORE_MM;
  const tip = edge + backMm;
  const [screenEnd, insulationEnd] = [edge + screenMm, edge + screenMm + insulationMm];
  const foot = middle + tall / 2 + 5;
  const rows = colours.map((colour, at) => ({ colour, y: middle + (at - (colours.length - 1) / 2) * pitch }));
  const marks: Mark[] = [
    { kind: 'rect', x: 0, y: middle - jacketMm / 2, w: edge, h: jacketMm, fill: JACKET, stroke: INK, width: 0.2 },
    ...rows.flatMap(({ colour, y }) => drawCore(colour, y, { middle, coreMm, from: screenEnd, insulationEnd, tip })),
    { kind: 'rect', x: edge, y: middle - (jacketMm * 0.85) / 2, w: screenMm, h: jacketMm * 0.85, fill: SCREEN, stroke: INK, width: 0.2 },
    ...drawWeave(edge, screenMm, middle, jacketMm * 0.85),
    ...(drainId === null ? [] : [line([screenEnd, middle + jacketMm * 0.42], [tip, middle + tall / 2 + 2], 0.8, SCREEN)]),
    // the sleeve stands over the edge, as far on either side
    {
      kind: 'rect',
      x: edge + screenMm / 2 - sleeveMm / 2,
      y: middle - jacketMm / 2 - 1.4,
      w: sleeveMm,
      h: jacketMm + 2.8,
      fill: null,
      stroke: SLEEVE,
      width: 0.4,
    },
    text(edge + screenMm / 2, middle - tall / 2 - 3.6, `sleeve ${sleeveMm}`, 3.2, { anchor: 'middle', fill: SLEEVE }),
    ...drawDimension(edge, screenEnd, foot, screenMm),
    ...drawDimension(screenEnd, insulationEnd, foot, insulationMm),
    ...drawDimension(insulationEnd, tip, foot, stripMm),
    ...drawDimension(edge, tip, foot + 5, backMm),
    text(1, foot + 5.8, 'true size on paper', 3.2, { fill: FAINT }),
  ];
  return { widthMm: WIDTH_MM, heightMm: foot + 8, marks };
}

interface Core {
  middle: number;
  coreMm: number;
  from: number;
  insulationEnd: number;
  tip: number;
}

/** A core out of the middle of the cable to its row, insulated, then bare. */
function drawCore({ base, stripe }: Colour, y: number, { middle, coreMm, from, insulationEnd, tip }: Core): Mark[] {
  const out = Math.min(from + 5, insulationEnd);
  const d = `M${from} ${middle + (y - middle) * 0.3}L${out} ${y}L${insulationEnd} ${y}`;
  const way = (stroke: string, width: number): Mark => ({ kind: 'path', d, fill: null, stroke, width });
  return [
    way(INK, coreMm + 0.25),
    way(WIRE_HEX[base], coreMm),
    ...(stripe ? [way(WIRE_HEX[stripe], coreMm * 0.3)] : []),
    line([insulationEnd, y], [tip, y], coreMm * 0.7, COPPER),
  ];
}

/** Strands that cross. */
function drawWeave(from: number, wide: number, middle: number, tall: number): Mark[] {
  const steps = Math.max(2, Math.round(wide / 1.6));
  return Array.from({ length: steps }, (_, at): Mark => {
    const [x, next] = [from + (at * wide) / steps, from + ((at + 1) * wide) / steps];
    return {
      kind: 'path',
      d: `M${x} ${middle - tall / 2}L${next} ${middle + tall / 2}M${x} ${middle + tall / 2}L${next} ${middle - tall / 2}`,
      fill: null,
      stroke: FAINT,
      width: 0.15,
    };
  });
}

function drawDimension(from: number, to: number, y: number, mm: number): Mark[] {
  return [
    line([from, y], [to, y], 0.15, FAINT),
    line([from, y - 1], [from, y + 1], 0.15, FAINT),
    line([to, y - 1], [to, y + 1], 0.15, FAINT),
    text((from + to) / 2, y - 0.8, String(Number(mm.toFixed(1))), 3.2, { anchor: 'middle', face: 'mono' }),
  ];
}
