/** @jest-environment jsdom */
import type { FloorEvent } from '../server/releases';
import { FloorStore } from './floorStore';

const PATH = '/api/jobs/job/releases/3/events';
let taken: FloorEvent[] = [];
let mode: 'well' | 'away' | 'refuses' = 'well';
const posts = jest.fn();

beforeEach(() => {
  taken = [];
  mode = 'well';
  posts.mockClear();
  localStorage.clear();
  jest.useFakeTimers();
  global.fetch = ((path: string, init?: { body?: string }) => {
    expect(path).toBe(PATH);
    if (mode === 'away') return Promise.reject(new TypeError('no network'));
    const answer = (status: number, body: unknown) =>
      Promise.resolve({ ok: status < 300, status, json: () => Promise.resolve(JSON.parse(JSON.stringify(body))) });
    if (mode === 'refuses') return answer(422, { problems: [{ path: '/events/0/stepId', message: 'expected a step of revision 3' }] });
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
  const store = new FloorStore('job', 3, []);
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
  const first = new FloorStore('job', 3, []);
  const end = first.begin();
  first.add(tick('1'));
  first.add(tick('2'));
  await pass(100);
  expect(first.get()).toMatchObject({ online: false });
  end();
  const again = new FloorStore('job', 3, []);
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
    if (isLost) {
      isLost = false;
      throw new TypeError('cut off');
    }
    return answer;
  }) as typeof fetch;
  const store = new FloorStore('job', 3, []);
  const stop = store.begin();
  store.add(tick('1'));
  await pass(2000);
  expect([posts.mock.calls.length, taken.length, store.get().waiting]).toEqual([2, 1, []]);
  stop();
});

test('what the server refuses is told in its words and not lost', async () => {
  mode = 'refuses';
  const store = new FloorStore('job', 3, []);
  store.add(tick('1'));
  await pass(10);
  expect(store.get().problem).toBe('/events/0/stepId: expected a step of revision 3');
  expect(store.get().waiting).toHaveLength(1);
});

test('what others tick arrives by itself; another revision has ticks of its own', async () => {
  const store = new FloorStore('job', 3, []);
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
  expect(new FloorStore('job', 4, []).get().waiting).toEqual([]);
  expect(new FloorStore('job', 3, []).get().waiting).toHaveLength(1);
});

test('a store that cannot be read begins empty', () => {
  localStorage.setItem('wattograph.floor.job.3', '{broken');
  expect(new FloorStore('job', 3, []).get().waiting).toEqual([]);
});
