import { BUNDLE_W_PER_M_K, COVERING_W_PER_M_K, findZero, measureSurfaceHeat } from './measureHeat';

/** Heat that a bundle gives off with its middle at this temperature, W/m (calculations 4, solved the other way round). */
export function measureHeatAllowed(middleC: number, ambientC: number, bundleMm: number, outsideMm: number, altitudeM: number): number {
  if (middleC <= ambientC) return 0;
  const insidePerWatt = Math.log(outsideMm / bundleMm) / (2 * Math.PI * COVERING_W_PER_M_K) + 1 / (4 * Math.PI * BUNDLE_W_PER_M_K);
  const given = (surfaceC: number) => measureSurfaceHeat(surfaceC, ambientC, outsideMm, altitudeM);
  // the surface at which what goes out of it just brings the middle there
  const surfaceC = findZero((one) => middleC - one - given(one) * insidePerWatt, ambientC, middleC);
  return given(surfaceC!);
}
