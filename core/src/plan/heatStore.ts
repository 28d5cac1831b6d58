import { measureHeat, measureSurfaceHeat, type Heat, type HeatInputs } from './measureHeat';
import { measureHeatAllowed, measureOwnHeatAllowed } from './measureHeatAllowed';

// taken once: looked up for each sum they cost more than the sum
const { exp, floor, log, max, min } = Math;

/** Heats found so far, by what they depend on. Only ever a shortcut: the same inputs always give the same heat. */
export interface HeatStore {
  heats: Map<string, Heat | null>;
  allowed: Map<string, number>;
  /** logarithms of what a surface gives off at each of the rises */
  surfaces: Map<string, number[]>;
}

const MOST_STORED = 40_000;

export const createHeatStore = (): HeatStore => ({ heats: new Map(), allowed: new Map(), surfaces: new Map() });

/** measureHeat, looked up first. */
export function findHeat({ heats }: HeatStore, inputs: HeatInputs): Heat | null {
  let key = `${inputs.ambientC} ${inputs.bundleMm} ${inputs.outsideMm} ${inputs.wattsPerMAt20} ${inputs.altitudeM}`;
  for (const { wattsPerMAt20, odMm } of inputs.hottest) key += ` ${wattsPerMAt20} ${odMm}`;
  return find(heats, key, () => measureHeat(inputs));
}

/** measureHeatAllowed, looked up first. */
export function findHeatAllowed(
  { allowed, surfaces }: HeatStore,
  middleC: number,
  ambientC: number,
  bundleMm: number,
  outsideMm: number,
  altitudeM: number,
): number {
  return find(allowed, `${middleC} ${ambientC} ${bundleMm} ${outsideMm} ${altitudeM}`, () =>
    measureHeatAllowed(middleC, ambientC, bundleMm, outsideMm, altitudeM, findSurface(surfaces, ambientC, outsideMm, altitudeM)),
  );
}

/** measureOwnHeatAllowed, looked up first. */
export function findOwnHeatAllowed(
  { allowed, surfaces }: HeatStore,
  conductorC: number,
  ambientC: number,
  bundleMm: number,
  outsideMm: number,
  wireMm: number,
  restWatts: number,
  altitudeM: number,
): number {
  return find(allowed, `own ${conductorC} ${ambientC} ${bundleMm} ${outsideMm} ${wireMm} ${restWatts} ${altitudeM}`, () =>
    measureOwnHeatAllowed(
      conductorC,
      ambientC,
      bundleMm,
      outsideMm,
      wireMm,
      restWatts,
      altitudeM,
      findSurface(surfaces, ambientC, outsideMm, altitudeM),
    ),
  );
}

/** Rises at which a surface is measured, K: close together where the curve bends. */
const RISES_K = Array.from({ length: 49 }, (_, index) => 0.05 * 1.22 ** index);

/**
 * What a surface gives off by its temperature, between measured points on logarithmic scales (within 0.05 % of measureSurfaceHeat): many
 * wires of many drafts ask for the same surface.
 */
function findSurface(store: HeatStore['surfaces'], ambientC: number, outsideMm: number, altitudeM: number): (surfaceC: number) => number {
  const logs = find(store, `${ambientC} ${outsideMm} ${altitudeM}`, () =>
    RISES_K.map((riseK) => log(measureSurfaceHeat(ambientC + riseK, ambientC, outsideMm, altitudeM))),
  );
  const stepLog = log(1.22);
  const firstLog = log(RISES_K[0]!);
  return (surfaceC) => {
    const riseK = surfaceC - ambientC;
    if (riseK <= 0) return 0;
    const at = (log(riseK) - firstLog) / stepLog;
    const low = min(max(floor(at), 0), RISES_K.length - 2);
    return exp(logs[low]! + (at - low) * (logs[low + 1]! - logs[low]!));
  };
}

function find<T>(store: Map<string, T>, key: string, make: () => T): T {
  const known = store.get(key);
  if (known !== undefined || store.has(key)) return known!;
  if (store.size > MOST_STORED) store.clear();
  const value = make();
  store.set(key, value);
  return value;
}
