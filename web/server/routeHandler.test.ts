import { log } from './log';
import { Refusal } from './refusal';
import { EditRequest, toJobId, toRequest } from './requests';
import { openHandler, readJson, readText } from './routeHandler';

const post = (body: BodyInit, headers: Record<string, string> = {}) =>
  new Request('http://127.0.0.1/api/x', { method: 'POST', body, headers: { host: '127.0.0.1', ...headers } });
const JSON_TYPE = { 'content-type': 'application/json; charset=utf-8' };
const call = (handler: () => Promise<Response>) => openHandler(handler)(post('', JSON_TYPE), { params: Promise.resolve({}) });

test('a refusal becomes its status and problems', async () => {
  const response = await call(() => Promise.reject(Refusal.at(422, '/looms', 'expected a loom, got nothing')));
  expect(response.status).toBe(422);
  expect(await response.json()).toEqual({ problems: [{ path: '/looms', message: 'expected a loom, got nothing' }] });
});

test('what another page or another name sends comes to no route, and data runs nothing and is framed by nobody', async () => {
  const handler = jest.fn(() => Promise.resolve(Response.json({})));
  const ask = (headers: Record<string, string>) =>
    openHandler(handler)(post('', { ...JSON_TYPE, ...headers }), { params: Promise.resolve({}) });
  expect((await ask({ host: 'rebound.example' })).status).toBe(421);
  expect((await ask({ 'sec-fetch-site': 'cross-site' })).status).toBe(403);
  expect((await ask({ origin: 'https://elsewhere.example' })).status).toBe(403);
  expect((await ask({ 'content-type': 'text/plain' })).status).toBe(415);
  expect(handler).not.toHaveBeenCalled();
  const answered = await ask(JSON_TYPE);
  expect(answered.status).toBe(200);
  expect(answered.headers.get('content-security-policy')).toMatch(/^default-src 'none';.*frame-ancestors 'none'$/);
  expect(handler).toHaveBeenCalledTimes(1);
});

test('an unexpected error gives nothing away', async () => {
  const response = await call(() => Promise.reject(new Error('password is hunter2')));
  expect(response.status).toBe(500);
  expect(await response.text()).not.toContain('hunter2');
});

test.each(['ECONNREFUSED', 'EPIPE', '57P01', '57P03', '57014', '08006', '08P01', '53100', '53300', '55P03', '40P01'])(
  'a database that went away (%s) is a 503 to try again',
  async (code) => {
    expect((await call(() => Promise.reject(Object.assign(new Error('gone'), { code })))).status).toBe(503);
  },
);

test('what a library wrapped round a failure of the database changes nothing, and is not logged: it may hold a secret', async () => {
  const told = jest.spyOn(log, 'error').mockImplementation(() => {});
  const lost = Object.assign(new Error('terminating connection'), { code: '57P01' });
  const asked = new Error('Failed query, params: the token of a session', { cause: lost });
  expect((await call(() => Promise.reject(new Error('Failed to get session', { cause: asked })))).status).toBe(503);
  expect(JSON.stringify(told.mock.calls)).toContain('terminating connection');
  expect(JSON.stringify(told.mock.calls)).not.toContain('the token');
  told.mockRestore();
});

test('a body over 8 MB is refused, by its header or while it comes in', async () => {
  await expect(readText(post('x', { 'content-length': String(50 * 1024 * 1024) }))).rejects.toMatchObject({ status: 413 });
  await expect(readText(post(' '.repeat(9 * 1024 * 1024)))).rejects.toMatchObject({ status: 413 });
});

test('bytes that are no text and JSON that breaks off are refused with the place', async () => {
  await expect(readText(post(new Uint8Array([0xff, 0xfe, 0x00])))).rejects.toMatchObject({ status: 400 });
  await expect(readJson(post('{"a": [1, 2', JSON_TYPE))).rejects.toMatchObject({ status: 400, problems: [{ path: 'line 1, column 12' }] });
});

test.each([{}, { 'content-type': 'text/plain' }, { 'content-type': 'application/json-patch' }])(
  'JSON that says it is %j is refused',
  async (type) => {
    await expect(readJson(post('{}', type as Record<string, string>))).rejects.toMatchObject({ status: 415 });
  },
);

test.each(['22P05', '22021', '22003'])('a value that the database cannot hold (%s) is the fault of who sent it', async (code) => {
  expect((await call(() => Promise.reject(Object.assign(new Error('no'), { code })))).status).toBe(400);
});

test('what a route says is for who asked, now; a picture may be kept where its route says so', async () => {
  const say = async (headers: HeadersInit) =>
    (await call(() => Promise.resolve(new Response('x', { headers })))).headers.get('cache-control');
  expect([await say({}), await say({ 'cache-control': 'private' })]).toEqual(['no-store', 'private']);
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
  expect(() => toRequest(EditRequest, { ...good, patch: [{ op: 'copy', from: '/looms', path: '/notes' }] })).toThrow();
});

test.each(['', '1', "'; drop table jobs", '5ee12000-0000-4000-8000-00000000001'])('%j is no job', (id) => {
  expect(() => toJobId(id)).toThrow('There is no such job.');
});
