import { measureSurfaceHeat } from './measureHeat';

// taken once: looked up for each sum they cost more than the sum
const { exp, floor, log, max } = Math;

/** Rises at which a surface is measured, K: from 0.05 up, each so many times the one before. */
const LEAST_K = 0.05;
const RATIO = 1.06;
const FIRST_LOG = log(LEAST_K);
const STEP_LOG = log(RATIO);

/**
 * What a surface gives off by its temperature, W/m, between points on logarithmic scales (within 0.05 % of measureSurfaceHeat), measured as
 * they are asked for: the wires of a section all ask for the same surface.
 */
export function createSurface(ambientC: number, outsideMm: number, altitudeM: number): (surfaceC: number) => number {
  const logs: number[] = [];
  const logAt = (place: number) =>
    (logs[place] ??= log(measureSurfaceHeat(ambientC + LEAST_K * RATIO ** place, ambientC, outsideMm, altitudeM)));
  return (surfaceC) => {
    const riseK = surfaceC - ambientC;
    if (riseK <= 0) return 0;
    const at = (log(riseK) - FIRST_LOG) / STEP_LOG;
    const low = max(floor(at), 0);
    const lowLog = logAt(low);
    return exp(lowLog + (at - low) * (logAt(low + 1) - lowLog));
  };
}
