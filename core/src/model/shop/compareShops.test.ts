import { createDemoShop } from '../../catalogue';
import { compareShops, listRecords, SHOP_TABLES, type Shop } from './index';

const change = (edit: (shop: Shop) => void) => {
  const after = createDemoShop();
  edit(after);
  return compareShops(createDemoShop(), after);
};

test('a shop and its copy do not differ', () => {
  expect(change(() => undefined)).toEqual([]);
});

test('added, changed and gone, each with its field and by its id', () => {
  const shop = createDemoShop();
  const [first, second] = shop.contacts;
  expect(
    change(({ contacts, people, standards, wires }) => {
      contacts[0]!.currentA = 99;
      contacts[1]!.id = 'own-1';
      people.push('Wil Tamsin');
      standards.larkhollow!.sigma.tape.aMm = 7;
      wires.etfe!.pop();
    }),
  ).toEqual([
    {
      table: 'standards',
      added: [],
      gone: [],
      changed: [{ id: 'larkhollow', name: 'Larkhollow house style', fields: ['sigma, tape, a, mm: 5 → 7'] }],
    },
    { table: 'people', added: [{ id: 'Wil Tamsin', name: 'Wil Tamsin' }], gone: [], changed: [] },
    { table: 'wires', added: [], gone: [{ id: 'etfe 8', name: 'ETFE 8' }], changed: [] },
    {
      table: 'contacts',
      added: [{ id: 'own-1', name: second!.name }],
      gone: [{ id: second!.id, name: second!.name }],
      changed: [{ id: first!.id, name: first!.name, fields: [`current, A: ${first!.currentA} → 99`] }],
    },
  ]);
});

test('every table lists its records under ids that differ', () => {
  const shop = createDemoShop();
  for (const table of SHOP_TABLES) {
    const ids = listRecords(shop, table).map(({ id }) => id);
    expect([table, ids.length > 0, new Set(ids).size]).toEqual([table, true, ids.length]);
  }
});

test('what a house style says of a kind of wire is told by what that is called', () => {
  const [styles] = change(({ standards }) => {
    standards.larkhollow!.insulationLimitC['etfe-plated'] = 190;
  });
  expect(styles!.changed[0]!.fields).toEqual(['insulation limit, °C, ETFE plated: 200 → 190']);
});
