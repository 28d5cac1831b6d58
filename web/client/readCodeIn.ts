import decode from 'qr/decode.js';

/** Sides that a picture is looked at with, px: a code that fills it is found in the small one, one in a corner in the large one. */
const SIDES = [900, 1800];
/** A still may take so long at each, ms. */
const MOST_MS = 400;

/** What the code in a picture says; null: none is seen in it. Rejects where the file is no picture. */
export async function readCodeIn(picture: Blob): Promise<string | null> {
  const bitmap = await createImageBitmap(picture);
  try {
    for (const side of SIDES) {
      const scale = Math.min(1, side / Math.max(bitmap.width, bitmap.height));
      const [width, height] = [Math.max(1, Math.round(bitmap.width * scale)), Math.max(1, Math.round(bitmap.height * scale))];
      const canvas = Object.assign(document.createElement('canvas'), { width, height });
      const pen = canvas.getContext('2d');
      if (!pen) return null;
      pen.drawImage(bitmap, 0, 0, width, height);
      const { data } = pen.getImageData(0, 0, width, height);
      try {
        return decode({ width, height, data }, { timeLimit: MOST_MS });
      } catch {
        // not seen at this size
      }
    }
    return null;
  } finally {
    bitmap.close();
  }
}
