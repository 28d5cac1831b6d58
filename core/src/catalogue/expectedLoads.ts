/** What a meter reads between a pin and its return, power off, for a kind of load; and how to make sure without harm. */
export interface ExpectedLoad {
  name: string;
  leastOhm: number;
  mostOhm: number;
  test: string;
}

const load = (name: string, leastOhm: number, mostOhm: number, test: string): ExpectedLoad => ({ name, leastOhm, mostOhm, test });

/** Usual resistances at about 20 °C; a maker's own figure comes first. Cold filaments and motors at rest read far below their running value. */
export const EXPECTED_LOADS: readonly ExpectedLoad[] = [
  load('switch or contact, closed', 0, 0.3, 'work it by hand and see it open; do not feed it'),
  load(
    'motor: fan, fuel or coolant pump',
    0.15,
    2.5,
    'turn it by hand where you can: the reading moves; then 12 V through a 10 A fuse, fingers clear',
  ),
  load('lamp with a filament, cold', 0.3, 6, 'cold it reads a tenth of its running value: 12 V through a 1 A lamp in series, see it glow'),
  load('ignition coil without driver, primary', 0.3, 1.6, 'do not feed it: it would overheat; measure the secondary, some kilohms'),
  load('injector, low impedance', 1.5, 4, 'a short tick from 12 V through a 20 Ω resistor; no fuel in the rail'),
  load('heater of a probe', 1.8, 9, '12 V through a 2 A fuse for ten seconds; it gets warm and the current falls'),
  load('throttle or idle motor', 1.5, 8, 'unplug the controller; 5 V from a limited supply, fingers out'),
  load('injector, high impedance', 10, 18, 'a short tick from 12 V through a 1 A fuse; no fuel in the rail'),
  load('solenoid valve', 8, 40, '12 V through a 2 A fuse: it clicks'),
  load('stepper winding', 20, 80, 'find the pair that reads the same; 5 V from a limited supply'),
  load('bus with both terminators', 55, 65, 'power off; unplug one terminator: it reads 120'),
  load('relay coil', 60, 140, '12 V through a 1 A fuse: it clicks; mind the polarity where a diode is fitted'),
  load('bus with one terminator', 110, 130, 'power off; look for the other one'),
  load('speed or crank sensor, coil', 150, 2600, 'turn the wheel: some tenths of a volt of alternating voltage'),
  load('temperature sensor', 200, 60_000, 'warm it in the hand: the reading falls'),
  load('position sensor, end to end', 700, 12_000, 'move it: end to end stays, the third pin moves'),
  load(
    'sensor or controller with electronics',
    5_000,
    500_000,
    'the reading differs with the leads swapped; feed it 5 V from a supply limited to 50 mA',
  ),
  load('knock sensor', 200_000, 20_000_000, 'tap it beside: a short pulse on a scope; never feed it'),
  load('open: broken wire, open switch, or not this pin', 1_000_000, Infinity, 'wiggle the wire; try against the other pins'),
];

/** Caution that goes with every reading at an unknown circuit. */
export const UNKNOWN_CAUTION =
  'Resistance first, with battery and modules unplugged; then only a current-limited or fused feed. A cold filament or a motor at rest reads a tenth of its running resistance: never size a fuse from it. Airbags, traction batteries and anything above 60 V are for qualified people only.';

/**
 * Loads that a reading fits, the narrowest range first: what says most comes first.
 *
 * @throws RangeError where the reading is negative or no number
 */
export function listLikelyLoads(ohms: number): ExpectedLoad[] {
  if (!(ohms >= 0)) throw new RangeError(`reading: expected 0 ohms or more, got ${ohms}`);
  const width = ({ leastOhm, mostOhm }: ExpectedLoad) => Math.log(mostOhm + 1) - Math.log(leastOhm + 1);
  return EXPECTED_LOADS.filter(({ leastOhm, mostOhm }) => ohms >= leastOhm && ohms <= mostOhm).sort((a, b) => width(a) - width(b));
}
