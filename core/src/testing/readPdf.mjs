// Reads a PDF as another program does (PDF.js), for tests: node readPdf.mjs FILE FOLDER DOTS_PER_MM
// writes of each page its greys as bytes to FOLDER/<page>.grey, and says as JSON its size, its dots, its fonts and its straight strokes in mm.
import { readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { createRequire } from 'node:module';
import { createCanvas } from '@napi-rs/canvas';
import { getDocument, OPS, Util } from 'pdfjs-dist/legacy/build/pdf.mjs';

const [file, folder, dots] = process.argv.slice(2);
const MM = 25.4 / 72;
const home = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));
const pdf = await getDocument({
  data: new Uint8Array(readFileSync(file)),
  standardFontDataUrl: `${join(home, 'standard_fonts')}/`,
  verbosity: 0,
}).promise;
const pages = [];
for (let number = 1; number <= pdf.numPages; number += 1) {
  const page = await pdf.getPage(number);
  const { fnArray, argsArray } = await page.getOperatorList();
  const viewport = page.getViewport({ scale: MM * Number(dots) });
  const canvas = createCanvas(Math.round(viewport.width), Math.round(viewport.height));
  const context = canvas.getContext('2d');
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, canvas.width, canvas.height);
  await page.render({ canvasContext: context, viewport }).promise;
  const { data } = context.getImageData(0, 0, canvas.width, canvas.height);
  const grey = new Uint8Array(canvas.width * canvas.height);
  for (let at = 0; at < grey.length; at += 1) grey[at] = Math.min(data[4 * at], data[4 * at + 1], data[4 * at + 2]);
  writeFileSync(join(folder, `${number}.grey`), grey);
  const [left, low, right, high] = page.view;
  pages.push({
    widthMm: (right - left) * MM,
    heightMm: (high - low) * MM,
    dotsWide: canvas.width,
    dotsHigh: canvas.height,
    fonts: listFonts(page, fnArray, argsArray),
    strokes: listStrokes(fnArray, argsArray),
  });
}
process.stdout.write(JSON.stringify(pages));

function listFonts(page, operators, args) {
  const ids = new Set(operators.flatMap((operator, at) => (operator === OPS.setFont ? [args[at][0]] : [])));
  return [...ids].map((id) => {
    const { name, missingFile } = page.commonObjs.get(id);
    return { name, isEmbedded: missingFile === false };
  });
}

/** Straight lines with their length, mm: from the page's own space, after every turn and scale that stands over it. */
function listStrokes(operators, args) {
  const strokes = [];
  const kept = [];
  let matrix = [1, 0, 0, 1, 0, 0];
  operators.forEach((operator, at) => {
    if (operator === OPS.save) kept.push(matrix);
    if (operator === OPS.restore) matrix = kept.pop() ?? matrix;
    if (operator === OPS.transform) matrix = Util.transform(matrix, args[at]);
    if (operator !== OPS.constructPath) return;
    const [kinds, numbers] = args[at];
    if (kinds.length !== 2 || kinds[0] !== OPS.moveTo || kinds[1] !== OPS.lineTo) return;
    const [a, b] = [0, 2].map((from) => Util.applyTransform(numbers.slice(from, from + 2), matrix));
    strokes.push(Math.hypot(b[0] - a[0], b[1] - a[1]) * MM);
  });
  return strokes;
}
