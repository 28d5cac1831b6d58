import { measureHeat } from '../../heat/measureHeat';
import { measureTransient, type TransientInputs } from './measureTransient';

const BUNDLE = { ambientC: 60, bundleMm: 6.6, outsideMm: 7.6, altitudeM: 0 };
const start: TransientInputs = {
  ...BUNDLE,
  startC: 60,
  copperGPerM: 95,
  insulationGPerM: 38,
  wattsPerMAt20: () => 2.94,
  seconds: 3600,
};

test('goes to the steady state, from below and from above', () => {
  const steady = measureHeat({ ...BUNDLE, hottest: [], wattsPerMAt20: 2.94 })!.middleC;
  expect(measureTransient(start).points.at(-1)!.middleC).toBeCloseTo(steady, 1);
  expect(measureTransient({ ...start, startC: 120 }).points.at(-1)!.middleC).toBeCloseTo(steady, 1);
});
test('with next to nothing let out it is the adiabatic rise: θ(t) by k²S² of IEC 60364-4-43', () => {
  // 1 mm² of copper, 8.96 g/m, R 17.24 mΩ/m, 1000 A for 10 ms: dθ/dt = I²R(θ)/C, solved: 1 + α(θ − 20) grows as exp(α I² R t / C)
  const [amperes, ohmPerM, grams] = [1000, 0.01724, 8.96];
  const inputs = {
    ...start,
    startC: 20,
    ambientC: 20,
    copperGPerM: grams,
    insulationGPerM: 0,
    wattsPerMAt20: () => amperes ** 2 * ohmPerM,
    seconds: 0.01,
  };
  const exact = 20 + (Math.exp((0.00393 * amperes ** 2 * ohmPerM * 0.01) / (grams * 0.385)) - 1) / 0.00393;
  const { points, outJ, inJ } = measureTransient(inputs);
  expect(outJ / inJ).toBeLessThan(0.001);
  expect(points.at(-1)!.middleC / exact).toBeGreaterThan(0.99);
  expect(points.at(-1)!.middleC / exact).toBeLessThan(1.003);
});
test.each([
  ['a steady load', start],
  ['a start of 30 A for 0.2 s', { ...start, wattsPerMAt20: (seconds: number) => (seconds < 0.2 ? 40 : 2), seconds: 5 }],
  ['a fan that is stuck', { ...start, wattsPerMAt20: () => 25, seconds: 120 }],
])('%s: energy in is energy out and energy kept, to 0.1 %%', (_, inputs) => {
  const { inJ, outJ, storedJ } = measureTransient(inputs);
  expect(Math.abs(inJ - outJ - storedJ) / inJ).toBeLessThan(0.001);
});
test('more current is never cooler, and nothing flowing stays where it is', () => {
  expect(measureTransient({ ...start, wattsPerMAt20: () => 0 }).points.at(-1)!.middleC).toBeCloseTo(60, 6);
  const [one, other] = [5, 10].map((watts) => measureTransient({ ...start, wattsPerMAt20: () => watts, seconds: 60 }).points);
  other!.forEach(({ middleC }, index) => expect(middleC).toBeGreaterThanOrEqual(one![index]!.middleC - 1e-9));
});
test('what would burn stops where there is no wire any more', () => {
  const { points } = measureTransient({ ...start, wattsPerMAt20: () => 5000, seconds: 60 });
  expect(points.at(-1)!.middleC).toBeLessThan(1205);
  expect(points.at(-1)!.seconds).toBeLessThan(60);
});
test.each([
  ['no mass', { copperGPerM: 0, insulationGPerM: 0 }],
  ['no time', { seconds: 0 }],
  ['a covering thinner than its bundle', { outsideMm: 5 }],
])('%s is refused', (_, change) =>
  expect(() => measureTransient({ ...start, ...change })).toThrow(/expected mass, diameters and time above 0/),
);
