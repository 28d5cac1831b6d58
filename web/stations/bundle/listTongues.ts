import { isOffered, type Shop } from 'wattograph-core';

/** Widths of tongues that the shop has blades for, narrow first, and the one that is chosen already; mm. */
export const listTongues = ({ rings, buying }: Pick<Shop, 'rings' | 'buying'>, chosenMm: number | null): string[] =>
  [
    ...new Set([
      ...(chosenMm === null ? [] : [chosenMm]),
      ...rings.flatMap(({ id, tongueMm }) => (tongueMm !== null && isOffered({ buying }, 'rings', id) ? [tongueMm] : [])),
    ]),
  ]
    .sort((a, b) => a - b)
    .map(String);
