import type { Loom } from '../../model';
import type { LyingWires, RoutedLoom } from './routeLoom';

/** A loom as it was led along its tree, and the document that it was led from. */
export interface KeptRoute {
  loom: Loom;
  route: RoutedLoom;
}

/** A splice that goes to and fro between two places as a run is dragged has been in both before. */
const MOST_KEPT = 4;

/**
 * A route as keepRoute makes it from the last one of its shape, else from the last one; and what is to be kept of it, the latest first, one
 * of each shape.
 */
export function keepRoutes(route: RoutedLoom, loom: Loom, kept: readonly KeptRoute[]): { route: RoutedLoom; kept: readonly KeptRoute[] } {
  let found: RoutedLoom | undefined;
  for (const before of kept) {
    const one = keepRoute(route, loom, before);
    const isSame = one.shape === before.route.shape;
    if (isSame || !found) found = one;
    if (isSame) break;
  }
  const latest = found ?? route;
  const others = kept.filter((one) => one.route.shape !== latest.shape);
  return { route: latest, kept: [{ loom, route: latest }, ...others].slice(0, MOST_KEPT) };
}

/**
 * A route in which all that is as it was stays the same object, so that what was made of it holds: what lies in each segment, and the shape
 * of the whole, for which only the order counts in which splices part a run.
 */
export function keepRoute(route: RoutedLoom, loom: Loom, before: KeptRoute | undefined): RoutedLoom {
  if (!before) return route;
  const was = before.route;
  let isSameShape =
    was.wires.length === route.wires.length &&
    was.wiresBySection.size === route.wiresBySection.size &&
    isSameSurroundings(before.loom, loom);
  // a wire between splices at one place lies in no segment
  isSameShape &&= route.wires.every(({ id }, place) => id === was.wires[place]!.id);
  const wiresBySection = new Map<string, LyingWires>();
  for (const [id, one] of route.wiresBySection) {
    const known = was.wiresBySection.get(id);
    const isKnown = known !== undefined && isSameLying(known, one, true);
    isSameShape &&= isKnown || (known !== undefined && isSameLying(known, one, false));
    wiresBySection.set(id, isKnown ? known : one);
  }
  const first = route.first && was.first ? keepRoute(route.first, loom, { loom: before.loom, route: was.first }) : route.first;
  return { ...route, wiresBySection, shape: isSameShape ? was.shape : route.shape, first };
}

function isSameLying(one: LyingWires, other: LyingWires, byLength: boolean): boolean {
  if (one.places.length !== other.places.length || (byLength && one.lengthMm !== other.lengthMm)) return false;
  let isParted = false;
  for (let at = 0; at < one.places.length; at += 1) {
    if (one.places[at] !== other.places[at] || one.elements[at]![0] !== other.elements[at]![0]) return false;
    const [a, b] = [one.pieces[at]!, other.pieces[at]!];
    if (byLength && (a.fromMm !== b.fromMm || a.toMm !== b.toMm)) return false;
    isParted ||= !isWhole(one, at) || !isWhole(other, at);
  }
  return byLength || !isParted || isPartedAlike(one, other);
}

const isWhole = ({ pieces, lengthMm }: LyingWires, at: number) => pieces[at]!.fromMm === 0 && pieces[at]!.toMm === lengthMm;

/** cuts closer together than this are not told apart by order, mm */
const CLOSE_MM = 1e-6;

/** Do splices part two runs into the same sections, one after the other, however long each is? */
function isPartedAlike(one: LyingWires, other: LyingWires): boolean {
  const [cuts, otherCuts] = [listCuts(one), listCuts(other)];
  if (!cuts || cuts.length !== otherCuts?.length) return false;
  return one.pieces.every(({ fromMm, toMm }, at) => {
    const piece = other.pieces[at]!;
    return cuts.indexOf(fromMm) === otherCuts.indexOf(piece.fromMm) && cuts.indexOf(toMm) === otherCuts.indexOf(piece.toMm);
  });
}

/** Where a run is parted, its ends included, in order; null: where two places are next to one. */
function listCuts({ pieces, lengthMm }: LyingWires): number[] | null {
  const cuts = [...new Set([0, lengthMm, ...pieces.flatMap(({ fromMm, toMm }) => [fromMm, toMm])])].sort((a, b) => a - b);
  return cuts.every((cut, at) => at === 0 || cut - cuts[at - 1]! > CLOSE_MM) ? cuts : null;
}

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
