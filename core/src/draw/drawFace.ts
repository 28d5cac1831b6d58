import { placeCavities, type CavitySpot, type ConnectorFamily } from '../model';

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
  const { arrangement, pitchMm } = family;
  const wireSide = placeCavities(family);
  const spots = side === 'wire' ? wireSide : wireSide.map((spot) => ({ ...spot, x: -spot.x }));
  if (arrangement.kind === 'rings') {
    const across = 2 * Math.max(...spots.map(({ x, y }) => Math.hypot(x, y))) + 2.2 * pitchMm;
    return { spots, round: true, widthMm: across, heightMm: across, cavityMm: pitchMm * 0.86 };
  }
  const { rows } = arrangement;
  const widest = Math.max(...rows);
  return { spots, round: false, widthMm: (widest + 0.9) * pitchMm, heightMm: (rows.length + 0.9) * pitchMm, cavityMm: pitchMm * 0.82 };
}
