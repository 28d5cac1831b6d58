import { measureHeat, type Heat, type HeatInputs } from './measureHeat';
import { measureHeatAllowed } from './measureHeatAllowed';

/** Heats found so far, by what they depend on. Only ever a shortcut: the same inputs always give the same heat. */
export interface HeatStore {
  heats: Map<string, Heat | null>;
  allowed: Map<string, number>;
}

const MOST_STORED = 40_000;

export const createHeatStore = (): HeatStore => ({ heats: new Map(), allowed: new Map() });

/** measureHeat, looked up first. */
export function findHeat({ heats }: HeatStore, inputs: HeatInputs): Heat | null {
  const key = `${inputs.ambientC} ${inputs.bundleMm} ${inputs.outsideMm} ${inputs.wattsPerMAt20} ${inputs.altitudeM}`;
  return find(heats, key, () => measureHeat(inputs));
}

/** measureHeatAllowed, looked up first. */
export function findHeatAllowed({ allowed }: HeatStore, ...inputs: Parameters<typeof measureHeatAllowed>): number {
  return find(allowed, inputs.join(' '), () => measureHeatAllowed(...inputs));
}

function find<T>(store: Map<string, T>, key: string, make: () => T): T {
  const known = store.get(key);
  if (known !== undefined || store.has(key)) return known!;
  if (store.size > MOST_STORED) store.clear();
  const value = make();
  store.set(key, value);
  return value;
}
