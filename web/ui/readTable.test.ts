/** @jest-environment jsdom */
import { readTable } from './readTable';

const file = (name: string, text: string, size = text.length) => ({ name, size, text: () => Promise.resolve(text) }) as unknown as File;
const server = (answer: () => Promise<unknown>) => {
  const asked = jest.fn(answer);
  global.fetch = asked as unknown as typeof fetch;
  return asked;
};

test('CSV is read here, without the server', async () => {
  const asked = server(() => Promise.reject(new Error('not asked')));
  await expect(readTable(file('loom.csv', 'from;pin\r\nplug;1\r\n'))).resolves.toMatchObject({
    ok: true,
    value: { columns: ['from', 'pin'], delimiter: ';' },
  });
  expect(asked).not.toHaveBeenCalled();
});

test('a spreadsheet is read by the server; what it finds wrong comes back with its place', async () => {
  const table = { columns: ['a'], rows: [], delimiter: ',' };
  const asked = server(() => Promise.resolve({ ok: true, json: () => Promise.resolve(table) }));
  await expect(readTable(file('Loom.XLSX', 'x'))).resolves.toEqual({ ok: true, value: table });
  expect(asked).toHaveBeenCalledWith('/api/tables', expect.objectContaining({ method: 'POST' }));
  const problems = [{ path: 'row 4', message: 'expected 6 cells, got 5' }];
  server(() => Promise.resolve({ ok: false, status: 422, json: () => Promise.resolve({ problems }) }));
  await expect(readTable(file('loom.xlsx', 'x'))).resolves.toEqual({ ok: false, problems });
});

test.each([
  [
    'a server that is away',
    () => Promise.reject(new TypeError('no network')),
    'The server does not answer; a spreadsheet is read there. Try again, or use CSV.',
  ],
  [
    'a server that says no without a reason',
    () => Promise.resolve({ ok: false, status: 500, json: () => Promise.resolve({}) }),
    'the server answered 500',
  ],
])('%s is said', async (_, answer, message) => {
  server(answer as () => Promise<unknown>);
  await expect(readTable(file('loom.xlsx', 'x'))).resolves.toEqual({ ok: false, problems: [{ path: '', message }] });
});

test('a file that is too large is not read at all', async () => {
  const large = file('loom.csv', '', 9 * 1024 * 1024);
  large.text = () => Promise.reject(new Error('read'));
  await expect(readTable(large)).resolves.toEqual({ ok: false, problems: [{ path: '', message: 'expected at most 8 MB, got 9 MB' }] });
});
