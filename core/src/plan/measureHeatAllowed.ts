import { BUNDLE_W_PER_M_K, COVERING_W_PER_M_K, findZero, measureSurfaceHeat } from './measureHeat';

// taken once: looked up for each sum they cost more than the sum
const { PI, log, max } = Math;

/** Heat that a bundle gives off with its middle at this temperature, W/m (calculations 4, solved the other way round). given: what its surface gives off, W/m by °C. */
export function measureHeatAllowed(
  middleC: number,
  ambientC: number,
  bundleMm: number,
  outsideMm: number,
  altitudeM: number,
  given: (surfaceC: number) => number = (surfaceC) => measureSurfaceHeat(surfaceC, ambientC, outsideMm, altitudeM),
): number {
  if (middleC <= ambientC) return 0;
  const insidePerWatt = log(outsideMm / bundleMm) / (2 * PI * COVERING_W_PER_M_K) + 1 / (4 * PI * BUNDLE_W_PER_M_K);
  // the surface at which what goes out of it just brings the middle there
  const surfaceC = findZero((one) => middleC - one - given(one) * insidePerWatt, ambientC, middleC);
  return given(surfaceC!);
}

/**
 * Heat that one wire may give with its conductor at this temperature, W/m, counted by itself over the surface of its bundle, the others
 * giving restWatts (calculations 4). 0 where the others alone bring it there.
 */
export function measureOwnHeatAllowed(
  conductorC: number,
  ambientC: number,
  bundleMm: number,
  outsideMm: number,
  wireMm: number,
  restWatts: number,
  altitudeM: number,
  given: (surfaceC: number) => number = (surfaceC) => measureSurfaceHeat(surfaceC, ambientC, outsideMm, altitudeM),
): number {
  if (conductorC <= ambientC) return 0;
  const throughCover = log(outsideMm / bundleMm) / (2 * PI * COVERING_W_PER_M_K);
  const perWatt = log(max(1, bundleMm / wireMm)) / (2 * PI * BUNDLE_W_PER_M_K);
  const left = (surfaceC: number) => {
    const watts = given(surfaceC);
    return conductorC - surfaceC - watts * throughCover - max(0, watts - restWatts) * perWatt;
  };
  const surfaceC = findZero(left, ambientC, conductorC);
  return surfaceC === null ? 0 : max(0, given(surfaceC) - restWatts);
}
