import { Refusal } from './refusal';
import { EditRequest, toJobId, toRequest } from './requests';
import { readJson, readText, routeHandler } from './routeHandler';

const post = (body: BodyInit, headers: Record<string, string> = {}) => new Request('http://127.0.0.1/x', { method: 'POST', body, headers });
const call = (handler: () => Promise<Response>) => routeHandler(handler)(post(''), { params: Promise.resolve({}) });

test('a refusal becomes its status and problems', async () => {
  const response = await call(() => Promise.reject(Refusal.at(422, '/looms', 'expected a loom, got nothing')));
  expect(response.status).toBe(422);
  expect(await response.json()).toEqual({ problems: [{ path: '/looms', message: 'expected a loom, got nothing' }] });
});

test('an unexpected error gives nothing away', async () => {
  const response = await call(() => Promise.reject(new Error('password is hunter2')));
  expect(response.status).toBe(500);
  expect(await response.text()).not.toContain('hunter2');
});

test.each(['ECONNREFUSED', '57P01', '08006'])('a database that went away (%s) is a 503 to try again', async (code) => {
  expect((await call(() => Promise.reject(Object.assign(new Error('gone'), { code })))).status).toBe(503);
});

test('a body over 8 MB is refused, by its header or while it comes in', async () => {
  await expect(readText(post('x', { 'content-length': String(50 * 1024 * 1024) }))).rejects.toMatchObject({ status: 413 });
  await expect(readText(post(' '.repeat(9 * 1024 * 1024)))).rejects.toMatchObject({ status: 413 });
});

test('bytes that are no text and JSON that breaks off are refused with the place', async () => {
  await expect(readText(post(new Uint8Array([0xff, 0xfe, 0x00])))).rejects.toMatchObject({ status: 400 });
  await expect(readJson(post('{"a": [1, 2'))).rejects.toMatchObject({ status: 400, problems: [{ path: 'line 1, column 12' }] });
});

test('requests are held to their shape', () => {
  const good = {
    id: '5ee12000-0000-4000-8000-000000000012',
    base: 0,
    author: 'A',
    label: 'l',
    patch: [{ op: 'replace', path: '/name', value: 'x' }],
  };
  expect(toRequest(EditRequest, good)).toEqual(good);
  expect(() => toRequest(EditRequest, { ...good, base: -1 })).toThrow(/must be >= 0/);
  expect(() => toRequest(EditRequest, { ...good, id: 'x' })).toThrow(/must match format "uuid"/);
  expect(() => toRequest(EditRequest, { ...good, more: 1 })).toThrow(/additional properties/);
  expect(() => toRequest(EditRequest, { ...good, patch: [] })).toThrow(/fewer than 1/);
});

test.each(['', '1', "'; drop table jobs", '5ee12000-0000-4000-8000-00000000001'])('%j is no job', (id) => {
  expect(() => toJobId(id)).toThrow('There is no such job.');
});
