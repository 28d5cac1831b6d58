/** @jest-environment jsdom */
import type { CarriedWork } from 'wattograph-core';
import type { FloorEvent } from '../server/releases';
import { NOTHING_CARRIED } from './floorProgress';
import { FloorStore } from './floorStore';

const open = (release = 3) => new FloorStore('job', release, 'inlet', [], NOTHING_CARRIED);

const PATH = '/api/jobs/job/releases/3/events';
let taken: FloorEvent[] = [];
let mode: 'well' | 'away' | 'refuses' = 'well';
const posts = jest.fn();
let asked: string[] = [];
let status = 200;
let carried: CarriedWork = NOTHING_CARRIED;

beforeEach(() => {
  taken = [];
  mode = 'well';
  posts.mockClear();
  asked = [];
  status = 200;
  carried = NOTHING_CARRIED;
  localStorage.clear();
  jest.useFakeTimers();
  global.fetch = ((path: string, init?: { body?: string }) => {
    asked.push(path);
    if (mode === 'away') return Promise.reject(new TypeError('no network'));
    const answer = (status: number, body: unknown) =>
      Promise.resolve({ ok: status < 300, status, json: () => Promise.resolve(JSON.parse(JSON.stringify(body))) });
    if (mode === 'refuses') return answer(422, { problems: [{ path: '/events/0/stepId', message: 'expected a step of revision 3' }] });
    if (status !== 200) return answer(status, null);
    if (path.includes('/carried')) return answer(200, carried);
    if (path !== PATH) expect(path).toBe('/api/jobs/job/releases/2/events');
    if (init?.body) {
      const { events } = JSON.parse(init.body) as { events: FloorEvent[] };
      posts(events.map(({ itemId }) => itemId));
      taken.push(...events.filter(({ id }) => !taken.some((one) => one.id === id)));
      return answer(200, {});
    }
    return answer(200, taken);
  }) as unknown as typeof fetch;
});
afterEach(() => jest.useRealTimers());

const tick = (itemId: string): Omit<FloorEvent, 'id' | 'happenedAt'> => ({
  loomId: 'inlet',
  stepId: 'crimp',
  itemId,
  kind: 'tick',
  words: '',
  author: 'Tobin Ashgrove',
});
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);

test('a tick is kept on the tablet until the server has it, then it counts as stored', async () => {
  const store = open();
  store.add(tick('1'));
  expect(store.get().waiting.map(({ itemId }) => itemId)).toEqual(['1']);
  expect(localStorage.getItem('wattograph.floor.job.3')).toContain('"itemId":"1"');
  await pass(10);
  expect(store.get()).toMatchObject({ waiting: [], online: true, problem: null });
  expect(store.get().events.map(({ itemId }) => itemId)).toEqual(['1']);
  expect(localStorage.getItem('wattograph.floor.job.3')).toBeNull();
});

test('with the server away ticks wait, outlive the page, and go once when it is back', async () => {
  mode = 'away';
  const first = open();
  const end = first.begin();
  first.add(tick('1'));
  first.add(tick('2'));
  await pass(100);
  expect(first.get()).toMatchObject({ online: false });
  end();
  const again = open();
  expect(again.get().waiting.map(({ itemId }) => itemId)).toEqual(['1', '2']);
  const stop = again.begin();
  await pass(100);
  mode = 'well';
  await pass(2000);
  expect([posts.mock.calls, again.get().waiting, again.get().online]).toEqual([[[['1', '2']]], [], true]);
  stop();
});

test('an answer lost on its way: the ticks are sent again with the same ids, and count once', async () => {
  const real = global.fetch;
  let isLost = true;
  global.fetch = (async (...args: Parameters<typeof fetch>) => {
    const answer = await real(...args);
    if (isLost && args[1]?.body) {
      isLost = false;
      throw new TypeError('cut off');
    }
    return answer;
  }) as typeof fetch;
  const store = open();
  const stop = store.begin();
  store.add(tick('1'));
  await pass(2000);
  expect([posts.mock.calls.length, taken.length, store.get().waiting]).toEqual([2, 1, []]);
  stop();
});

test('what the server refuses is told in its words and not lost', async () => {
  mode = 'refuses';
  const store = open();
  store.add(tick('1'));
  await pass(10);
  expect(store.get().problem).toBe('/events/0/stepId: expected a step of revision 3');
  expect(store.get().waiting).toHaveLength(1);
});

test('what others tick arrives by itself; another revision has ticks of its own', async () => {
  const store = open();
  const stop = store.begin();
  taken = [{ ...tick('9'), id: 'theirs', happenedAt: '2026-11-24T08:00:00Z', author: 'Saoirse Vell' }];
  await pass(5100);
  expect(store.get().events.map(({ author }) => author)).toEqual(['Saoirse Vell']);
  mode = 'away';
  await pass(5100);
  expect(store.get().online).toBe(false);
  stop();
  store.add(tick('1'));
  await pass(10);
  expect(open(4).get().waiting).toEqual([]);
  expect(open().get().waiting).toHaveLength(1);
});

test('a store that cannot be read begins empty', () => {
  localStorage.setItem('wattograph.floor.job.3', '{broken');
  expect(open().get().waiting).toEqual([]);
});

test('ticks of the revision before that wait on this tablet go where they belong, then what they come to is asked for', async () => {
  mode = 'away';
  open(2).add(tick('7'));
  await pass(10);
  mode = 'well';
  carried = { ...NOTHING_CARRIED, carried: [{ stepId: 'crimp', itemId: '7', revision: 2 }] };
  asked = [];
  const store = open();
  const stop = store.begin();
  await pass(50);
  stop();
  expect(asked).toEqual(['/api/jobs/job/releases/2/events', '/api/jobs/job/releases/3/carried?loom=inlet']);
  expect(posts.mock.calls).toEqual([[['7']]]);
  expect(store.get().carried.carried).toEqual([{ stepId: 'crimp', itemId: '7', revision: 2 }]);
  expect(localStorage.getItem('wattograph.floor.job.2')).toBeNull();
});

test('with the server away ticks of the revision before stay where they are', async () => {
  mode = 'away';
  open(2).add(tick('7'));
  const stop = open().begin();
  await pass(3000);
  stop();
  expect(
    open(2)
      .get()
      .waiting.map(({ itemId }) => itemId),
  ).toEqual(['7']);
});

test('two tabs of one tablet: neither drops what the other has not sent', async () => {
  mode = 'away';
  const [one, other] = [open(), open()];
  one.add(tick('1'));
  other.add(tick('2'));
  await pass(10);
  expect(
    open()
      .get()
      .waiting.map(({ itemId }) => itemId),
  ).toEqual(['1', '2']);
  mode = 'well';
  await pass(3000);
  expect(taken.map(({ itemId }) => itemId).sort()).toEqual(['1', '2']);
  expect(localStorage.getItem('wattograph.floor.job.3')).toBeNull();
});

test.each([400, 404, 408, 413, 422, 429, 500, 502, 503, 504])(
  'after the answer %d the tick is still here, and goes when the server takes it',
  async (code) => {
    status = code;
    const store = open();
    store.add(tick('1'));
    await pass(1000);
    expect(open().get().waiting).toHaveLength(1);
    status = 200;
    await pass(2000);
    expect([taken.map(({ itemId }) => itemId), store.get().waiting, store.get().problem, store.get().online]).toEqual([
      ['1'],
      [],
      null,
      true,
    ]);
  },
);

test('a tablet without room says so, and the tick is sent all the same', async () => {
  const full = jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  mode = 'away';
  const store = open();
  store.add(tick('1'));
  expect(store.get().problem).toContain('This tablet is full');
  mode = 'well';
  await pass(2000);
  full.mockRestore();
  expect([taken.length, store.get().waiting, store.get().problem]).toEqual([1, [], null]);
});
