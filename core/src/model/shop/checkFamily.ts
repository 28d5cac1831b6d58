import { countWays, listCavities, type ConnectorFamily } from './family';
import { placeCavities } from './placeCavities';
import type { Problem } from '../problem';

const MOST = 20;

/** What the shape of a family cannot say: a name a cavity, no name twice, sizes of cavities it has, no spot upon another. */
export function checkFamily(family: ConnectorFamily, at: string): Problem[] {
  const ways = countWays(family.arrangement);
  const names = listCavities(family);
  if (names.length !== ways)
    return [{ path: `${at}/cavityNames`, message: `expected ${ways} names, one for each cavity, got ${names.length}` }];
  const first = new Map<string, number>();
  const doubled = names.flatMap((name, index): Problem[] => {
    const before = first.get(name);
    if (before !== undefined)
      return [{ path: `${at}/cavityNames/${index}`, message: `expected a name of its own, got "${name}", which cavity ${before + 1} has` }];
    first.set(name, index);
    return [];
  });
  const strange = Object.keys(family.otherSizes)
    .filter((cavity) => !first.has(cavity))
    .map((cavity) => ({
      path: `${at}/otherSizes/${cavity}`,
      message: `expected a cavity of ${family.name} (${toCavityWords(family)}), got "${cavity}"`,
    }));
  return [...doubled, ...strange, ...(doubled.length > 0 ? [] : listOverlaps(family, at))].slice(0, MOST);
}

/** "1 to 26", "A to c". */
export function toCavityWords(family: ConnectorFamily): string {
  const names = listCavities(family);
  return names.length === 1 ? names[0]! : `${names[0]} to ${names.at(-1)}`;
}

/** Spots nearer to each other than the pitch, which is the least there is between two. */
function listOverlaps(family: ConnectorFamily, at: string): Problem[] {
  const { arrangement, pitchMm } = family;
  if (arrangement.kind !== 'spots') return [];
  const spots = placeCavities(family);
  return spots.flatMap(({ cavity, x, y }, index): Problem[] => {
    const near = spots.slice(0, index).find((one) => Math.hypot(one.x - x, one.y - y) < pitchMm - 1e-6);
    return near
      ? [
          {
            path: `${at}/arrangement/spots/${index}`,
            message: `expected at least the pitch of ${pitchMm} mm between two cavities, got ${Math.hypot(near.x - x, near.y - y).toFixed(2)} mm from ${near.cavity} to ${cavity}`,
          },
        ]
      : [];
  });
}
