import { createSurface, type Surface } from './createSurface';
import { BUNDLE_W_PER_M_K, COVERING_W_PER_M_K } from './measureHeat';

// taken once: looked up for each sum they cost more than the sum
const { PI, log, max } = Math;

/** A bundle in its air. */
export interface HeatedBundle {
  /** diameter of the wires, and over what covers them, mm */
  bundleMm: number;
  outsideMm: number;
  surface: Surface;
}

/** A bundle in air so warm and so high. */
export const createHeatedBundle = (ambientC: number, bundleMm: number, outsideMm: number, altitudeM: number): HeatedBundle => ({
  bundleMm,
  outsideMm,
  surface: createSurface(ambientC, outsideMm, altitudeM),
});

/** Heat that a bundle gives off with its middle at this temperature, W/m (calculations 4, solved the other way round). */
export function measureHeatAllowed(middleC: number, { bundleMm, outsideMm, surface }: HeatedBundle): number {
  const insidePerWatt = log(outsideMm / bundleMm) / (2 * PI * COVERING_W_PER_M_K) + 1 / (4 * PI * BUNDLE_W_PER_M_K);
  return surface.measurePassed(middleC, insidePerWatt, middleC);
}

/**
 * Heat that one wire may give with its conductor at this temperature, W/m, counted by itself over the surface of its bundle, the others
 * giving restWatts (calculations 4). 0 where the others alone bring it there.
 */
export function measureOwnHeatAllowed(
  conductorC: number,
  { bundleMm, outsideMm, surface }: HeatedBundle,
  wireMm: number,
  restWatts: number,
): number {
  if (conductorC <= surface.ambientC) return 0;
  const throughCover = log(outsideMm / bundleMm) / (2 * PI * COVERING_W_PER_M_K);
  const perWatt = log(max(1, bundleMm / wireMm)) / (2 * PI * BUNDLE_W_PER_M_K);
  // all of it goes through the cover, its own part through the bundle too: conductor − surface = W · cover + (W − rest) · bundle
  const watts = surface.measurePassed(conductorC + restWatts * perWatt, throughCover + perWatt, conductorC);
  return watts === Infinity ? 0 : max(0, watts - restWatts);
}
