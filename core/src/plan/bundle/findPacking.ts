import { measurePackingBound, packCircles } from './packCircles';
import type { Packing } from '../types';

/** Packings found so far, by the diameters in them. Only ever a shortcut: the same diameters always pack the same way. */
export type PackingStore = Map<string, { packing: Packing; boundMm: number }>;

const MOST_STORED = 20_000;

/** Packing of these diameters, thickest first, and its bound; looked up first. */
export function findPacking(store: PackingStore, diametersMm: readonly number[]): { packing: Packing; boundMm: number } {
  const key = toKey(diametersMm);
  let known = store.get(key);
  if (!known) {
    if (store.size > MOST_STORED) store.clear();
    known = { packing: packCircles(diametersMm), boundMm: measurePackingBound(diametersMm) };
    store.set(key, known);
  }
  return known;
}

/** Diameters in order, runs of equal ones counted: "1.27 3 1.09 25". */
function toKey(diametersMm: readonly number[]): string {
  let key = '';
  for (let start = 0; start < diametersMm.length;) {
    let end = start + 1;
    while (end < diametersMm.length && diametersMm[end] === diametersMm[start]) end += 1;
    key += `${diametersMm[start]} ${end - start} `;
    start = end;
  }
  return key;
}
