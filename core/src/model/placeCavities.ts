import type { ConnectorFamily } from './family';

/** Where a cavity is on the face, mm from the middle of the housing as seen from the wire side, cavity 1 at the top or top left. */
export interface CavitySpot {
  cavity: string;
  x: number;
  y: number;
}

/** Spots of the cavities of a housing. Rings are numbered from the inside out, as the arrangement lists them. */
export function placeCavities({ arrangement, pitchMm }: ConnectorFamily): CavitySpot[] {
  const spots: CavitySpot[] = [];
  let serial = 0;
  if (arrangement.kind === 'rings') {
    let radius = 0;
    arrangement.rings.forEach((count, ring) => {
      const room = count === 1 ? 0 : pitchMm / (2 * Math.sin(Math.PI / count));
      radius = ring === 0 ? room : Math.max(room, radius + pitchMm);
      for (let index = 0; index < count; index += 1) {
        const angle = (2 * Math.PI * index) / count - Math.PI / 2;
        spots.push({ cavity: String((serial += 1)), x: radius * Math.cos(angle), y: radius * Math.sin(angle) });
      }
    });
    return spots;
  }
  const { rows } = arrangement;
  rows.forEach((count, row) => {
    for (let column = 0; column < count; column += 1)
      spots.push({
        cavity: String((serial += 1)),
        x: (column - (count - 1) / 2) * pitchMm,
        y: (row - (rows.length - 1) / 2) * pitchMm,
      });
  });
  return spots;
}
