/** @jest-environment ./web/testing/environment/screen.cjs */
import 'fake-indexeddb/auto';
import { createDemoShop, CATALOGUE, recordSurveyEntry, findStandard, type Job, type SurveyEntry } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { IMKE } from '../testing/person';
import { SurveyStore, type NewEntry } from './surveyStore';

jest.mock('./planner', () => ({
  PlanRunner: class {
    tell() {}
    plan() {}
    end() {}
  },
}));
global.structuredClone ??= ((value: unknown) => JSON.parse(JSON.stringify(value)) as unknown) as typeof structuredClone;

/** A server that takes each entry once, and can be away. */
class FakeServer {
  version = 0;
  job: Job = createInlet();
  taken = new Set<string>();
  isAway = false;
  requests: string[] = [];

  readonly fetch = (path: string, init?: { body?: string }) => {
    this.requests.push(path.replace(/\?.*/, ''));
    if (this.isAway) return Promise.reject(new TypeError('no network'));
    const answer = (body: unknown, status = 200) => Promise.resolve({ ok: status < 300, status, json: () => Promise.resolve(body) });
    if (path.endsWith('/survey')) {
      const { entries } = JSON.parse(init!.body!) as { entries: SurveyEntry[] };
      const conflicts: string[] = [];
      for (const entry of entries) {
        if (this.taken.has(entry.id)) continue;
        this.taken.add(entry.id);
        const added = recordSurveyEntry(this.job, entry, CATALOGUE, findStandard(this.job, CATALOGUE));
        if (added.isConflict) conflicts.push(entry.id);
        this.job = added.job;
        this.version += 1;
      }
      return answer({ version: this.version, document: this.job, conflicts });
    }
    if (/^\/api\/jobs\/[^/]+$/.test(path)) return answer({ version: this.version, document: this.job });
    if (path.endsWith('/history')) return answer({ problems: [{ path: '', message: 'There is nothing to undo.' }] }, 409);
    return answer([]);
  };
}

let serial = 0;
const open = async (server: FakeServer, id = `job-${(serial += 1)}`) => {
  global.fetch = server.fetch as unknown as typeof fetch;
  const store = new SurveyStore({
    id,
    version: server.version,
    document: server.job,
    undo: null,
    redo: null,
    shop: createDemoShop(),
    shopVersion: 1,
    person: IMKE,
  });
  const end = store.begin();
  await settle();
  return { store, end, id };
};
const settle = () => new Promise((resolve) => setTimeout(resolve, 60));
/** Wait for what happens by itself, for at most five seconds. */
const until = async (isSo: () => boolean) => {
  for (let tries = 0; tries < 100 && !isSo(); tries += 1) await new Promise((resolve) => setTimeout(resolve, 50));
};
const mark = (atMm: number, name: string): NewEntry => ({
  kind: 'mark',
  loomId: 'inlet',
  zeroNodeId: 'bk1',
  viaSegmentId: null,
  atMm,
  what: 'end',
  name,
  holeMm: null,
  method: 'tape',
  ticks: [],
  deviceId: null,
  nodeId: `n-${name}`,
  segmentId: `s-${name}`,
});

test('with a network an entry is shown at once and stored', async () => {
  const server = new FakeServer();
  const { store, end } = await open(server);
  expect(store.add(mark(120, 'lamp'))).toBeNull();
  expect(store.get().job.looms.inlet!.ends['n-lamp']!.name).toBe('lamp');
  await until(() => server.version === 1 && store.get().waiting === 0);
  expect([server.version, store.get().waiting, store.get().online]).toEqual([1, 0, true]);
  end();
});

test('what stands against an entry is said, and it is not kept', async () => {
  const server = new FakeServer();
  const { store, end } = await open(server);
  expect(store.add(mark(-3, 'lamp'))).toContain('expected a distance beyond primary rail (0), got -3');
  expect(store.get().waiting).toBe(0);
  end();
});

test('without a network entries wait on the device, outlive it, and are sent once, in their order', async () => {
  const server = new FakeServer();
  const first = await open(server);
  server.isAway = true;
  for (const [mm, name] of [
    [100, 'a'],
    [110, 'b'],
    [120, 'c'],
  ] as const)
    expect(first.store.add(mark(mm, name))).toBeNull();
  await until(() => first.store.get().waiting === 3 && !first.store.get().online);
  expect(first.store.get()).toMatchObject({ waiting: 3, online: false });
  first.end();

  // the tab is gone; the page opens again from what the device kept
  const again = await open(server, first.id);
  await until(() => again.store.get().waiting === 3);
  expect(again.store.get().waiting).toBe(3);
  expect(again.store.get().job.looms.inlet!.ends['n-c']!.name).toBe('c');
  server.isAway = false;
  window.dispatchEvent(new Event('online'));
  await until(() => again.store.get().waiting === 0);
  expect([server.version, again.store.get().waiting]).toEqual([3, 0]);
  again.end();
  const last = await open(server, first.id);
  expect([last.store.get().waiting, server.version]).toEqual([0, 3]);
  last.end();
});

test('an answer lost on its way: the entry is sent again and counts once', async () => {
  const server = new FakeServer();
  const { store, end } = await open(server);
  const { fetch: real } = server;
  let isLost = true;
  global.fetch = (async (path: string, init?: { body?: string }) => {
    const answer = await real(path, init);
    if (isLost && path.endsWith('/survey')) {
      isLost = false;
      throw new TypeError('cut off');
    }
    return answer;
  }) as unknown as typeof fetch;
  store.add(mark(100, 'a'));
  await until(() => server.version === 1 && !isLost && store.get().waiting === 1);
  expect([server.version, store.get().waiting]).toEqual([1, 1]);
  window.dispatchEvent(new Event('online'));
  await until(() => store.get().waiting === 0);
  expect([server.version, store.get().waiting, server.taken.size]).toEqual([1, 0, 1]);
  end();
});

test('a page from the cache is older than what the device last had: the newer counts', async () => {
  const server = new FakeServer();
  const first = await open(server);
  first.store.add(mark(100, 'a'));
  await until(() => server.version === 1 && first.store.get().waiting === 0);
  await settle();
  first.end();
  server.isAway = true;
  global.fetch = server.fetch as unknown as typeof fetch;
  const stale = new SurveyStore({
    id: first.id,
    version: 0,
    document: createInlet(),
    undo: null,
    redo: null,
    shop: createDemoShop(),
    shopVersion: 1,
    person: IMKE,
  });
  const end = stale.begin();
  await until(() => stale.get().job.looms.inlet!.ends['n-a'] !== undefined);
  expect(stale.get().job.looms.inlet!.ends['n-a']!.name).toBe('a');
  end();
});

test('what somebody else entered meanwhile stands beside it, and the person is told', async () => {
  const server = new FakeServer();
  const { store, end } = await open(server);
  server.isAway = true;
  store.add(mark(100, 'a'));
  const theirs = {
    ...mark(140, 'a'),
    nodeId: 'n-x',
    segmentId: 's-x',
    id: crypto.randomUUID(),
    author: 'Saoirse Vell',
    at: '2026-11-25T08:00:00Z',
  } as SurveyEntry;
  server.job = recordSurveyEntry(server.job, theirs, CATALOGUE, findStandard(server.job, CATALOGUE)).job;
  server.version += 1;
  server.isAway = false;
  window.dispatchEvent(new Event('online'));
  await settle();
  await until(() => store.get().waiting === 0 && store.get().problem !== null);
  expect(store.get().problem).toBe('1 entered here meets what somebody else entered: see Settle.');
  expect(Object.values(store.get().job.surveyConflicts).map(({ mine }) => mine)).toEqual(['100 end a']);
  end();
});

test('undo takes a waiting entry off the device; with nothing waiting it asks the server', async () => {
  const server = new FakeServer();
  const { store, end } = await open(server);
  server.isAway = true;
  store.add(mark(100, 'a'));
  await until(() => store.get().waiting === 1);
  await store.undo();
  expect([store.get().waiting, store.get().job.looms.inlet!.ends['n-a']]).toEqual([0, undefined]);
  await store.undo();
  expect(store.get().problem).toBe('What the server has already is taken back with a network only.');
  server.isAway = false;
  await store.undo();
  expect(store.get().problem).toBe('There is nothing to undo.');
  end();
});

test('undo right after an entry takes back that entry, not the one before it', async () => {
  const server = new FakeServer();
  const { store, end } = await open(server);
  store.add(mark(100, 'a'));
  await until(() => server.version === 1 && store.get().waiting + store.get().writing === 0);
  server.isAway = true;
  store.add(mark(110, 'b'));
  expect(store.get()).toMatchObject({ writing: 1, waiting: 0 });
  await store.undo();
  const ends = store.get().job.looms.inlet!.ends;
  expect([ends['n-a']?.name, ends['n-b'], store.get().waiting]).toEqual(['a', undefined, 0]);
  expect(server.requests.filter((path) => path.endsWith('/history'))).toEqual([]);
  end();
});

test('an entry made before the device has answered what it kept is not lost', async () => {
  const server = new FakeServer();
  server.isAway = true;
  global.fetch = server.fetch as unknown as typeof fetch;
  const store = new SurveyStore({
    id: `job-${(serial += 1)}`,
    version: 0,
    document: server.job,
    undo: null,
    redo: null,
    shop: createDemoShop(),
    shopVersion: 1,
    person: IMKE,
  });
  const end = store.begin();
  expect(store.add(mark(100, 'a'))).toBeNull();
  await until(() => store.get().waiting === 1);
  expect(store.get().job.looms.inlet!.ends['n-a']!.name).toBe('a');
  end();
});

test('an entry that the device cannot write down is shown and sent, and the person is told', async () => {
  const server = new FakeServer();
  const { store, end } = await open(server);
  const put = jest.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
    throw new DOMException('the disk is full', 'QuotaExceededError');
  });
  server.isAway = true;
  expect(store.add(mark(100, 'a'))).toBeNull();
  await until(() => store.get().problem !== null);
  expect(store.get().problem).toBe('This device is full: what was entered last is lost when the page is closed before it is sent.');
  expect(store.get().job.looms.inlet!.ends['n-a']!.name).toBe('a');
  server.isAway = false;
  await until(() => server.version === 1);
  put.mockRestore();
  expect(server.job.looms.inlet!.ends['n-a']!.name).toBe('a');
  end();
});

test.each([400, 404, 413, 422])(
  'status %d for a photo: it stays on the device with the reason until it is sent again or let go',
  async (status) => {
    const server = new FakeServer();
    const real = server.fetch;
    let isWell = false;
    const sent: string[] = [];
    const { store, end } = await open(server);
    global.fetch = ((path: string, init?: { method?: string; body?: string }) => {
      if (!path.includes('/photos?')) return real(path, init);
      if (isWell) sent.push(new URLSearchParams(path.split('?')[1]).get('id')!);
      return Promise.resolve({ ok: isWell, status: isWell ? 201 : status, json: () => Promise.resolve(null) });
    }) as unknown as typeof fetch;
    store.addPhoto({ loom: 'inlet', node: 'bk1', caption: 'bracket', blob: new Blob(['x']) });
    await until(() => store.get().refused.length === 1);
    const [{ id, what, reason }] = store.get().refused as [{ id: string; what: string; reason: string }];
    expect([what, reason, store.get().waitingPhotos]).toEqual(['photo bracket', `The server answered ${status}.`, []]);
    isWell = true;
    store.retry(id);
    await until(() => sent.length === 1);
    expect([sent, store.get().refused]).toEqual([[id], []]);
    end();
  },
);

test.each([0, 408, 429, 500, 502, 503, 504])('status %d for a photo: it waits on the device and goes once by itself', async (status) => {
  const server = new FakeServer();
  const real = server.fetch;
  let failures = 2;
  const sent: string[] = [];
  const { store, end } = await open(server);
  global.fetch = ((path: string, init?: { method?: string; body?: string }) => {
    if (!path.includes('/photos?')) return real(path, init);
    failures -= 1;
    if (failures >= 0 && status === 0) return Promise.reject(new TypeError('no network'));
    if (failures < 0) sent.push(path);
    return Promise.resolve({ ok: failures < 0, status: failures < 0 ? 201 : status, json: () => Promise.resolve(null) });
  }) as unknown as typeof fetch;
  store.addPhoto({ loom: 'inlet', node: 'bk1', caption: '', blob: new Blob(['x']) });
  expect(store.get().waitingPhotos).toHaveLength(1);
  await until(() => sent.length > 0 && store.get().waitingPhotos.length === 0);
  expect([sent.length, store.get().refused, store.get().online]).toEqual([1, [], true]);
  end();
});

test('a photo that is too large is not kept, and says so', async () => {
  const { store, end } = await open(new FakeServer());
  store.addPhoto({ loom: 'inlet', node: 'bk1', caption: '', blob: { size: 60 * 1024 * 1024 } as Blob });
  expect(store.get().problem).toBe('A photo was not kept: expected at most 20 MB, got 60 MB.');
  expect(store.get().waitingPhotos).toEqual([]);
  end();
});
