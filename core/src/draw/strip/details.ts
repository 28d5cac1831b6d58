import type { Detail } from './stripDrawing';

const ANY = { trunk: Infinity, branch: Infinity };

/** What a strip on a screen shows as its room allows, px (docs/decisions/0018). */
export const SCREEN_DETAILS: readonly Detail[] = [
  ...[6, 4.8, 3.9, 3.2].map((pitch) => ({ pitch, thickest: ANY, both: false })),
  ...[
    { pitch: 3.2, trunk: 130, branch: 24 },
    { pitch: 2.6, trunk: 100, branch: 16 },
    { pitch: 2.2, trunk: 80, branch: 12 },
    { pitch: 1.8, trunk: 66, branch: 9 },
    { pitch: 1.4, trunk: 54, branch: 6 },
    { pitch: 1.2, trunk: 46, branch: 5 },
    { pitch: 1, trunk: 38, branch: 4 },
  ].map(({ pitch, ...thickest }) => ({ pitch, thickest, both: true })),
];

/** The same on paper, mm. */
export const PAPER_DETAILS: readonly Detail[] = [
  ...[1.1, 0.8].map((pitch) => ({ pitch, thickest: ANY, both: false })),
  { pitch: 0.8, thickest: { trunk: 40, branch: 8 }, both: true },
  { pitch: 0.6, thickest: { trunk: 30, branch: 5 }, both: true },
  { pitch: 0.4, thickest: { trunk: 20, branch: 3 }, both: true },
];

/** Detail at a zoom: wires grow with it up to the pitch at which a stripe is seen. */
export function zoomDetail({ pitch, thickest, both }: Detail, zoom: number): Detail {
  const most = SCREEN_DETAILS[0]!.pitch;
  return {
    pitch: Math.max(pitch, Math.min(most, pitch * zoom)),
    thickest: { trunk: thickest.trunk * zoom ** 2, branch: thickest.branch * zoom ** 2 },
    both,
  };
}
