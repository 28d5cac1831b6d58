import { findCavitySize, placeCavities, type CavitySpot, type ConnectorFamily } from '../model';

/** A connector's face: the spots of its cavities, and the outline of the housing. */
export interface FaceLayout {
  spots: CavitySpot[];
  round: boolean;
  widthMm: number;
  heightMm: number;
  cavityMm: (cavity: string) => number;
}

/**
 * Cavities of a housing as seen from the wire side, in the order of its arrangement; the mating side is its mirror image. A cavity is drawn
 * as large as the nearest two of its size allow, so that a larger size shows where it has the room.
 */
export function drawFace(family: ConnectorFamily, side: 'wire' | 'mating'): FaceLayout {
  const { arrangement, pitchMm } = family;
  const wireSide = placeCavities(family);
  const spots = side === 'wire' ? wireSide : wireSide.map((spot) => ({ ...spot, x: -spot.x }));
  const round = arrangement.kind === 'rings' || (arrangement.kind === 'spots' && arrangement.round);
  const rooms = measureRooms(family, wireSide);
  const cavityMm = (cavity: string) => rooms.get(findCavitySize(family, cavity))! * (round ? 0.86 : 0.82);
  if (round) {
    const across = 2 * Math.max(...spots.map(({ x, y }) => Math.hypot(x, y))) + 2.2 * pitchMm;
    return { spots, round, widthMm: across, heightMm: across, cavityMm };
  }
  const widthMm = 2 * Math.max(...spots.map(({ x }) => Math.abs(x))) + 1.9 * pitchMm;
  const heightMm = 2 * Math.max(...spots.map(({ y }) => Math.abs(y))) + 1.9 * pitchMm;
  return { spots, round, widthMm, heightMm, cavityMm };
}

/** Distance from a cavity to its nearest neighbour, the least of each size; between once and twice the pitch, which is the least there may be. */
function measureRooms(family: ConnectorFamily, spots: readonly CavitySpot[]): ReadonlyMap<string, number> {
  const rooms = new Map<string, number>();
  for (const { cavity, x, y } of spots) {
    const size = findCavitySize(family, cavity);
    const room = rooms.get(size) ?? family.pitchMm * (spots.length === 1 ? 1 : 2);
    rooms.set(
      size,
      spots.reduce(
        (least, one) => (one.cavity === cavity ? least : Math.min(least, Math.max(family.pitchMm, Math.hypot(one.x - x, one.y - y)))),
        room,
      ),
    );
  }
  return rooms;
}
