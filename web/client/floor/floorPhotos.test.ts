/** @jest-environment ./web/testing/environment/screen.cjs */
import 'fake-indexeddb/auto';
import { NOTHING_CARRIED } from 'wattograph-core';
import type { FloorEvent } from '../../server/floorEvent';
import { say } from '../../testing/say';
import { outboxDatabase } from '../outbox/outboxDatabase';
import { FloorStore, type Happened } from './floorStore';

global.structuredClone ??= ((value: unknown) => JSON.parse(JSON.stringify(value)) as unknown) as typeof structuredClone;

const PROBLEM: Happened = { loomId: 'inlet', stepId: 'crimp', itemId: 'step', kind: 'problem', words: '', author: 'Tobin Ashgrove' };
let mode: 'well' | 'away' = 'well';
let status = 200;
let taken: FloorEvent[] = [];
let shown: URLSearchParams[] = [];
const ends: (() => void)[] = [];
const open = () => {
  const store = new FloorStore('job', 3, 'inlet', [], NOTHING_CARRIED);
  ends.push(store.begin());
  return store;
};
const until = async (isSo: () => boolean | Promise<boolean>) => {
  for (let tries = 0; tries < 400 && !(await isSo()); tries += 1) await new Promise((resolve) => setTimeout(resolve, 20));
  expect(await isSo()).toBe(true);
};

beforeEach(async () => {
  [mode, status, taken, shown] = ['well', 200, [], []];
  await outboxDatabase.rows.clear();
  global.fetch = ((path: string, init?: { body?: string }) => {
    if (mode === 'away') return Promise.reject(new TypeError('no network'));
    const answer = (code: number, body: unknown) =>
      Promise.resolve({ ok: code < 300, status: code, json: () => Promise.resolve(JSON.parse(JSON.stringify(body))) });
    if (path.includes('/carried')) return answer(200, NOTHING_CARRIED);
    if (status !== 200) return answer(status, { problems: [{ path: '/events/0/stepId', message: 'expected a step of revision 3' }] });
    if (path.includes('/photos?')) {
      shown.push(new URLSearchParams(path.split('?')[1]));
      return answer(201, {});
    }
    if (!init?.body) return answer(200, []);
    taken.push(...(JSON.parse(init.body) as { events: FloorEvent[] }).events);
    return answer(200, {});
  }) as unknown as typeof fetch;
});
afterEach(() => ends.splice(0).forEach((end) => end()));

test('a problem with a photo: both wait on the tablet, go when the server is there, and are found by one id', async () => {
  mode = 'away';
  const store = open();
  await until(() => store.get().isOpen);
  const problem = { ...PROBLEM, words: 'sleeve too tight' };
  store.addWithPhoto(problem, { blob: new Blob(['x']), node: 'bk1', caption: 'Problem: sleeve too tight' });
  store.addWithPhoto({ ...problem, words: 'no reel left' }, null);
  await until(async () => (await outboxDatabase.rows.count()) === 3);
  expect([store.get().waiting.map(({ itemId }) => itemId), store.get().waitingPhotos.map(({ id }) => id)]).toEqual([
    ['step', 'step'],
    [store.get().waiting[0]!.id],
  ]);
  mode = 'well';
  say({ topic: 'again' });
  await until(() => store.get().waiting.length === 0 && store.get().waitingPhotos.length === 0);
  expect(await outboxDatabase.rows.count()).toBe(0);
  expect(taken.map(({ words }) => words)).toEqual(['sleeve too tight', 'no reel left']);
  expect(shown.map((about) => Object.fromEntries(about))).toEqual([
    expect.objectContaining({
      id: taken[0]!.id,
      loom: 'inlet',
      node: 'bk1',
      caption: 'Problem: sleeve too tight',
      author: 'Tobin Ashgrove',
    }),
  ]);
  expect(shown[0]!.has('blob') || shown[0]!.has('by')).toBe(false);
});

test('a photo that the server does not take stays on the tablet with its reason; sent again it goes, let go it is gone', async () => {
  const store = open();
  await until(() => store.get().isOpen);
  status = 422;
  store.addWithPhoto({ ...PROBLEM, words: 'bent pin' }, { blob: new Blob(['x']), node: 'bk1', caption: 'Problem: bent pin' });
  await until(() => store.get().refusedPhotos.length === 1 && store.get().refused.length === 1);
  const { id, reason } = store.get().refusedPhotos[0]!;
  expect(reason).toContain('expected a step of revision 3');
  status = 200;
  store.retry(id);
  await until(() => shown.length === 1 && store.get().refusedPhotos.length === 0);
  // the words are another matter: they are let go
  expect(taken).toEqual([]);
  store.letGo(store.get().refused[0]!.id);
  await until(async () => (await outboxDatabase.rows.count()) === 0);
});
