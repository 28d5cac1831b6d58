import fc from 'fast-check';
import { createRandom } from '../../units/createRandom';
import { solveMilp } from '../../testing/solveMilp';
import { canPlaceAll, findConflict, matchPins, type Costs } from './matchPins';

/** Needs and places of a made-up vehicle: every third pairing is impossible, or more where places are scarce. */
function createCosts(seed: number): (number | null)[][] {
  const random = createRandom(seed);
  const needs = 1 + Math.floor(random() * 10);
  const places = 1 + Math.floor(random() * 11);
  const density = 0.25 + random() * 0.6;
  return Array.from({ length: needs }, () =>
    Array.from({ length: places }, () => (random() < density ? Math.floor(random() * 40) / 2 : null)),
  );
}

/** Place as many as can be, then at least cost: a need left over is dearer than everything placed. */
function toModel(costs: Costs, unplaced: number): string {
  const name = (need: number, place: number) => `x${need}_${place}`;
  const pairs = costs.flatMap((row, need) => row.flatMap((cost, place) => (cost === null ? [] : [{ need, place, cost }])));
  const objective = [
    ...pairs.map(({ need, place, cost }) => `+ ${cost} ${name(need, place)}`),
    ...costs.map((_, need) => `+ ${unplaced} u${need}`),
  ];
  const needs = costs.map(
    (_, need) =>
      ` n${need}: ${pairs
        .filter((one) => one.need === need)
        .map((one) => `+ ${name(need, one.place)}`)
        .join(' ')} + u${need} = 1`,
  );
  const places = costs[0]!.map((_, place) => ({ place, of: pairs.filter((one) => one.place === place) })).filter(({ of }) => of.length > 0);
  const rows = places.map(({ place, of }) => ` p${place}: ${of.map((one) => `+ ${name(one.need, place)}`).join(' ')} <= 1`);
  const variables = [...pairs.map(({ need, place }) => name(need, place)), ...costs.map((_, need) => `u${need}`)];
  return `Minimize\n obj: ${objective.join(' ')}\nSubject To\n${[...needs, ...rows].join('\n')}\nBinary\n ${variables.join(' ')}\nEnd\n`;
}

const count = (places: readonly (number | null)[]) => places.filter((place) => place !== null).length;

test('the assignment is the optimum of a MILP solver on 200 seeded cases', async () => {
  for (let seed = 1; seed <= 200; seed += 1) {
    const costs = createCosts(seed);
    const match = matchPins(costs);
    const unplaced = 10_000;
    const optimum = await solveMilp(toModel(costs, unplaced));
    expect([seed, match.cost + unplaced * (costs.length - count(match.places))]).toEqual([seed, expect.closeTo(optimum!, 6)]);
  }
}, 60_000);

test('no place twice, and none that cannot be', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 100_000 }), (seed) => {
      const costs = createCosts(seed);
      const { places } = matchPins(costs);
      const taken = places.filter((place) => place !== null);
      expect(new Set(taken).size).toBe(taken.length);
      places.forEach((place, need) => place !== null && expect(costs[need]![place]).not.toBeNull());
    }),
  );
});

test('what cannot be placed names a least set that competes: leave any one out and the others fit', () => {
  let seen = 0;
  for (let seed = 1; seed <= 400; seed += 1) {
    const costs = createCosts(seed);
    const match = matchPins(costs);
    match.places.forEach((place, need) => {
      if (place !== null) return;
      seen += 1;
      const { needs, places } = findConflict(costs, match, need);
      expect(needs).toContain(need);
      expect(needs.length).toBe(places.length + 1);
      expect(canPlaceAll(costs, needs)).toBe(false);
      for (const one of needs) {
        const without = needs.filter((other) => other !== one);
        expect(without.length === 0 || canPlaceAll(costs, without)).toBe(true);
      }
    });
  }
  expect(seen).toBeGreaterThan(100);
});

test.each([
  ['nothing to place', [], { places: [], cost: 0 }],
  ['a need without a place', [[null, null]], { places: [null], cost: 0 }],
  ['no places at all', [[], []], { places: [null, null], cost: 0 }],
  [
    'the cheaper whole, not the cheaper first',
    [
      [1, 2],
      [1, 9],
    ],
    { places: [1, 0], cost: 3 },
  ],
  [
    'more placed beats cheaper',
    [
      [0, 30],
      [0, null],
    ],
    { places: [1, 0], cost: 30 },
  ],
] as [string, Costs, ReturnType<typeof matchPins>][])('%s', (_, costs, expected) => expect(matchPins(costs)).toEqual(expected));

test.each([
  ['a negative cost', [[-1]], 'expected a cost of 0 or more, got -1'],
  ['no number', [[NaN]], 'got NaN'],
  ['rows of different length', [[1, 2], [1]], 'expected 2 places for each need, got 1'],
] as [string, Costs, string][])('%s is refused', (_, costs, message) => expect(() => matchPins(costs)).toThrow(message));
