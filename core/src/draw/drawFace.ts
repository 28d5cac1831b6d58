import type { ConnectorFamily } from '../model';

/** Where a cavity is on the face, mm from the middle of the housing as seen. */
export interface CavitySpot {
  cavity: string;
  x: number;
  y: number;
}

/** A connector's face: the spots of its cavities, and the outline of the housing. */
export interface FaceLayout {
  spots: CavitySpot[];
  round: boolean;
  widthMm: number;
  heightMm: number;
  cavityMm: number;
}

/**
 * Cavities of a housing as seen from the wire side, cavity 1 at the top or top left; the mating side is its mirror image.
 * Rings are numbered from the inside out, as the arrangement lists them.
 */
export function drawFace(family: ConnectorFamily, side: 'wire' | 'mating'): FaceLayout {
  const mirror = side === 'wire' ? 1 : -1;
  const { arrangement, pitchMm } = family;
  const spots: CavitySpot[] = [];
  let serial = 0;
  if (arrangement.kind === 'rings') {
    let radius = 0;
    arrangement.rings.forEach((count, ring) => {
      const room = count === 1 ? 0 : pitchMm / (2 * Math.sin(Math.PI / count));
      radius = ring === 0 ? room : Math.max(room, radius + pitchMm);
      for (let index = 0; index < count; index += 1) {
        const angle = (2 * Math.PI * index) / count - Math.PI / 2;
        spots.push({ cavity: String((serial += 1)), x: mirror * radius * Math.cos(angle), y: radius * Math.sin(angle) });
      }
    });
    const across = 2 * radius + 2.2 * pitchMm;
    return { spots, round: true, widthMm: across, heightMm: across, cavityMm: pitchMm * 0.86 };
  }
  const { rows } = arrangement;
  const widest = Math.max(...rows);
  rows.forEach((count, row) => {
    for (let column = 0; column < count; column += 1) {
      spots.push({
        cavity: String((serial += 1)),
        x: mirror * (column - (count - 1) / 2) * pitchMm,
        y: (row - (rows.length - 1) / 2) * pitchMm,
      });
    }
  });
  return { spots, round: false, widthMm: (widest + 0.9) * pitchMm, heightMm: (rows.length + 0.9) * pitchMm, cavityMm: pitchMm * 0.82 };
}
