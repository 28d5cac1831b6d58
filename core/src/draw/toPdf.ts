import { join } from 'node:path';
import PDFDocument from 'pdfkit';
import type { Drawing, Face, Mark } from './drawing';
import { measureText } from './measureText';

const POINTS_PER_MM = 72 / 25.4;
const FILES = {
  sans: 'Archivo_400Regular.ttf',
  bold: 'Archivo_600SemiBold.ttf',
  narrow: 'ArchivoNarrow_400Regular.ttf',
  'narrow-bold': 'ArchivoNarrow_600SemiBold.ttf',
  mono: 'JetBrainsMono_500Medium.ttf',
} satisfies Record<Face, string>;

/** Pages as one PDF at true size, fonts embedded. Same pages, same marks; fonts are read from the folder of the shipped faces. */
export async function toPdf(pages: readonly Drawing[], title: string, createdAt: Date, fontFolder: string): Promise<Buffer> {
  if (pages.length === 0) throw new RangeError('PDF: expected at least one page, got none');
  const document = new PDFDocument({
    autoFirstPage: false,
    info: { Title: title, Creator: 'Wattograph', Producer: 'Wattograph', CreationDate: createdAt },
  });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    document.on('data', (chunk: Buffer) => chunks.push(chunk));
    document.on('end', () => resolve(Buffer.concat(chunks)));
    document.on('error', reject);
  });
  for (const [face, file] of Object.entries(FILES)) document.registerFont(face, join(fontFolder, file));
  for (const page of pages) {
    document.addPage({ size: [page.widthMm * POINTS_PER_MM, page.heightMm * POINTS_PER_MM], margin: 0 });
    document.save().scale(POINTS_PER_MM);
    for (const mark of page.marks) drawMark(document, mark);
    document.restore();
  }
  document.end();
  return done;
}

function drawMark(document: PDFKit.PDFDocument, mark: Mark): void {
  if (mark.kind === 'text') return drawText(document, mark);
  if (mark.kind === 'window') return drawWindow(document, mark);
  if (mark.kind === 'path') document.path(mark.d);
  else if (mark.kind === 'rect') document.rect(mark.x, mark.y, mark.w, mark.h);
  else document.circle(mark.x, mark.y, mark.r);
  document.lineWidth(mark.width).lineJoin('round');
  if ('dash' in mark && mark.dash) document.dash(mark.dash[0]!, { space: mark.dash[1] ?? mark.dash[0]! });
  if (mark.fill !== null && mark.stroke !== null) document.fillAndStroke(mark.fill, mark.stroke);
  else if (mark.fill !== null) document.fill(mark.fill);
  else document.stroke(mark.stroke ?? '#000000');
  if ('dash' in mark && mark.dash) document.undash();
}

function drawWindow(document: PDFKit.PDFDocument, { x, y, w, h, from, scale, marks }: Extract<Mark, { kind: 'window' }>): void {
  document.save().rect(x, y, w, h).clip();
  document.translate(x - from[0] * scale, y - from[1] * scale).scale(scale);
  for (const mark of marks) drawMark(document, mark);
  document.restore();
}

/**
 * Figures and numbers stand as they are typed: that face joins signs of programs to others, which a list of wires must not, and looking for them took
 * a third of the time of a pack.
 */
const AS_TYPED = { features: { calt: false, liga: false, clig: false, rlig: false, ccmp: false, locl: false } as unknown as [] };

function drawText(document: PDFKit.PDFDocument, mark: Extract<Mark, { kind: 'text' }>): void {
  const width = measureText(mark.text, mark.size, mark.face);
  const x = mark.anchor === 'start' ? mark.x : mark.anchor === 'middle' ? mark.x - width / 2 : mark.x - width;
  if (mark.turn) document.save().rotate(mark.turn, { origin: [mark.x, mark.y] });
  const options = { lineBreak: false, baseline: 'alphabetic', textWidth: width, ...(mark.face === 'mono' ? AS_TYPED : {}) } as const;
  document.font(mark.face).fontSize(mark.size).fillColor(mark.fill).text(mark.text, x, mark.y, options);
  if (mark.turn) document.restore();
}
