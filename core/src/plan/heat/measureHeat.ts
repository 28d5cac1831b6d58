// taken once: looked up for each sum they cost more than the sum
const { LN10, PI, abs, cbrt, exp, log, log1p, max, sqrt } = Math;
/** Where a stretch of bundle lies and what it is made of, for its heat. Diameters in mm, temperatures in °C. */
export interface HeatInputs {
  ambientC: number;
  /** over the wires */
  bundleMm: number;
  /** over the covering; equal to bundleMm where it is bare */
  outsideMm: number;
  /** Σ I² · R at 20 °C of the wires, W/m */
  wattsPerMAt20: number;
  /** the few of them that give more than half of that, each counted by itself (see listHottest); empty: none does */
  hottest: readonly HotWire[];
  altitudeM: number;
}

/** A wire that gives much of a bundle's heat: I² · R at 20 °C, W/m, and its diameter over the insulation, mm. */
export interface HotWire {
  wattsPerMAt20: number;
  odMm: number;
}

/** Up to so many wires are looked at for what they give by themselves. */
const FEW = 3;

/** Places of the up to three wires, hottest first, that together give more than half of all heat; empty where three do not (calculations 4). */
export function listHottest(watts: readonly number[]): number[] {
  let total = 0;
  for (const one of watts) total += one;
  const places: number[] = [];
  for (let sum = 0; places.length < FEW && sum <= total / 2;) {
    let next = -1;
    for (let at = 0; at < watts.length; at += 1) if (!places.includes(at) && (next === -1 || watts[at]! > watts[next]!)) next = at;
    if (next === -1 || watts[next] === 0) return [];
    places.push(next);
    sum += watts[next]!;
    if (sum > total / 2) return places;
  }
  return [];
}

/**
 * Wires of a bundle with what each gives, W/m in any measure: would one of them, giving so much instead, be among the few that count by
 * themselves (listHottest)? Asked for each wire of a bundle, so the others are put in order once.
 */
export function createHottest(watts: readonly number[]): (place: number, instead: number) => boolean {
  let total = 0;
  const first: number[] = [];
  watts.forEach((one, at) => {
    total += one;
    let rank = first.length;
    while (rank > 0 && watts[first[rank - 1]!]! < one) rank -= 1;
    if (rank > FEW) return;
    first.splice(rank, 0, at);
    if (first.length > FEW + 1) first.pop();
  });
  return (place, instead) => {
    const half = (total - watts[place]! + instead) / 2;
    let sum = 0;
    let isIn = false;
    let count = 0;
    const take = (one: number) => {
      sum += one;
      count += 1;
    };
    for (const at of first) {
      if (at === place) continue;
      if (!isIn && (instead > watts[at]! || (instead === watts[at] && place < at))) {
        isIn = true;
        take(instead);
        if (sum > half || count === FEW) return sum > half;
      }
      if (watts[at] === 0) return false;
      take(watts[at]!);
      if (sum > half || count === FEW) return isIn && sum > half;
    }
    return !isIn && instead > 0 && sum + instead > half;
  };
}

/** Steady state of a bundle: its surface, its middle, and the heat it gives off; W/m. */
export interface Heat {
  surfaceC: number;
  middleC: number;
  wattsPerM: number;
}

/** Copper, per K from 20 °C (calculations 3). */
export const COPPER_PER_K = 0.00393;
/** Copper, g per mm² and m. */
export const COPPER_G_PER_MM2_M = 8.96;
const EMISSIVITY = 0.9;
const STEFAN_BOLTZMANN = 5.670374e-8;
export const COVERING_W_PER_M_K = 0.2;
export const BUNDLE_W_PER_M_K = 0.16;
const KELVIN = 273.15;
/** Past this no insulation lives: the solver gives up rather than print a figure. */
const MOST_RISE_K = 600;

/**
 * Steady temperature of a bundle in still air, resistances at the computed temperature (calculations 4): natural convection on a
 * horizontal cylinder by Churchill and Chu, Int. J. Heat Mass Transfer 18 (1975) 1049, and radiation. Air flow and sun are not
 * credited. Its middle is as warm as the heat spread evenly makes it, or as warm as the hottest of the few wires that give more than half of
 * it, each by its own heat over the surface, whichever is more. Null where it would run away: more heat than the surface can give off at any temperature the solver looks at.
 *
 * @throws RangeError where a diameter is not above 0, or a figure is no number
 */
export function measureHeat({ ambientC, bundleMm, outsideMm, wattsPerMAt20, hottest, altitudeM }: HeatInputs): Heat | null {
  if (!(bundleMm > 0 && outsideMm >= bundleMm && wattsPerMAt20 >= 0 && Number.isFinite(ambientC)))
    throw new RangeError(
      `heat: expected 0 < bundle ≤ outside, heat ≥ 0 and an ambient, got ${bundleMm}, ${outsideMm}, ${wattsPerMAt20}, ${ambientC}`,
    );
  if (wattsPerMAt20 === 0) return { surfaceC: ambientC, middleC: ambientC, wattsPerM: 0 };
  const throughCover = log(outsideMm / bundleMm) / (2 * PI * COVERING_W_PER_M_K);
  const given = (surfaceC: number) => measureSurfaceHeat(surfaceC, ambientC, outsideMm, altitudeM);
  const warm = (temperatureC: number) => 1 + COPPER_PER_K * (temperatureC - 20);
  const inside = (surfaceC: number) => {
    const watts = given(surfaceC);
    const underC = surfaceC + watts * throughCover;
    const spreadC = underC + watts / (4 * PI * BUNDLE_W_PER_M_K);
    let middleC = spreadC;
    let made = wattsPerMAt20 * warm(spreadC);
    for (const wire of hottest) {
      const ownC = measureOwn(wire, underC, bundleMm);
      if (ownC <= spreadC) continue;
      made += wire.wattsPerMAt20 * (warm(ownC) - warm(spreadC));
      middleC = max(middleC, ownC);
    }
    return { watts, made, middleC };
  };
  // heat that is left over where the surface has this temperature: falls through zero at the steady state
  const left = (surfaceC: number) => {
    const { watts, made } = inside(surfaceC);
    return made - watts;
  };
  const surfaceC = findZero(left, ambientC, ambientC + MOST_RISE_K);
  if (surfaceC === null) return null;
  const { watts, middleC } = inside(surfaceC);
  return Number.isFinite(middleC) ? { surfaceC, middleC, wattsPerM: watts } : null;
}

/** A wire by its own heat over what surrounds the bundle, its resistance at that temperature; °C. Infinity where it would run away. */
function measureOwn({ wattsPerMAt20, odMm }: HotWire, underC: number, bundleMm: number): number {
  const perWatt = log(max(1, bundleMm / odMm)) / (2 * PI * BUNDLE_W_PER_M_K);
  const perKelvin = wattsPerMAt20 * perWatt;
  const left = 1 - perKelvin * COPPER_PER_K;
  return left <= 0 ? Infinity : (underC + perKelvin * (1 - 20 * COPPER_PER_K)) / left;
}

const square = (value: number) => value * value;

/** Heat that a metre of horizontal cylinder gives off to still air and by radiation, W/m. */
export function measureSurfaceHeat(surfaceC: number, ambientC: number, outsideMm: number, altitudeM: number): number {
  const diameterM = outsideMm / 1000;
  const riseK = surfaceC - ambientC;
  if (riseK <= 0) return 0;
  const filmK = (surfaceC + ambientC) / 2 + KELVIN;
  const { conductivity, viscosity, diffusivity } = measureAir(filmK, altitudeM);
  const prandtl = viscosity / diffusivity;
  const rayleigh = (9.80665 * riseK * diameterM * diameterM * diameterM) / (filmK * viscosity * diffusivity);
  // x^(1/6), x^(9/16) and x^(8/27) by roots and products: powers are slow, and this is where a plan spends its time
  const sixteenth = sqrt(sqrt(sqrt(sqrt(0.559 / prandtl))));
  const ninth = square(square(square(sixteenth))) * sixteenth;
  const eightTwentySevenths = square(square(square(cbrt(cbrt(cbrt(1 + ninth))))));
  const nusselt = square(0.6 + (0.387 * cbrt(sqrt(rayleigh))) / eightTwentySevenths);
  const convection = (nusselt * conductivity * riseK) / diameterM;
  const radiation = EMISSIVITY * STEFAN_BOLTZMANN * (square(square(surfaceC + KELVIN)) - square(square(ambientC + KELVIN)));
  return PI * diameterM * (convection + radiation);
}

/** Dry air: Sutherland's law for viscosity and conductivity, U.S. Standard Atmosphere 1976 for pressure. SI units; viscosity kinematic. */
function measureAir(temperatureK: number, altitudeM: number): { conductivity: number; viscosity: number; diffusivity: number } {
  const pressure = 101_325 * exp(5.25588 * log1p(-2.25577e-5 * altitudeM));
  const density = pressure / (287.05 * temperatureK);
  const power = temperatureK * sqrt(temperatureK);
  const dynamic = (1.458e-6 * power) / (temperatureK + 110.4);
  const conductivity = (2.64638e-3 * power) / (temperatureK + 245.4 * exp((-12 * LN10) / temperatureK));
  return { conductivity, viscosity: dynamic / density, diffusivity: conductivity / (density * 1006) };
}

/** K or W/m that a balance may be off by: a millionth part of what anything is read to. */
const ENOUGH = 1e-6;

/** Where a falling function is zero, by false position (Illinois); null where it does not fall to zero in the range. */
export function findZero(f: (x: number) => number, low: number, high: number): number | null {
  let a = low;
  let b = high;
  let fa = f(a);
  let fb = f(b);
  if (fb > 0) return null;
  for (let round = 0; round < 60 && b - a > 1e-4; round += 1) {
    const x = (a * fb - b * fa) / (fb - fa);
    const fx = f(x);
    if (abs(fx) < ENOUGH) return x;
    if (fx > 0) {
      a = x;
      fa = fx;
      fb /= 2;
    } else {
      b = x;
      fb = fx;
      fa /= 2;
    }
  }
  return (a + b) / 2;
}
