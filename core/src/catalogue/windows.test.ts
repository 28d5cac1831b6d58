import { isCoveringFit, measureGrip } from '../plan';
import { createDemoShop, describeRecord, listWindow, measureCopperDiameter } from './index';
import { listRecords } from '../model';

const shop = createDemoShop();

describe('what a part takes, on the scale of the wires', () => {
  test.each(['contacts', 'rings', 'barrels', 'seals', 'grommets'] as const)(
    '%s: the wires marked as fitting are those that its line names',
    (table) => {
      for (const record of listRecords(shop, table)) {
        const { rows, least, most } = listWindow(shop, table, record.value)!;
        const fitting = rows.flatMap(({ words, wires }) => {
          const inside = wires.filter(({ fits }) => fits);
          for (const { at, fits } of wires) expect(fits).toBe(at >= least && at <= most);
          return inside.length ? [`${words} ${inside[0]!.size}${inside.length > 1 ? ` to ${inside.at(-1)!.size}` : ''}`] : [];
        });
        expect(describeRecord(shop, table, record)).toContain(fitting.join(', ') || 'no wire of this shop');
        for (const { wires } of rows) expect(wires.map(({ at }) => at)).toEqual([...wires.map(({ at }) => at)].sort((a, b) => a - b));
      }
    },
  );
  test('a table without a window has none; a shop without a kind of wire has no row for it', () => {
    expect(listWindow(shop, 'families', shop.families['hollin-6'])).toBeNull();
    const rows = listWindow({ wires: { ...shop.wires, thinwall: [] } }, 'contacts', shop.contacts[0])!.rows;
    expect(rows.map(({ words }) => words)).toEqual(['ETFE', 'ETFE plated']);
  });
});

test('bundles that a covering grips: inside the range it does, outside it does not', () => {
  const standard = Object.values(shop.standards)[0]!;
  for (const item of shop.coverings) {
    const { leastMm, mostMm } = measureGrip(item, standard);
    const grips = (odMm: number) => isCoveringFit(item, odMm, 0, standard).grips;
    expect([grips(leastMm + 1e-6), grips(mostMm - 1e-6), grips(leastMm - 0.01), grips(mostMm + 0.01)]).toEqual([true, true, false, false]);
  }
});

test('over the strands of 0.6 mm²: 4 · 0.6 / (π · 0.78) = 0.9794, its root 0.99 mm; always under the insulation', () => {
  expect(measureCopperDiameter({ areaMm2: 0.6 })).toBeCloseTo(0.99, 2);
  for (const wires of Object.values(shop.wires)) for (const wire of wires) expect(measureCopperDiameter(wire)).toBeLessThan(wire.odMm);
});

test('a price is of a metre where a part is counted by its length, and of a piece where it is counted', () => {
  const shop = createDemoShop();
  const words = (key: string) => describeRecord(shop, 'buying', { id: key, name: key, value: shop.buying[key] });
  const ofTable = (table: string) => Object.keys(shop.buying).find((key) => key.startsWith(`${table}/`))!;
  for (const table of ['wires', 'cables', 'coverings']) expect(words(ofTable(table))).toMatch(/ EUR\/m, [\d.]+ m in a pack$/);
  for (const table of ['labels', 'contacts', 'clips']) expect(words(ofTable(table))).toMatch(/ EUR, \d+ in a pack$/);
});
