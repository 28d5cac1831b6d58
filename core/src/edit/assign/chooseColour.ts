import type { Circuit, CircuitKind, Colour } from '../../model';

/** Colours by function; the stripe is the one that the fewest wires of that base have so far. */
const COLOURS: Record<CircuitKind, readonly [Colour['base'], ...Colour['base'][]]> = {
  supply: ['red'],
  'sensor-supply': ['orange'],
  'sensor-ground': ['black'],
  'power-ground': ['black'],
  signal: ['yellow', 'green', 'grey', 'pink'],
  output: ['blue', 'brown', 'violet'],
  data: ['white'],
  screen: ['white'],
};
const STRIPES: readonly Colour['stripe'][] = [
  null,
  'white',
  'black',
  'red',
  'blue',
  'yellow',
  'green',
  'brown',
  'grey',
  'violet',
  'orange',
];

/** A look that no wire, or the fewest, of these circuits has. */
export function chooseColour(kind: CircuitKind, circuits: readonly Circuit[]): Colour {
  const bases = COLOURS[kind];
  const count = new Map<string, number>();
  for (const { colour } of circuits) {
    const key = `${colour.base}/${colour.stripe}`;
    count.set(key, (count.get(key) ?? 0) + 1);
  }
  const looks = STRIPES.flatMap((stripe) => bases.flatMap((base) => (base === stripe ? [] : [{ base, stripe }])));
  const from = kind === 'sensor-ground' ? looks.filter(({ stripe }) => stripe !== null) : looks;
  return from.reduce((best, look) =>
    (count.get(`${look.base}/${look.stripe}`) ?? 0) < (count.get(`${best.base}/${best.stripe}`) ?? 0) ? look : best,
  );
}
