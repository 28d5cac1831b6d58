import { addCurrents, noCurrents, scaleCurrents, type Currents } from '../currents/currents';

/** A device or box as currents pass it. */
export interface UnitPins {
  /** what its supplies draw that return by a pin */
  supplies: Currents[];
  /** what its 5 V pins draw */
  sensors: Currents[];
  /** low-side pins of loads: the load's current goes on through them to a driver */
  outputs: { node: number; stated: Currents }[];
  sensorGrounds: number[];
  grounds: number[];
  /** inputs that a switch or a current loop goes home by, where it has no ground at all */
  signals: number[];
}

/**
 * What goes home by each output, sensor ground and power ground of a device or box: all that its supplies draw, and no more
 * (calculations 3). Outputs carry what is stated, scaled to the supplies where there is no ground to take the rest; 5 V comes home by the
 * sensor grounds; grounds of one kind share evenly. taken: what comes into a box besides, by its drivers and its sensor grounds, less what
 * it feeds from its own rails.
 */
export function measureReturns(pins: UnitPins, modes: number, taken: Currents | null): Map<number, Currents> {
  const { outputs, sensorGrounds, grounds, signals } = pins;
  const sum = (list: readonly Currents[]) => {
    const total = noCurrents(modes);
    for (const one of list) addCurrents(total, one);
    return total;
  };
  const own = sum(pins.supplies);
  const sensors = sum(pins.sensors);
  const through = sum(outputs.map(({ stated }) => stated));
  const result = new Map<number, Currents>();
  const isWhole = pins.supplies.length > 0 && grounds.length === 0;
  for (const { node, stated } of outputs) result.set(node, isWhole ? shareOut(own, stated, through) : stated);
  const rest = own;
  for (const { node } of outputs) addCurrents(rest, result.get(node)!, -1);
  if (taken) addCurrents(rest, taken);
  if (sensorGrounds.length === 0) addCurrents(rest, sensors);
  const home = sensorGrounds.length === 0 ? noCurrents(modes) : sensors;
  if (grounds.length === 0) addCurrents(home, rest);
  const spread = (nodes: readonly number[], amount: Currents) => {
    for (const node of nodes) result.set(node, scaleCurrents(atLeastNothing(amount), 1 / nodes.length));
  };
  spread(sensorGrounds, home);
  spread(grounds, rest);
  if (sensorGrounds.length + grounds.length + outputs.length === 0) spread(signals, home);
  return result;
}

const atLeastNothing = ({ on, heat, mean }: Currents): Currents => {
  const cut = (values: readonly number[]) => values.map((value) => Math.max(0, value));
  return { on: cut(on), heat: cut(heat), mean: cut(mean) };
};

/** Of a whole, the part that one of several has in their sum; nothing where they are nothing. */
function shareOut(whole: Currents, part: Currents, sum: Currents): Currents {
  const share = (key: keyof Currents) =>
    whole[key].map((value, mode) => (sum[key][mode]! > 0 ? (value * part[key][mode]!) / sum[key][mode]! : 0));
  return { on: share('on'), heat: share('heat'), mean: share('mean') };
}
