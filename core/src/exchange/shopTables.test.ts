import { createDemoShop } from '../catalogue';
import { checkShop, compareShops, mergeShops, putRecord, SHOP_TABLES, type Shop, type ShopTable } from '../model';
import { fromShopTable, readCsv, toShopTableCsv } from './index';

const shop = createDemoShop();

function read(table: ShopTable, text: string, into: Shop = shop) {
  const parsed = readCsv(text);
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message);
  return fromShopTable(into, table, parsed.value);
}
const lines = (table: ShopTable, text: string) => {
  const made = read(table, text);
  return made.ok ? [] : made.problems.map(({ path, message }) => `${path}: ${message}`);
};

describe('tables of a shop', () => {
  test.each(SHOP_TABLES)('%s: written and read again nothing differs, also into a shop that has none of them', (table) => {
    const text = toShopTableCsv(shop, table);
    const same = read(table, text);
    expect(same.ok && compareShops(shop, same.value)).toEqual([]);
    const empty = {
      ...shop,
      [table]: Array.isArray(shop[table]) ? [] : table === 'wires' ? { etfe: [], 'etfe-plated': [], thinwall: [] } : {},
    };
    const filled = read(table, text, empty as Shop);
    expect(filled.ok && compareShops(shop, filled.value)).toEqual([]);
    expect(filled.ok && checkShop(filled.value)).toMatchObject({ ok: true });
  });
  test('a few columns change known records and leave the rest; an empty cell is a figure that is not stated', () => {
    const made = read('contacts', 'id;currentA;peakA\nh22;9,5;\n');
    if (!made.ok) throw new Error(made.problems[0]!.message);
    expect(compareShops(shop, made.value)).toEqual([
      {
        table: 'contacts',
        added: [],
        gone: [],
        changed: [{ id: 'h22', name: 'Hollin size 22 contact', fields: ['current, A: 7.5 → 9.5', 'peak, A: 25 → null'] }],
      },
    ]);
  });
  test('text that a spreadsheet would run comes back as it was', () => {
    const odd = putRecord(shop, 'seals', shop.seals[0]!.id, { ...shop.seals[0]!, name: '=1+1' });
    const text = toShopTableCsv(odd, 'seals');
    expect(text).toContain("'=1+1");
    const made = read('seals', text);
    expect(made.ok && made.value.seals[0]!.name).toBe('=1+1');
  });
  test.each<[string, ShopTable, string, string]>([
    [
      'a column nobody knows',
      'seals',
      'id,colour\nx,red\n',
      'column colour: expected one of id, name, cavitySize, minOdMm, maxOdMm, got "colour"',
    ],
    ['no id', 'seals', 'id,name\n,x\n', "line 2: expected a column id with the record's id, got nothing"],
    ['no column for it', 'seals', 'name,minOdMm\nx,1\n', "line 2: expected a column id with the record's id, got nothing"],
    ['a record twice', 'seals', 'id,minOdMm\np-green,1\np-green,2\n', 'line 3: expected "p-green" once, got it in line 2 too'],
    ['a word for a figure', 'seals', 'id,minOdMm\np-green,thick\n', 'line 2, minOdMm: expected a number, got "thick"'],
    ['nothing for a figure', 'seals', 'id,minOdMm\np-green,\n', 'line 2, minOdMm: expected a number, got ""'],
    ['a kind there is not', 'contacts', 'id,gender\nh22,both\n', 'line 2, gender: expected "pin" or "socket" or nothing, got "both"'],
    ['neither yes nor no', 'families', 'id,sealed\ntarn-2,perhaps\n', 'line 2, sealed: expected yes or no, got "perhaps"'],
    ['broken JSON', 'families', 'id;keys\ntarn-2;[grey\n', 'line 2, keys: expected JSON, got "[grey"'],
    [
      'a new one with a column short',
      'seals',
      'id,name\nnew,New\n',
      'line 2: expected a column cavitySize for a record that is new, got none',
    ],
    [
      'a wire of a kind that the shop has not',
      'wires',
      'table,size\nptfe,22\n',
      'line 2, table: expected a kind of wire of the shop (etfe, etfe-plated, thinwall), got "ptfe": begin a kind as a copy of one there is',
    ],
    ['a wire without its table', 'wires', 'size,areaMm2\n22,0.3\n', 'line 2: expected a table and a size, got nothing'],
  ])('%s is refused with its place', (_, table, text, expected) => expect(lines(table, text)).toContain(expected));
  test('no more than twenty problems, and twenty thousand records are read in one pass', () => {
    expect(lines('seals', `id,minOdMm\n${Array.from({ length: 100 }, (_, at) => `s${at},x`).join('\n')}\n`).length).toBeLessThan(25);
    const rows = Array.from({ length: 19_000 }, (_, at) => `s${at},Seal ${at},22,1,2`).join('\n');
    const made = read('seals', `id,name,cavitySize,minOdMm,maxOdMm\n${rows}\n`);
    expect(made.ok && made.value.seals).toHaveLength(shop.seals.length + 19_000);
  });
});

describe('two shops', () => {
  const other = (() => {
    let made = putRecord(shop, 'contacts', 'h22', { ...shop.contacts.find(({ id }) => id === 'h22')!, currentA: 9 });
    made = putRecord(made, 'families', 'tarn-2', { ...shop.families['tarn-2']!, massG: 4 });
    made = putRecord(made, 'families', 'tarn-9', { ...shop.families['tarn-2']!, name: 'Tarn 9' });
    made = putRecord(made, 'people', 'Wil Tamsin', 'Wil Tamsin');
    return { ...putRecord(made, 'labels', shop.labels[0]!.id, undefined), name: 'The other shop' };
  })();
  test('what only the other has is added, what differs is the other’s where asked for, nothing goes', () => {
    const merged = mergeShops(shop, other, (table) => table === 'contacts');
    expect(checkShop(merged)).toMatchObject({ ok: true });
    expect(
      compareShops(shop, merged).map(({ table, added, gone, changed }) => [table, added.length, gone.length, changed.map(({ id }) => id)]),
    ).toEqual([
      ['people', 1, 0, []],
      ['families', 1, 0, []],
      ['contacts', 0, 0, ['h22']],
    ]);
    expect([merged.name, merged.families['tarn-2']!.massG]).toEqual([shop.name, shop.families['tarn-2']!.massG]);
  });
  test('with itself nothing changes; all of the other taken leaves only what it lacks', () => {
    expect(mergeShops(shop, shop, () => true)).toEqual(shop);
    const left = compareShops(
      mergeShops(shop, other, () => true),
      other,
    );
    expect(left.map(({ table, added, changed, gone }) => [table, added.length, changed.length, gone.length])).toEqual([
      ['labels', 0, 0, 1],
      ['buying', 0, 0, 1],
    ]);
  });
});
