// Writes core/src/draw/fontWidths.ts: advance widths of the shipped faces, so that text is measured without a font engine.
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import * as fontkit from 'fontkit';

const root = fileURLToPath(new URL('../', import.meta.url));
const faces = {
  sans: 'Archivo_400Regular',
  bold: 'Archivo_600SemiBold',
  narrow: 'ArchivoNarrow_400Regular',
  'narrow-bold': 'ArchivoNarrow_600SemiBold',
  mono: 'JetBrainsMono_500Medium',
};
const characters = Array.from({ length: 0x17f - 0x20 + 1 }, (_, index) => 0x20 + index)
  .filter((code) => code < 0x7f || code > 0x9f)
  .concat([0x2013, 0x2014, 0x2018, 0x2019, 0x201c, 0x201d, 0x2022, 0x2026, 0x2192, 0x2212, 0x00d7, 0x2264, 0x2265, 0x03a9, 0x221a, 0x2300]);
const table = {};
for (const [face, file] of Object.entries(faces)) {
  const font = fontkit.openSync(`${root}core/assets/fonts/${file}.ttf`);
  table[face] = Object.fromEntries(
    characters
      .filter((code) => font.hasGlyphForCodePoint(code))
      .map((code) => [code, Math.round((font.glyphForCodePoint(code).advanceWidth * 1000) / font.unitsPerEm)]),
  );
}
const faceLines = Object.entries(table).map(([face, widths]) => {
  const runs = new Map();
  for (const [code, width] of Object.entries(widths)) runs.set(width, [...(runs.get(width) ?? []), String.fromCodePoint(Number(code))]);
  const rows = [...runs].map(([width, letters]) => `    [${width}, ${JSON.stringify(letters.join(''))}],`).join('\n');
  return `  ${JSON.stringify(face)}: [\n${rows}\n  ],`;
});
writeFileSync(
  `${root}core/src/draw/fontWidths.ts`,
  `import type { Face } from './drawing';\n\n/** Advance widths in thousandths of the type size, with the letters that have them. Written by scripts/writeFontWidths.mjs. */\nexport const FONT_WIDTHS = {\n${faceLines.join('\n')}\n} satisfies Record<Face, [number, string][]>;\n`,
);
