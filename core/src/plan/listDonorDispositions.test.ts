import { createDevice, type DonorWire } from '../model';
import { createFenRanger } from '../demo';
import { listDonorDispositions } from './listDonorDispositions';

const wire = (rest: Partial<DonorWire>): DonorWire => ({
  number: '1',
  from: 'controller',
  fromPin: '1',
  to: 'lamp',
  toPin: '1',
  functions: [],
  colour: 'red',
  size: '1',
  lengthMm: 500,
  decision: 'keep',
  newLengthMm: null,
  newName: '',
  note: '',
  ...rest,
});
const ledger = (wires: Partial<DonorWire>[], devices: ReturnType<typeof createDevice>[] = []) =>
  listDonorDispositions({ name: 'old', wires: Object.fromEntries(wires.map((one, index) => [`w${index}`, wire(one)])) }, devices, 300);

test('the demo ledger: counts, joins and metres as added up by hand', () => {
  const job = createFenRanger();
  const { counts, joins, recovered, unmeasured, lost } = listDonorDispositions(job.donors.old!, Object.values(job.devices), 300);
  expect(counts).toEqual({ keep: 18, shorten: 1, extend: 2, repurpose: 1, remove: 5, undecided: 1 });
  expect(joins).toBe(3);
  // removed and measured: 1240 + 1260 + 930 + 720; shortened by 340
  expect(recovered.reduce((sum, { lengthMm }) => sum + lengthMm, 0)).toBe(1240 + 1260 + 930 + 720 + 340);
  expect(unmeasured).toBe(1);
  expect(lost.filter(({ devices }) => devices.length).map(({ name }) => name)).toEqual(['sensor ground', 'temperature ground']);
});

test('a function is lost only when every wire that serves it goes, however it is written', () => {
  expect(ledger([{ functions: ['Horn'], decision: 'remove' }, { functions: ['horn '] }]).lost).toEqual([]);
  expect(
    ledger([
      { functions: ['horn'], decision: 'remove' },
      { functions: ['horn'], decision: 'remove' },
    ]).lost,
  ).toEqual([{ name: 'horn', wireIds: ['w0', 'w1'], devices: [] }]);
});

test('the second function of a wire that goes is lost with the first', () => {
  expect(ledger([{ functions: ['sensor ground', 'temperature ground'], decision: 'remove' }]).lost.map(({ name }) => name)).toEqual([
    'sensor ground',
    'temperature ground',
  ]);
});

test('orphans lead to a device that goes; a device that stays without a wire is bare', () => {
  const devices = [createDevice('Lamp', 'lights', { decision: 'remove' }), createDevice('controller', 'fuel', { decision: 'keep' })];
  expect(ledger([{}], devices)).toMatchObject({ orphans: [{ wireId: 'w0', device: 'lamp' }], bare: [] });
  expect(ledger([{ decision: 'remove' }], devices)).toMatchObject({ orphans: [], bare: ['controller'] });
});

test('a wire that is put to other use loses the name printed on it; two wires cannot have one name', () => {
  const { aliases, problems } = ledger([
    { decision: 'repurpose', number: '19', newName: 'P-1' },
    { decision: 'repurpose', number: '20' },
    { decision: 'repurpose', number: ' ', newName: 'p-1 ' },
    { decision: 'remove', number: 'P-1' },
    { number: '21' },
  ]);
  expect(aliases).toEqual([
    { wireId: 'w0', printed: '19', name: 'P-1' },
    { wireId: 'w1', printed: '20', name: '' },
  ]);
  expect(problems).toEqual([
    { wireId: 'w0', words: 'expected a new name that no other wire has, got P-1' },
    { wireId: 'w2', words: 'expected a new name that no other wire has, got p-1' },
  ]);
  // the name of a wire that goes is free
  expect(
    ledger([
      { decision: 'repurpose', newName: 'P-1' },
      { decision: 'remove', number: 'P-1' },
    ]).problems,
  ).toEqual([]);
});

test.each([
  [299, 0],
  [300, 300],
])('an offcut of %i mm gives %i mm for stock (the shop keeps 300 and more)', (lengthMm, expected) => {
  expect(ledger([{ lengthMm, decision: 'remove' }]).recovered.reduce((sum, one) => sum + one.lengthMm, 0)).toBe(expected);
});

test.each<[Partial<DonorWire>, string | null]>([
  [{ decision: 'shorten' }, 'expected the length after shortening'],
  [{ decision: 'extend', newLengthMm: 500 }, 'expected more than 500 mm after extending, got 500'],
  [{ decision: 'extend', newLengthMm: 501 }, null],
  [{ decision: 'shorten', lengthMm: null, newLengthMm: 10 }, null],
])('a length that contradicts the decision: %j', (rest, words) =>
  expect(ledger([rest]).problems.map((one) => one.words)).toEqual(words === null ? [] : [words]),
);

test('nothing decided yet: everything counts as kept', () => {
  expect(ledger([{ decision: null, functions: ['horn'] }])).toMatchObject({ counts: { undecided: 1 }, lost: [], joins: 0 });
  expect(ledger([])).toMatchObject({ recovered: [], bare: [] });
});
