/** @jest-environment ./web/testing/environment/screen.cjs */
import type { SpreadsheetAnswer, SpreadsheetQuestion } from '../../workers/spreadsheet.worker';
import { writeSpreadsheet } from '../../client/spreadsheet';
import { readTable } from './readTable';

const file = (name: string, text: string, size = text.length) =>
  ({
    name,
    size,
    text: () => Promise.resolve(text),
    arrayBuffer: () => Promise.resolve(Uint8Array.from(text, (letter) => letter.charCodeAt(0)).buffer),
  }) as unknown as File;

jest.mock('../../client/spreadsheetWorker', () => ({ createSpreadsheetWorker: () => new FakeWorker() }));

let asked: SpreadsheetQuestion[] = [];
let ended = 0;
let answer: (worker: FakeWorker) => void;
class FakeWorker {
  onmessage: ((event: { data: SpreadsheetAnswer }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;
  postMessage(question: SpreadsheetQuestion) {
    asked.push(question);
    setTimeout(() => answer(this));
  }
  terminate() {
    ended += 1;
  }
}
const say = (data: SpreadsheetAnswer) => (answer = (worker) => worker.onmessage!({ data }));

beforeEach(() => {
  asked = [];
  ended = 0;
});

test('CSV is read without a worker', async () => {
  await expect(readTable(file('loom.csv', 'from;pin\r\nplug;1\r\n'))).resolves.toMatchObject({
    ok: true,
    value: { columns: ['from', 'pin'], delimiter: ';' },
  });
  expect(asked).toEqual([]);
});

test('a spreadsheet is read in a worker of its own, which then ends; what is wrong comes back with its place', async () => {
  const table = { columns: ['a'], rows: [], delimiter: 'xlsx' };
  say({ ok: true, table });
  await expect(readTable(file('Loom.XLSX', 'x'))).resolves.toEqual({ ok: true, value: table });
  expect([asked[0], ended]).toEqual([{ kind: 'read', bytes: new Uint8Array([120]) }, 1]);
  const problems = [{ path: 'row 4', message: 'expected 6 cells, got 5' }];
  say({ ok: false, problems });
  await expect(readTable(file('loom.xlsx', 'x'))).resolves.toEqual({ ok: false, problems });
});

test('a table is made a spreadsheet in the same way', async () => {
  say({ ok: true, bytes: new Uint8Array([1]) });
  await expect(writeSpreadsheet('seals', ['id'], [['a']])).resolves.toEqual({ ok: true, value: new Uint8Array([1]) });
  expect(asked).toEqual([{ kind: 'write', name: 'seals', columns: ['id'], rows: [['a']] }]);
});

test('a worker that stops is said, and one that never ends is stopped', async () => {
  answer = (worker) => worker.onerror!({ message: 'out of memory' });
  await expect(readTable(file('loom.xlsx', 'x'))).resolves.toMatchObject({
    problems: [{ message: 'the spreadsheet could not be worked on: out of memory' }],
  });
  jest.useFakeTimers();
  answer = () => undefined;
  const read = readTable(file('loom.xlsx', 'x'));
  await jest.advanceTimersByTimeAsync(31_000);
  await expect(read).resolves.toMatchObject({
    problems: [{ message: 'expected a spreadsheet that is worked through in 30 s, got one that is not' }],
  });
  expect(ended).toBe(2);
  jest.useRealTimers();
});

test('a file that is too large is not read at all', async () => {
  const large = file('loom.csv', '', 9 * 1024 * 1024);
  large.text = () => Promise.reject(new Error('read'));
  await expect(readTable(large)).resolves.toEqual({ ok: false, problems: [{ path: '', message: 'expected at most 8 MB, got 9 MB' }] });
});
