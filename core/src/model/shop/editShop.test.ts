import { createDemoShop } from '../../catalogue';
import { checkShop, createRecordId, listRecordFields, listRecords, putRecord, RECORD_SCHEMAS, SHOP_TABLES, toFieldWords } from './index';

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
  const wire = { ...shop.wires.etfe[0]!, size: '21', areaMm2: 0.5 };
  const next = putRecord(shop, 'wires', 'etfe 21', wire);
  expect(next.wires.etfe.map(({ size }) => size).slice(2, 5)).toEqual(['22', '21', '20']);
  expect(checkShop(next).ok).toBe(true);
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
