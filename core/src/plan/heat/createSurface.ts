import { measureSurfaceHeat } from './measureHeat';

// taken once: looked up for each sum they cost more than the sum
const { ceil, log } = Math;

/** Rises at which a surface is measured, K: none, then from 0.05 up, each so many times the one before. */
const LEAST_K = 0.05;
const RATIO = 1.04;
const LOG_LEAST = log(LEAST_K);
const LOG_RATIO = log(RATIO);
const MOST_PLACES = 260;
const RISES_K = Array.from({ length: MOST_PLACES }, (_, place) => (place === 0 ? 0 : LEAST_K * RATIO ** (place - 1)));

/** A surface in its air. */
export interface Surface {
  ambientC: number;
  /** what it gives off at a temperature in °C, W/m */
  given: (surfaceC: number) => number;
  /**
   * What goes out where that, through a resistance in K m/W, brings a temperature down to the surface: fromC − surface = W · perWatt; W/m.
   * Infinity where the surface would be above mostC.
   */
  measurePassed: (fromC: number, perWatt: number, mostC: number) => number;
}

/**
 * A surface between points of its temperature (within 0.05 % of measureSurfaceHeat), measured as they are asked for: the wires of a section
 * all ask for the same one.
 */
export function createSurface(ambientC: number, outsideMm: number, altitudeM: number): Surface {
  const watts: number[] = [0];
  const wattsAt = (place: number) => (watts[place] ??= measureSurfaceHeat(ambientC + RISES_K[place]!, ambientC, outsideMm, altitudeM));
  /** first point that is no cooler */
  const placeOf = (riseK: number) => {
    if (riseK <= LEAST_K) return 1;
    const place = ceil((log(riseK) - LOG_LEAST) / LOG_RATIO - 1e-9) + 1;
    return place < MOST_PLACES ? place : MOST_PLACES - 1;
  };
  const given = (surfaceC: number) => {
    const riseK = surfaceC - ambientC;
    if (riseK <= 0) return 0;
    const high = placeOf(riseK);
    const [low, lowK] = [wattsAt(high - 1), RISES_K[high - 1]!];
    return low + ((riseK - lowK) / (RISES_K[high]! - lowK)) * (wattsAt(high) - low);
  };
  const measurePassed = (fromC: number, perWatt: number, mostC: number) => {
    if (fromC <= ambientC) return 0;
    const riseK = fromC - ambientC;
    // what is left of the rise falls with the surface's temperature: halved down to one step, in which it falls on a line
    let low = 0;
    let high = placeOf(mostC - ambientC);
    if (riseK - RISES_K[high]! - wattsAt(high) * perWatt > 0) return Infinity;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (riseK - RISES_K[middle]! - wattsAt(middle) * perWatt > 0) low = middle;
      else high = middle;
    }
    const lowLeft = riseK - RISES_K[low]! - wattsAt(low) * perWatt;
    const highLeft = riseK - RISES_K[high]! - wattsAt(high) * perWatt;
    return wattsAt(low) + (lowLeft / (lowLeft - highLeft)) * (wattsAt(high) - wattsAt(low));
  };
  return { ambientC, given, measurePassed };
}
