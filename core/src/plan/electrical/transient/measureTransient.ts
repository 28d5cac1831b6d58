import { BUNDLE_W_PER_M_K, COPPER_PER_K, COVERING_W_PER_M_K, measureSurfaceHeat } from '../../heat/measureHeat';

/** A metre of bundle as one lump of copper and insulation, and what flows in it over time. */
export interface TransientInputs {
  ambientC: number;
  /** at the start, °C */
  startC: number;
  bundleMm: number;
  outsideMm: number;
  altitudeM: number;
  /** g/m of all its wires */
  copperGPerM: number;
  insulationGPerM: number;
  /** Σ I²·R at 20 °C at a time after the start, W/m */
  wattsPerMAt20: (seconds: number) => number;
  seconds: number;
  /** times at which the heat jumps: no step crosses one, and each is a point; in order, s */
  breaksS?: readonly number[];
}

export interface Transient {
  /** in order; middle of the bundle, °C */
  points: { seconds: number; middleC: number }[];
  /** per metre, J: let in, given off, and kept by the lump */
  inJ: number;
  outJ: number;
  storedJ: number;
}

/** Specific heats, J/(g·K): copper, and fluoropolymer or PVC insulation (usual figures). */
const COPPER_J = 0.385;
const INSULATION_J = 1.0;
const MOST_C = 1200;

/**
 * Temperature of a bundle over time: one lump of copper and insulation that heats by I²R at its temperature and gives off what the
 * steady model gives off at it (calculations 4), in explicit steps short enough that none moves it by more than half a kelvin. Stops at
 * 1200 °C: past that there is no wire.
 *
 * @throws RangeError where a mass, diameter or time is not above 0
 */
export function measureTransient(inputs: TransientInputs): Transient {
  const { ambientC, startC, bundleMm, outsideMm, altitudeM, copperGPerM, insulationGPerM, wattsPerMAt20, seconds, breaksS = [] } = inputs;
  const capacity = copperGPerM * COPPER_J + insulationGPerM * INSULATION_J;
  if (!(capacity > 0 && bundleMm > 0 && outsideMm >= bundleMm && seconds > 0))
    throw new RangeError(`transient: expected mass, diameters and time above 0, got ${capacity}, ${bundleMm}, ${outsideMm}, ${seconds}`);
  const insidePerWatt = Math.log(outsideMm / bundleMm) / (2 * Math.PI * COVERING_W_PER_M_K) + 1 / (4 * Math.PI * BUNDLE_W_PER_M_K);
  // the surface follows the middle: what comes through the inside is what the surface gives off. Kept from step to step, it moves little
  let surfaceC = startC;
  const given = (middleC: number): number => {
    for (let round = 0; round < 12; round += 1) {
      const watts = measureSurfaceHeat(surfaceC, ambientC, outsideMm, altitudeM);
      const next = middleC - watts * insidePerWatt;
      if (Math.abs(next - surfaceC) < 1e-4) break;
      surfaceC = (surfaceC + next) / 2;
    }
    return measureSurfaceHeat(surfaceC, ambientC, outsideMm, altitudeM);
  };
  const result: Transient = { points: [{ seconds: 0, middleC: startC }], inJ: 0, outJ: 0, storedJ: 0 };
  const every = seconds / 200;
  const evenly = Array.from({ length: 200 }, (_, index) => (index + 1) * every);
  const stops = [...new Set([...evenly, ...breaksS.filter((at) => at > 0 && at < seconds)])].sort((a, b) => a - b);
  let now = 0;
  let middleC = startC;
  for (const stop of stops) {
    while (now < stop && middleC < MOST_C) {
      const made = wattsPerMAt20(now) * (1 + COPPER_PER_K * (middleC - 20));
      const lost = given(middleC);
      const left = stop - now;
      const step = Math.min(left, (0.5 * capacity) / Math.max(1e-9, Math.abs(made - lost)));
      middleC += ((made - lost) * step) / capacity;
      result.inJ += made * step;
      result.outJ += lost * step;
      now = step === left ? stop : now + step;
    }
    result.points.push({ seconds: now, middleC });
    if (middleC >= MOST_C) break;
  }
  result.storedJ = (middleC - startC) * capacity;
  return result;
}
