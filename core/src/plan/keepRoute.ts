import type { Loom } from '../model';
import type { LyingStrands, RoutedLoom } from './routeLoom';

/** A loom as it was led along its tree, and the document that it was led from. */
export interface KeptRoute {
  loom: Loom;
  route: RoutedLoom;
}

/**
 * A route in which all that is as it was stays the same object, so that what was made of it holds: what lies in each segment, and the shape
 * of the whole, for which lengths count only where a splice parts a run.
 */
export function keepRoute(route: RoutedLoom, loom: Loom, before: KeptRoute | undefined): RoutedLoom {
  if (!before) return route;
  const was = before.route;
  let isSameShape =
    was.wires.length === route.wires.length && was.strands.size === route.strands.size && isSameSurroundings(before.loom, loom);
  // a wire between splices at one place lies in no segment
  isSameShape &&= route.wires.every(({ id }, place) => id === was.wires[place]!.id);
  const strands = new Map<string, LyingStrands>();
  for (const [id, one] of route.strands) {
    const known = was.strands.get(id);
    const isKnown = known !== undefined && isSameStrands(known, one, true);
    isSameShape &&= isKnown || (known !== undefined && isSameStrands(known, one, false));
    strands.set(id, isKnown ? known : one);
  }
  const first = route.first && was.first ? keepRoute(route.first, loom, { loom: before.loom, route: was.first }) : route.first;
  return { ...route, strands, shape: isSameShape ? was.shape : route.shape, first };
}

function isSameStrands(one: LyingStrands, other: LyingStrands, byLength: boolean): boolean {
  if (one.places.length !== other.places.length || (byLength && one.lengthMm !== other.lengthMm)) return false;
  for (let at = 0; at < one.places.length; at += 1) {
    if (one.places[at] !== other.places[at] || one.elements[at]![0] !== other.elements[at]![0]) return false;
    const [a, b] = [one.pieces[at]!, other.pieces[at]!];
    const isSamePart = a.fromMm === b.fromMm && a.toMm === b.toMm && one.lengthMm === other.lengthMm;
    if (!isSamePart && !(isWhole(one, at) && isWhole(other, at))) return false;
  }
  return true;
}

const isWhole = ({ pieces, lengthMm }: LyingStrands, at: number) => pieces[at]!.fromMm === 0 && pieces[at]!.toMm === lengthMm;

/** Are the segments of two looms the same, in the same covers and zones, however long? */
function isSameSurroundings(before: Loom, loom: Loom): boolean {
  const ids = Object.keys(loom.segments);
  if (ids.length !== Object.keys(before.segments).length) return false;
  return ids.every((id) => {
    const [a, b] = [before.segments[id], loom.segments[id]!];
    if (a === b) return true;
    return (
      a !== undefined &&
      a.fromNodeId === b.fromNodeId &&
      a.toNodeId === b.toNodeId &&
      a.zoneId === b.zoneId &&
      a.ticks.join() === b.ticks.join() &&
      a.slideOn === b.slideOn &&
      JSON.stringify(a.coveringPin) === JSON.stringify(b.coveringPin)
    );
  });
}
