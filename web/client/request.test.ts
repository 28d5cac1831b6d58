/** @jest-environment ./web/testing/environment/screen.cjs */
import { DEAD_LINE_MS, request, requestFile, requestStore, RequestError, type Progress } from './request';

interface Answer {
  status: number;
  body?: unknown;
  name?: string;
}

let answers: Answer[] = [];
const asked: { path: string; method: string; prefer: string | undefined }[] = [];

beforeEach(() => {
  asked.length = 0;
  global.fetch = ((path: string, init: { method?: string; headers?: Record<string, string>; signal?: AbortSignal } = {}) => {
    asked.push({ path, method: init.method ?? 'GET', prefer: init.headers?.prefer });
    if (init.signal?.aborted) return Promise.reject(new DOMException('aborted', 'AbortError'));
    const { status, body = null, name } = answers.shift() ?? { status: 200, body: {} };
    return Promise.resolve({
      ...{ ok: status < 300, status, json: () => Promise.resolve(body), blob: () => Promise.resolve(body) },
      headers: { get: (key: string) => (key === 'content-disposition' && name ? `attachment; filename="${name}"` : null) },
    });
  }) as unknown as typeof fetch;
});

test('what a worker is at is waited for, with how far it is', async () => {
  answers = [
    { status: 202, body: { task: 't1', done: 0, of: 0 } },
    { status: 202, body: { task: 't1', done: 2, of: 4 } },
    { status: 201, body: { number: 3 } },
  ];
  const told: Progress[] = [];
  expect(await request('/api/jobs/a/releases', { note: '' }, { onProgress: (progress) => told.push(progress) })).toEqual({ number: 3 });
  expect(told).toEqual([
    { done: 0, of: 0 },
    { done: 2, of: 4 },
  ]);
  expect(asked).toEqual([
    { path: '/api/jobs/a/releases', method: 'POST', prefer: 'wait=1' },
    { path: '/api/tasks/t1', method: 'GET', prefer: 'wait=1' },
    { path: '/api/tasks/t1', method: 'GET', prefer: 'wait=1' },
  ]);
});

test('what a worker refuses is told with its places', async () => {
  answers = [
    { status: 202, body: { task: 't1', done: 0, of: 0 } },
    { status: 422, body: { problems: [{ path: 'CI4', message: 'a stop' }] } },
  ];
  const refused = await request('/api/jobs/a/releases', {}).catch((error: RequestError) => error);
  expect(refused).toMatchObject({ status: 422, message: 'CI4: a stop' });
});

test('who gives up takes the task back', async () => {
  const left = new AbortController();
  answers = [{ status: 202, body: { task: 't1', done: 0, of: 0 } }];
  const asking = request('/api/shop/preview', {}, { signal: left.signal, onProgress: () => left.abort() });
  await expect(asking).rejects.toBeInstanceOf(RequestError);
  expect(asked.at(-1)).toMatchObject({ path: '/api/tasks/t1', method: 'DELETE' });
});

test('a file has the name that the server gives it', async () => {
  answers = [{ status: 200, body: 'bytes', name: 'skerry-inlet.pdf' }];
  expect(await requestFile('/api/jobs/a/sheets?format=pdf')).toEqual({ blob: 'bytes', name: 'skerry-inlet.pdf' });
});

test.each([500, 502, 504, 413])('status %d without an answer that can be read: said with its number', async (status) => {
  answers = [{ status }];
  await expect(request('/api/jobs/a')).rejects.toMatchObject({ status, message: `The server answered ${status}.` });
});

test('a line that has gone dead without saying so is given up, so that what waits is sent again; a photo has longer', async () => {
  jest.useFakeTimers();
  global.fetch = ((_: string, { signal }: { signal?: AbortSignal }) =>
    new Promise((_resolve, reject) => signal?.addEventListener('abort', () => reject(new DOMException('aborted', 'AbortError'))))) as never;
  const told: string[] = [];
  const tell = (name: string) => (error: RequestError) => told.push(`${name} ${error.status} ${error.isPassing}`);
  request('/api/jobs/a/edits', {}, { withinMs: DEAD_LINE_MS }).catch(tell('tick'));
  requestStore('/api/jobs/a/photos', new Blob(['x'.repeat(80_000)])).catch(tell('photo'));
  await jest.advanceTimersByTimeAsync(DEAD_LINE_MS - 1);
  expect(told).toEqual([]);
  await jest.advanceTimersByTimeAsync(1);
  expect(told).toEqual(['tick 0 true']);
  await jest.advanceTimersByTimeAsync(9999);
  expect(told).toEqual(['tick 0 true']);
  await jest.advanceTimersByTimeAsync(1);
  expect(told).toEqual(['tick 0 true', 'photo 0 true']);
  jest.useRealTimers();
});

test('an answer that is cut off on its way is none: what it did is not known, and is asked for again', async () => {
  const cut = (): Promise<never> => Promise.reject(new TypeError('network error'));
  const fetched = global.fetch;
  global.fetch = (() =>
    Promise.resolve({ ok: true, status: 200, json: cut, blob: cut, headers: { get: () => null } })) as unknown as typeof fetch;
  const asks = [
    () => request('/api/jobs/a/releases/1/carried'),
    () => requestStore('/api/photos', new Blob(['x'])),
    () => requestFile('/api/jobs/a/pdf'),
  ];
  for (const ask of asks) {
    const error = await ask().catch((reason: RequestError) => reason);
    expect(error).toBeInstanceOf(RequestError);
    expect(error).toMatchObject({ status: 0, isPassing: true });
  }
  // what no answer can be read of a refusal is still a refusal
  global.fetch = (() => Promise.resolve({ ok: false, status: 409, json: cut })) as unknown as typeof fetch;
  expect(await request('/api/jobs/a/edits', {}).catch((reason: RequestError) => reason)).toMatchObject({ status: 409, isPassing: false });
  global.fetch = fetched;
});
