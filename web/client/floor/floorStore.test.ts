/** @jest-environment ./web/testing/environment/screen.cjs */
import 'fake-indexeddb/auto';
import { NOTHING_CARRIED, type CarriedWork } from 'wattograph-core';
import type { FloorEvent } from '../../server/floorEvent';
import { say } from '../../testing/say';
import { FloorStore } from './floorStore';
import { outboxDatabase } from '../outbox/outboxDatabase';

globalThis.structuredClone ??= ((value: unknown) => JSON.parse(JSON.stringify(value)) as unknown) as typeof structuredClone;

const ends: (() => void)[] = [];
/** A tablet with the card of a revision open. */
const open = (release = 3) => {
  const store = new FloorStore('job', release, 'inlet', [], NOTHING_CARRIED);
  const end = store.begin();
  ends.push(end);
  return { store, end };
};

const PATH = '/api/jobs/job/releases/3/events';
let taken: FloorEvent[] = [];
let mode: 'well' | 'away' | 'cut' = 'well';
const posts = jest.fn();
let asked: string[] = [];
let status = 200;
let carried: CarriedWork = NOTHING_CARRIED;

beforeEach(async () => {
  taken = [];
  mode = 'well';
  posts.mockClear();
  asked = [];
  status = 200;
  carried = NOTHING_CARRIED;
  await outboxDatabase.rows.clear();
  global.fetch = ((path: string, init?: { body?: string }) => {
    asked.push(path);
    if (mode === 'away') return Promise.reject(new TypeError('no network'));
    const answer = (code: number, body: unknown) =>
      Promise.resolve({
        ok: code < 300,
        status: code,
        json: () => (mode === 'cut' ? Promise.reject(new TypeError('network error')) : Promise.resolve(JSON.parse(JSON.stringify(body)))),
      });
    if (status !== 200) return answer(status, { problems: [{ path: '/events/0/stepId', message: 'expected a step of revision 3' }] });
    if (path.includes('/carried')) return answer(200, carried);
    const [place, after] = path.split('?after=');
    if (place !== PATH) expect(place).toBe('/api/jobs/job/releases/2/events');
    if (init?.body) {
      const { events } = JSON.parse(init.body) as { events: FloorEvent[] };
      posts(events.map(({ itemId }) => itemId));
      for (const event of events) if (!taken.some(({ id }) => id === event.id)) taken.push({ ...event, serial: taken.length + 1 });
      return answer(200, {});
    }
    return answer(
      200,
      taken.filter(({ serial }) => serial! > Number(after ?? 0)),
    );
  }) as unknown as typeof fetch;
});
afterEach(() => ends.splice(0).forEach((end) => end()));

const tick = (itemId: string): Omit<FloorEvent, 'id' | 'happenedAt'> => ({
  loomId: 'inlet',
  stepId: 'crimp',
  itemId,
  kind: 'tick',
  words: '',
  author: 'Tobin Ashgrove',
});
const until = async (isSo: () => boolean | Promise<boolean>) => {
  for (let tries = 0; tries < 400 && !(await isSo()); tries += 1) await new Promise((resolve) => setTimeout(resolve, 20));
  expect(await isSo()).toBe(true);
};
const itemsOf = (events: readonly FloorEvent[]) => events.map(({ itemId }) => itemId);
const keptOnDevice = () => outboxDatabase.rows.count();

test('a tick shows at once, is kept on the tablet until the server has it, then it counts as stored', async () => {
  const { store } = open();
  status = 503;
  store.add(tick('1'));
  expect(itemsOf(store.get().waiting)).toEqual(['1']);
  await until(async () => (await keptOnDevice()) === 1);
  status = 200;
  await until(() => store.get().waiting.length === 0);
  expect([itemsOf(store.get().events), store.get().online]).toEqual([['1'], true]);
  await until(async () => (await keptOnDevice()) === 0);
});

test('with the server away ticks wait, outlive the page, and go once when it is back', async () => {
  mode = 'away';
  const first = open();
  first.store.add(tick('1'));
  first.store.add(tick('2'));
  await until(async () => !first.store.get().online && (await keptOnDevice()) === 2);
  first.end();
  const again = open();
  await until(() => again.store.get().isOpen);
  expect(itemsOf(again.store.get().waiting)).toEqual(['1', '2']);
  mode = 'well';
  await until(() => again.store.get().waiting.length === 0);
  expect([posts.mock.calls, again.store.get().online]).toEqual([[[['1', '2']]], true]);
});

test('what the server refuses is told in its words and kept; sent again it is stored, let go it is gone', async () => {
  status = 422;
  const { store } = open();
  store.add(tick('1'));
  store.add(tick('2'));
  await until(() => store.get().refused.length === 2);
  expect(store.get().refused.map(({ body, reason }) => [body.itemId, reason])).toEqual([
    ['1', '/events/0/stepId: expected a step of revision 3'],
    ['2', '/events/0/stepId: expected a step of revision 3'],
  ]);
  status = 200;
  const [one, other] = store.get().refused;
  store.retry(one!.id);
  await until(() => store.get().events.length === 1);
  store.letGo(other!.id);
  await until(async () => (await keptOnDevice()) === 0);
  expect([itemsOf(taken), store.get().refused]).toEqual([['1'], []]);
});

test('what others tick arrives when the server tells; another revision has ticks of its own', async () => {
  const { store, end } = open();
  await until(() => store.get().isOpen);
  taken = [{ ...tick('9'), id: 'theirs', serial: 1, happenedAt: '2026-11-24T08:00:00Z', author: 'Saoirse Vell' }];
  say({ topic: 'floor', id: 'other', number: 3 });
  await new Promise((resolve) => setTimeout(resolve, 40));
  expect(store.get().events).toEqual([]);
  say({ topic: 'floor', id: 'job', number: 3 });
  await until(() => store.get().events.length === 1);
  expect(store.get().events.map(({ author }) => author)).toEqual(['Saoirse Vell']);
  mode = 'away';
  say({ topic: 'away' });
  expect(store.get().online).toBe(false);
  store.add(tick('1'));
  await until(async () => (await keptOnDevice()) === 1);
  end();
  const [fourth, third] = [open(4), open()];
  await until(() => fourth.store.get().isOpen && third.store.get().isOpen);
  expect([fourth.store.get().waiting.length, third.store.get().waiting.length]).toEqual([0, 1]);
});

test('a tablet asks for what it has not heard of, and says with each tick what it knew', async () => {
  const { store } = open();
  await until(() => store.get().isOpen);
  store.add(tick('1'));
  await until(() => store.get().events.length === 1);
  taken.push({ ...tick('2'), id: 'theirs', serial: 2, happenedAt: '2026-11-24T08:00:00Z' });
  say({ topic: 'floor', id: 'job', number: 3 });
  await until(() => store.get().events.length === 2);
  say({ topic: 'floor', id: 'job', number: 3 });
  await until(() => asked.at(-1) === `${PATH}?after=2`);
  expect(store.get().events.map(({ itemId, serial }) => [itemId, serial])).toEqual([
    ['1', 1],
    ['2', 2],
  ]);
  store.add(tick('3'));
  await until(() => taken.length === 3);
  expect(taken.map(({ after }) => after)).toEqual([0, undefined, 2]);
  expect(taken[2]!.device).toBe(taken[0]!.device);
});

test('ticks of the revision before that wait on this tablet go where they belong, then what they come to is asked for', async () => {
  mode = 'away';
  const before = open(2);
  before.store.add(tick('7'));
  await until(async () => (await keptOnDevice()) === 1);
  before.end();
  mode = 'well';
  carried = { ...NOTHING_CARRIED, carried: [{ stepId: 'crimp', itemId: '7', revision: 2 }] };
  asked = [];
  const { store } = open();
  await until(() => store.get().carried.carried.length === 1);
  // the card of revision 2 asked for something before it was closed
  const now = asked.filter((path) => !path.includes('/2/carried'));
  expect(now).toEqual(['/api/jobs/job/releases/2/events', '/api/jobs/job/releases/3/carried?loom=inlet']);
  expect(posts.mock.calls).toEqual([[['7']]]);
  expect(await keptOnDevice()).toBe(0);
});

test('a stream that comes back: what was missed is asked for, and ticks sent elsewhere for the revision before count here', async () => {
  const { store } = open();
  await until(() => store.get().isOpen);
  taken = [{ ...tick('9'), id: 'theirs', serial: 1, happenedAt: '2026-11-24T08:00:00Z' }];
  say({ topic: 'away' });
  say({ topic: 'again' });
  await until(() => store.get().events.length === 1 && store.get().online);
  carried = { ...NOTHING_CARRIED, carried: [{ stepId: 'crimp', itemId: '7', revision: 2 }] };
  say({ topic: 'floor', id: 'job', number: 2 });
  await until(() => store.get().carried.carried.length === 1);
});

test('with the server away ticks of the revision before stay where they are', async () => {
  mode = 'away';
  const before = open(2);
  before.store.add(tick('7'));
  await until(async () => (await keptOnDevice()) === 1);
  before.end();
  const { store } = open();
  await until(() => store.get().isOpen);
  await new Promise((resolve) => setTimeout(resolve, 400));
  expect(await keptOnDevice()).toBe(1);
});

test('an answer that is cut off as the server ends leaves what is known as it was; a tick that it took is sent again and is there once', async () => {
  carried = { ...NOTHING_CARRIED, carried: [{ stepId: 'cut', itemId: 'N-1', revision: 2 }] };
  const { store } = open();
  await until(() => store.get().carried.carried.length === 1);
  mode = 'cut';
  say({ topic: 'again' });
  store.add(tick('2'));
  await until(() => taken.length === 1 && asked.filter((path) => path.includes('/carried')).length >= 2);
  expect(store.get()).toMatchObject({ online: false, carried });
  expect(itemsOf(store.get().waiting)).toEqual(['2']);
  mode = 'well';
  say({ topic: 'again' });
  await until(() => store.get().waiting.length === 0);
  expect([itemsOf(taken), itemsOf(store.get().events)]).toEqual([['2'], ['2']]);
});

test('two tabs of one tablet: neither drops what the other has not sent', async () => {
  mode = 'away';
  const [one, other] = [open().store, open().store];
  one.add(tick('1'));
  other.add(tick('2'));
  await until(() => one.get().waiting.length === 2 && other.get().waiting.length === 2);
  mode = 'well';
  await until(() => one.get().waiting.length === 0 && other.get().waiting.length === 0);
  expect(itemsOf(taken).sort()).toEqual(['1', '2']);
  await until(() => itemsOf(one.get().events).length === 2 && itemsOf(other.get().events).length === 2);
});
