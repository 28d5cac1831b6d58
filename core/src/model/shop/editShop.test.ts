import { createDemoShop } from '../../catalogue';
import {
  checkShop,
  copyWireKind,
  createRecordId,
  listRecordFields,
  listRecords,
  mergeShops,
  putRecord,
  RECORD_SCHEMAS,
  SHOP_TABLES,
  toFieldWords,
  type Shop,
} from './index';

const shop = createDemoShop();

test.each(SHOP_TABLES.map((table) => [table]))(
  '%s: a record put back as it was changes nothing; taken out it is gone, and nothing else is',
  (table) => {
    const records = listRecords(shop, table);
    const one = records[Math.min(1, records.length - 1)]!;
    expect(putRecord(shop, table, one.id, one.value)).toEqual(shop);
    const left = listRecords(putRecord(shop, table, one.id, undefined), table).map(({ id }) => id);
    expect(left).toEqual(records.map(({ id }) => id).filter((id) => id !== one.id));
  },
);

test('a new wire takes its place by its area, and the shop still passes its gate', () => {
  const wire = { ...shop.wires.etfe![0]!, size: '21', areaMm2: 0.5 };
  const next = putRecord(shop, 'wires', 'etfe 21', wire);
  expect(next.wires.etfe!.map(({ size }) => size).slice(2, 5)).toEqual(['22', '21', '20']);
  expect(checkShop(next).ok).toBe(true);
});

describe('a kind of wire of the shop’s own', () => {
  const kinds = (of: Shop) =>
    Object.values(of.standards).map(({ minimumSize, insulationLimitC }) => [minimumSize.silicone, insulationLimitC.silicone]);
  const copied = copyWireKind(shop, 'thinwall', 'silicone');

  test('begins with the sizes of one there is, and with what every house style says of that', () => {
    expect(checkShop(copied)).toMatchObject({ ok: true });
    expect(copied.wires.silicone!.map(({ size, table, insulation }) => [size, table, insulation])).toEqual(
      shop.wires.thinwall!.map(({ size }) => [size, 'silicone', 'thin-wall, copy']),
    );
    expect(kinds(copied)).toEqual(Object.values(shop.standards).map((one) => [one.minimumSize.thinwall, one.insulationLimitC.thinwall]));
    const fields = listRecordFields(RECORD_SCHEMAS.standards, copied.standards.plain);
    expect(fields.find(({ key }) => key === 'insulationLimitC')!.fields.map(({ key }) => key)).toContain('silicone');
  });
  test('what it is called is so of all its sizes, and a size that is called otherwise keeps its price', () => {
    const [first] = shop.wires.etfe!;
    const named = putRecord(shop, 'wires', 'etfe 26', { ...first!, insulation: 'ETFE, ours', size: '26x' });
    expect(new Set(named.wires.etfe!.map(({ insulation }) => insulation))).toEqual(new Set(['ETFE, ours']));
    expect(named.wires.etfe!.map(({ size }) => size)).toEqual(['26x', ...shop.wires.etfe!.slice(1).map(({ size }) => size)]);
    expect([named.buying['wires/etfe 26'], named.buying['wires/etfe 26x']]).toEqual([undefined, shop.buying['wires/etfe 26']]);
  });
  test('goes with its last size from the house styles too', () => {
    const gone = copied.wires.silicone!.reduce((now, { size }) => putRecord(now, 'wires', `silicone ${size}`, undefined), copied);
    expect(gone).toEqual(shop);
  });
  test('comes from another shop with what a house style of that says of it; a house style that says nothing of it is no shop', () => {
    expect(mergeShops(shop, copied, () => false)).toEqual(copied);
    const alone = { ...shop, wires: copied.wires };
    const checked = checkShop(alone);
    expect(checked.ok ? [] : checked.problems.map(({ path }) => path)).toContain('/standards/plain/insulationShortC/silicone');
  });
});

test('a copy has an id of its own', () => {
  expect(createRecordId(new Set(['tarn-6']), 'tarn-6')).toBe('tarn-6-2');
  expect(createRecordId(new Set(['tarn-6', 'tarn-6-2']), 'tarn-6')).toBe('tarn-6-3');
});

test.each([
  ['minAreaMm2', 'min area, mm²'],
  ['cutIncrementMm', 'cut increment, mm'],
  ['r20MilliohmPerM', 'resistance at 20 °C, mΩ/m'],
  ['massGPerM', 'mass, g/m'],
  ['currentA', 'current, A'],
  ['fuseDeratePerK', 'fuse derate, per K'],
  ['altitudeM', 'altitude, m'],
  ['sealed', 'sealed'],
  ['etfe-plated', 'etfe-plated'],
])('%s reads as "%s"', (key, words) => {
  expect(toFieldWords(key)).toBe(words);
});

test('fields: figures, words, choices, lists and groups; of two shapes the one that the record has; ids are not typed', () => {
  const fields = (table: (typeof SHOP_TABLES)[number], at = 0) =>
    listRecordFields(RECORD_SCHEMAS[table], listRecords(shop, table)[at]!.value);
  const contact = fields('contacts');
  expect(contact.find(({ key }) => key === 'peakA')).toMatchObject({ kind: 'number', isOptional: true });
  expect(contact.some(({ key }) => key === 'id')).toBe(false);
  expect(fields('families').find(({ key }) => key === 'seating')).toMatchObject({
    kind: 'choice',
    choices: ['push-to-seat', 'pull-to-seat'],
  });
  expect(fields('families').find(({ key }) => key === 'keys')).toMatchObject({ kind: 'list', isInteger: false });
  const isBraid = shop.coverings.map(({ kind }) => kind === 'braid');
  expect(fields('coverings', isBraid.indexOf(true)).some(({ key }) => key === 'yarnAngleDeg')).toBe(true);
  expect(fields('coverings', isBraid.indexOf(false)).some(({ key }) => key === 'yarnAngleDeg')).toBe(false);
  const sigma = fields('standards').find(({ key }) => key === 'sigma')!;
  expect([sigma.kind, sigma.fields.length, sigma.fields[0]!.fields.map(({ key }) => key)]).toEqual(['group', 6, ['aMm', 'share']]);
});

test('every field of a house style can be reached, but for its id', () => {
  const keys = listRecordFields(RECORD_SCHEMAS.standards, shop.standards.larkhollow).map(({ key }) => key);
  expect(Object.keys(shop.standards.larkhollow!).filter((key) => !keys.includes(key))).toEqual(['id']);
});
