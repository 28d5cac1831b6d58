import type { Drawing, Face, Mark } from './drawing';

const FAMILIES = {
  sans: "'Wattograph Sans'",
  bold: "'Wattograph Sans'",
  narrow: "'Wattograph Narrow'",
  'narrow-bold': "'Wattograph Narrow'",
  mono: "'Wattograph Mono'",
} satisfies Record<Face, string>;

const escape = (words: string) => words.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
const paint = (fill: string | null, stroke: string | null, width: number, dash?: number[]) =>
  `fill="${fill ?? 'none'}"${stroke === null ? '' : ` stroke="${stroke}" stroke-width="${width}" stroke-linejoin="round"`}${dash ? ` stroke-dasharray="${dash.join(' ')}"` : ''}`;

/** A drawing as one SVG element at true size. */
export function toSvg({ widthMm, heightMm, marks }: Drawing): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}">${marks.map(toElement).join('')}</svg>`;
}

function toElement(mark: Mark): string {
  switch (mark.kind) {
    case 'path':
      return `<path d="${mark.d}" ${paint(mark.fill, mark.stroke, mark.width, mark.dash)}/>`;
    case 'rect':
      return `<rect x="${mark.x}" y="${mark.y}" width="${mark.w}" height="${mark.h}" ${paint(mark.fill, mark.stroke, mark.width)}/>`;
    case 'circle':
      return `<circle cx="${mark.x}" cy="${mark.y}" r="${mark.r}" ${paint(mark.fill, mark.stroke, mark.width, mark.dash)}/>`;
    case 'window': {
      const { x, y, w, h, from, scale, marks } = mark;
      return `<svg x="${x}" y="${y}" width="${w}" height="${h}" viewBox="${from[0]} ${from[1]} ${w / scale} ${h / scale}">${marks.map(toElement).join('')}</svg>`;
    }
    case 'text': {
      const weight = mark.face === 'bold' || mark.face === 'narrow-bold' ? ' font-weight="600"' : '';
      const turn = mark.turn ? ` transform="rotate(${mark.turn} ${mark.x} ${mark.y})"` : '';
      return `<text x="${mark.x}" y="${mark.y}" font-size="${mark.size}" font-family="${FAMILIES[mark.face]}, sans-serif"${weight} text-anchor="${mark.anchor}" fill="${mark.fill}"${turn}>${escape(mark.text)}</text>`;
    }
  }
}
