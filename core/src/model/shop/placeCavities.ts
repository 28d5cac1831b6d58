import { listCavities, type ConnectorFamily } from './family';

/** Where a cavity is on the face, mm from the middle of the housing as seen from the wire side. */
export interface CavitySpot {
  cavity: string;
  x: number;
  y: number;
}

/** Spots of the cavities of a housing, in the order of its arrangement. */
export function placeCavities(family: ConnectorFamily): CavitySpot[] {
  const names = listCavities(family);
  return listSpots(family).map(([x, y], index) => ({ cavity: names[index]!, x, y }));
}

function listSpots({ arrangement, pitchMm }: ConnectorFamily): (readonly [number, number])[] {
  if (arrangement.kind === 'spots') return arrangement.spots.map(({ xMm, yMm }) => [xMm, yMm] as const);
  if (arrangement.kind === 'rows')
    return arrangement.rows.flatMap((count, row, { length }) =>
      Array.from({ length: count }, (_, column) => [(column - (count - 1) / 2) * pitchMm, (row - (length - 1) / 2) * pitchMm] as const),
    );
  let radius = 0;
  return arrangement.rings.flatMap((count, ring) => {
    const room = count === 1 ? 0 : pitchMm / (2 * Math.sin(Math.PI / count));
    radius = ring === 0 ? room : Math.max(room, radius + pitchMm);
    return Array.from({ length: count }, (_, index) => {
      const angle = (2 * Math.PI * index) / count - Math.PI / 2;
      return [radius * Math.cos(angle), radius * Math.sin(angle)] as const;
    });
  });
}
