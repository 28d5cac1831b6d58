import { WIRE_TABLES } from '../../catalogue';
import { COPPER_PER_K, createHottest, listHottest, measureHeat, measureSurfaceHeat } from './measureHeat';
import { createSurface } from './createSurface';
import { createHeatedBundle, measureHeatAllowed, measureOwnHeatAllowed } from './measureHeatAllowed';

const etfe = (size: string) => WIRE_TABLES.etfe.find((one) => one.size === size)!;
const watts = (loads: [number, number, string][]) =>
  loads.reduce((sum, [count, currentA, size]) => sum + count * currentA ** 2 * (etfe(size).r20MilliohmPerM / 1000), 0);

describe('▸ calculations 4: surface and middle of a bundle in steady state (± 0.3 °C)', () => {
  test.each<[number, number, number, [number, number, string][], number, number]>([
    [
      60,
      6.6,
      7.6,
      [
        [4, 6, '18'],
        [15, 0.05, '22'],
      ],
      69.7,
      71.8,
    ],
    [80, 5.24, 6.2, [[2, 12, '12']], 87.3, 88.8],
    [90, 3.27, 4.2, [[7, 2, '22']], 97.5, 98.9],
  ])('%i °C, %f mm under %f mm', (ambientC, bundleMm, outsideMm, loads, surfaceC, middleC) => {
    const heat = measureHeat({ ambientC, bundleMm, outsideMm, wattsPerMAt20: watts(loads), hottest: [], altitudeM: 0 })!;
    expect(Math.abs(heat.surfaceC - surfaceC)).toBeLessThanOrEqual(0.3);
    expect(Math.abs(heat.middleC - middleC)).toBeLessThanOrEqual(0.3);
  });
});

describe('▸ one bare wire in 25 °C air reaches 125 °C (± 2 %)', () => {
  test.each([
    ['22', 12.7],
    ['20', 16.9],
    ['16', 26.4],
  ])('AWG %s at %f A', (size, expected) => {
    const { odMm, r20MilliohmPerM } = etfe(size);
    const middle = (currentA: number) =>
      measureHeat({
        ambientC: 25,
        bundleMm: odMm,
        outsideMm: odMm,
        wattsPerMAt20: (currentA ** 2 * r20MilliohmPerM) / 1000,
        hottest: [],
        altitudeM: 0,
      })!.middleC;
    expect(middle(expected * 0.98)).toBeLessThan(125);
    expect(middle(expected * 1.02)).toBeGreaterThan(125);
  });
});

test('within 1 % of an independent solution: rings of the bundle by finite differences, the surface by small steps in time', () => {
  const inputs = { ambientC: 90, bundleMm: 9, outsideMm: 10.4, wattsPerMAt20: 3.1, hottest: [], altitudeM: 0 };
  const solved = measureHeat(inputs)!;
  // rings of equal width; heat made evenly over the bundle's cross-section, at the temperature of its middle
  const rings = 400;
  let surfaceC = inputs.ambientC;
  let middleC = inputs.ambientC;
  for (let step = 0; step < 4000; step += 1) {
    const made = inputs.wattsPerMAt20 * (1 + COPPER_PER_K * (middleC - 20));
    surfaceC += 0.02 * (made - measureSurfaceHeat(surfaceC, inputs.ambientC, inputs.outsideMm, 0));
    let at = surfaceC;
    const outside = inputs.outsideMm / 2;
    const inside = inputs.bundleMm / 2;
    const wall = (outside - inside) / rings;
    for (let ring = rings - 1; ring >= 0; ring -= 1) at += (made * wall) / (0.2 * 2 * Math.PI * (inside + (ring + 0.5) * wall));
    const width = inside / rings;
    for (let ring = rings - 1; ring >= 0; ring -= 1) {
      const radius = (ring + 0.5) * width;
      at += (made * (radius / inside) ** 2 * width) / (0.16 * 2 * Math.PI * radius);
    }
    middleC = at;
  }
  expect(Math.abs((solved.middleC - 90) / (middleC - 90) - 1)).toBeLessThan(0.01);
  expect(Math.abs((solved.surfaceC - 90) / (surfaceC - 90) - 1)).toBeLessThan(0.01);
});

describe('boundaries', () => {
  const inputs = { ambientC: 60, bundleMm: 5, outsideMm: 6, wattsPerMAt20: 1, hottest: [], altitudeM: 0 };
  test('no current, no rise', () =>
    expect(measureHeat({ ...inputs, wattsPerMAt20: 0 })).toEqual({ surfaceC: 60, middleC: 60, wattsPerM: 0 }));
  test('what runs away is said, not printed', () => expect(measureHeat({ ...inputs, wattsPerMAt20: 200 })).toBeNull());
  test('thin air cools less', () =>
    expect(measureHeat({ ...inputs, altitudeM: 3000 })!.middleC).toBeGreaterThan(measureHeat(inputs)!.middleC));
  test('more current is never cooler', () => {
    const middles = [0.1, 0.5, 1, 2, 4, 8].map((wattsPerMAt20) => measureHeat({ ...inputs, wattsPerMAt20 })!.middleC);
    expect([...middles].sort((a, b) => a - b)).toEqual(middles);
  });
  test.each([
    { ...inputs, bundleMm: 0 },
    { ...inputs, outsideMm: 4 },
    { ...inputs, wattsPerMAt20: NaN },
    { ...inputs, ambientC: NaN },
  ])('refuses %j', (bad) => expect(() => measureHeat(bad)).toThrow('heat: expected 0 < bundle ≤ outside'));
});

describe('one hot wire in a cool bundle (calculations 4)', () => {
  // by hand: 40 W/m · ln(21.6 / 8.7) / (2π · 0.16) = 36.2 K over the surface; spread evenly 40 / (4π · 0.16) = 19.9 K
  const inputs = { ambientC: 50, bundleMm: 21.6, outsideMm: 21.6, altitudeM: 0 };
  /** Watts at 20 °C that come to 40 W/m at the temperature they make. */
  const to40 = (hottest: boolean) => {
    let wattsPerMAt20 = 30;
    for (let round = 0; round < 60; round += 1) {
      const heat = measureHeat({ ...inputs, wattsPerMAt20, hottest: hottest ? [{ wattsPerMAt20, odMm: 8.7 }] : [] })!;
      wattsPerMAt20 *= 40 / heat.wattsPerM;
    }
    return measureHeat({ ...inputs, wattsPerMAt20, hottest: hottest ? [{ wattsPerMAt20, odMm: 8.7 }] : [] })!;
  };
  test('▸ is 36 K over the surface, not 20', () => {
    const own = to40(true);
    expect(own.middleC - own.surfaceC).toBeCloseTo(36.2, 1);
    const spread = to40(false);
    expect(spread.middleC - spread.surfaceC).toBeCloseTo(19.9, 1);
  });
  test('never makes a bundle cooler than its heat spread evenly', () => {
    for (const odMm of [2, 5, 9, 15, 21.6]) {
      const one = measureHeat({ ...inputs, wattsPerMAt20: 8, hottest: [{ wattsPerMAt20: 8, odMm }] })!;
      expect(one.middleC).toBeGreaterThanOrEqual(measureHeat({ ...inputs, wattsPerMAt20: 8, hottest: [] })!.middleC - 1e-6);
    }
  });
  test.each<[string, number[], number[]]>([
    ['one that gives more than half', [5, 1, 1, 1], [0]],
    ['two that do together', [1, 3, 3, 1], [1, 2]],
    ['three at the most', [3, 3, 3, 2, 2, 2], [0, 1, 2]],
    ['none where three do not', [1, 1, 1, 1, 1, 1, 1], []],
    ['exactly half is not more', [1, 1, 2], [2, 0]],
    ['nothing flows', [0, 0], []],
    ['no wires', [], []],
  ])('the few that count: %s', (_, watts, places) => {
    // three of six that give 9 of 15; of 1, 1 and 2 the 2 are half and one more passes it
    expect(listHottest(watts)).toEqual(places);
  });
  test('what a wire may give by itself is what brings it just there', () => {
    const watts = measureOwnHeatAllowed(130, createHeatedBundle(90, 12, 13, 0), 1.5, 2);
    // its conductor at 130 °C: that heat again as made at 20 °C
    const made = (atC: number, value: number) => value / (1 + COPPER_PER_K * (atC - 20));
    const rest = 2;
    const heat = measureHeat({
      ...{ ambientC: 90, bundleMm: 12, outsideMm: 13, altitudeM: 0 },
      wattsPerMAt20: made(130, watts) + made(116, rest),
      hottest: [{ wattsPerMAt20: made(130, watts), odMm: 1.5 }],
    })!;
    expect(heat.middleC).toBeCloseTo(130, 0);
    expect(measureOwnHeatAllowed(80, createHeatedBundle(90, 12, 13, 0), 1.5, 2)).toBe(0);
    expect(watts).toBeLessThan(measureHeatAllowed(130, createHeatedBundle(90, 12, 13, 0)));
  });
});

test('one wire asked about among the others in order is found where listing them all anew would find it', () => {
  let seed = 7;
  const next = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  for (let round = 0; round < 2000; round += 1) {
    // few steps, so that there are ties and zeros
    const watts = Array.from({ length: 1 + Math.floor(next() * 9) }, () => Math.floor(next() * 5));
    const isHottestWith = createHottest(watts);
    for (let place = 0; place < watts.length; place += 1) {
      const instead = Math.floor(next() * 12);
      const changed = watts.map((one, at) => (at === place ? instead : one));
      expect({ watts, place, instead, is: isHottestWith(place, instead) }).toEqual({
        ...{ watts, place, instead },
        is: listHottest(changed).includes(place),
      });
    }
  }
});

test('a surface between its points is within 0.05 % of the surface itself, and gives nothing off below its air', () => {
  for (const [ambientC, outsideMm, altitudeM] of [
    [20, 2, 0],
    [85, 9, 1500],
    [130, 31, 0],
  ] as const) {
    const surface = createSurface(ambientC, outsideMm, altitudeM);
    for (let riseK = 0.11; riseK < 500; riseK *= 1.37) {
      const exact = measureSurfaceHeat(ambientC + riseK, ambientC, outsideMm, altitudeM);
      expect(Math.abs(surface.given(ambientC + riseK) / exact - 1)).toBeLessThan(0.0005);
      // what goes out of it through 2 K m/W comes from so much warmer
      const passed = surface.measurePassed(ambientC + riseK + 2 * exact, 2, 2000);
      expect(Math.abs(passed / exact - 1)).toBeLessThan(0.0005);
      expect(surface.measurePassed(ambientC + riseK + 2 * exact, 2, ambientC + riseK / 2)).toBe(Infinity);
    }
    expect([surface.given(ambientC), surface.given(ambientC - 5), surface.measurePassed(ambientC, 1, 200)]).toEqual([0, 0, 0]);
  }
});
