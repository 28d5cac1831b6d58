/** @jest-environment ./web/testing/environment/screen.cjs */
import 'fake-indexeddb/auto';
import { createCommand, createDemoShop, applyEdit, type EditOperation, type Job } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { IMKE } from '../testing/person';
import { say } from '../testing/say';
import { JobStore, type Since } from './jobStore';
import { outboxDatabase } from './outbox/outboxDatabase';

/** Jobs that were handed to the planner. */
const mockPlanned: Job[] = [];
/** What an edit waits for before it is sent. */
let mockCalm = Promise.resolve();
/** Plans that a test answers itself. */
let mockAnswers: (() => void)[] | null = null;
jest.mock('./planner', () => ({
  PlanRunner: class {
    private onResult: (result: { job: Job }) => void = () => undefined;
    tell(onResult: (result: { job: Job }) => void) {
      this.onResult = onResult;
    }
    async hold() {}
    calm = () => mockCalm;
    plan(job: Job) {
      mockPlanned.push(job);
      if (mockAnswers) mockAnswers.push(() => this.onResult({ job }));
      else this.onResult({ job });
    }
    end() {}
  },
}));
globalThis.structuredClone ??= ((value: unknown) => JSON.parse(JSON.stringify(value)) as unknown) as typeof structuredClone;

const LEG = '/looms/inlet/segments/s-inj1/lengthMm';

/** A server that takes an edit of the present version, once by its id, and says what happened since to any other. */
class FakeServer {
  document: Job = createInlet();
  edits: (Since & { id: string })[] = [];
  isAway = false;
  /** answers that are lost on their way back */
  lose = 0;

  get version() {
    return this.edits.length;
  }

  take(id: string, author: string, label: string, patch: EditOperation[]) {
    const applied = applyEdit(this.document, patch);
    if (!applied.ok) throw new Error('the test sent a patch that does not fit');
    this.document = applied.value;
    this.edits.push({ id, version: this.version + 1, author, label, patch });
  }

  readonly fetch = (path: string, init?: { body?: string }) => {
    const answer = (body: unknown, status = 200) => {
      if (this.lose > 0 && path.endsWith('/edits') && init) {
        this.lose -= 1;
        return Promise.reject(new TypeError('cut off'));
      }
      return Promise.resolve({ ok: status < 300, status, json: () => Promise.resolve(structuredClone(body)) });
    };
    if (this.isAway) return Promise.reject(new TypeError('no network'));
    if (path.includes('/edits?since=')) return answer(this.edits.slice(Number(path.split('since=')[1])));
    if (path.endsWith('/edits')) {
      const edit = JSON.parse(init!.body!) as { id: string; base: number; label: string; patch: EditOperation[] };
      const known = this.edits.find(({ id }) => id === edit.id);
      if (known) return answer({ version: known.version, patch: known.patch, undo: known.label, redo: null });
      if (edit.base !== this.version)
        return answer({ problems: [{ path: '', message: 'stale' }], version: this.version, since: this.edits.slice(edit.base) }, 409);
      if (edit.label === 'refuse me') return answer({ problems: [{ path: LEG, message: 'expected a length' }] }, 422);
      this.take(edit.id, IMKE.name, edit.label, edit.patch);
      return answer({ version: this.version, patch: edit.patch, undo: edit.label, redo: null });
    }
    return answer({
      id: 'x',
      version: this.version,
      document: this.document,
      undo: null,
      redo: null,
      shop: createDemoShop(),
      shopVersion: 1,
      person: IMKE,
    });
  };
}

let serial = 0;
const open = (server: FakeServer, id = `job-${(serial += 1)}`) => {
  global.fetch = server.fetch as unknown as typeof fetch;
  return {
    id,
    store: new JobStore({
      id,
      version: server.version,
      document: server.document,
      undo: null,
      redo: null,
      shop: createDemoShop(),
      shopVersion: 1,
      person: IMKE,
    }),
  };
};
const until = async (isSo: () => boolean) => {
  for (let tries = 0; tries < 120 && !isSo(); tries += 1) await new Promise((resolve) => setTimeout(resolve, 50));
  expect(isSo()).toBe(true);
};
/** Until the device keeps nothing of a job. */
const untilForgotten = async (id: string) => {
  const count = () => outboxDatabase.rows.where('line').equals(`edit/${id}`).count();
  for (let tries = 0; tries < 120 && (await count()) > 0; tries += 1) await new Promise((resolve) => setTimeout(resolve, 50));
  expect(await count()).toBe(0);
};
const leg = (mm: number) => (draft: Job) => {
  draft.looms.inlet!.segments['s-inj1']!.lengthMm = mm;
};
const lengthOf = (job: Job) => job.looms.inlet!.segments['s-inj1']!.lengthMm;
const stores: JobStore[] = [];
const opened = (server: FakeServer, id?: string) => {
  const made = open(server, id);
  stores.push(made.store);
  return made;
};
afterEach(() => {
  stores.splice(0).forEach((store) => store.end());
  localStorage.clear();
});

test('an edit shows at once and is stored in one piece', async () => {
  const server = new FakeServer();
  const { store } = opened(server);
  store.edit(createCommand('leg 140', leg(140)));
  expect(lengthOf(store.get().document)).toBe(140);
  await until(() => store.get().saving === 'saved' && store.get().version === 1);
  expect(server.edits.map(({ label, patch }) => [label, patch])).toEqual([['leg 140', [{ op: 'replace', path: LEG, value: 140 }]]]);
});

test('an edit is planned once: what the server takes is what is shown already', async () => {
  const server = new FakeServer();
  const { store } = opened(server);
  mockPlanned.length = 0;
  store.edit(createCommand('leg 140', leg(140)));
  const shown = store.get().document;
  await until(() => store.get().saving === 'saved' && store.get().version === 1);
  expect(mockPlanned).toEqual([shown]);
  expect(store.get().document).toBe(shown);
});

test('an edit whose plan is under way is kept by this device at once, and sent after it', async () => {
  const server = new FakeServer();
  const { id, store } = opened(server);
  let planned = () => {};
  mockCalm = new Promise((resolve) => (planned = resolve));
  store.edit(createCommand('leg 140', leg(140)));
  const kept = () => outboxDatabase.rows.where('line').equals(`edit/${id}`).count();
  for (let tries = 0; tries < 120 && (await kept()) === 0; tries += 1) await new Promise((resolve) => setTimeout(resolve, 50));
  await new Promise((resolve) => setTimeout(resolve, 200));
  expect([await kept(), store.get().waiting, server.version]).toEqual([1, 1, 0]);
  planned();
  mockCalm = Promise.resolve();
  await until(() => store.get().saving === 'saved' && server.version === 1);
});

describe('what is drawn of an edit', () => {
  const name = createCommand('name it', (draft) => void (draft.name = 'Skiff'));
  const begun: { store: JobStore; rest: () => void }[] = [];
  const begin = () => {
    const { store } = open(new FakeServer());
    let told = 0;
    store.subscribe(() => (told += 1));
    let rest: () => void = () => undefined;
    mockCalm = new Promise((resolve) => (rest = resolve));
    mockAnswers = [];
    begun.push({ store, rest });
    return { store, count: () => told, rest, answer: () => mockAnswers!.splice(0).forEach((one) => one()) };
  };
  afterEach(async () => {
    mockCalm = Promise.resolve();
    mockAnswers = null;
    // what is still to be sent would go to the server of the next test
    for (const { store, rest } of begun.splice(0)) {
      rest();
      await until(() => store.get().saving === 'saved');
    }
  });

  test('a length is there at once and is drawn with its plan, once', () => {
    const { store, count, answer } = begin();
    store.edit(createCommand('leg', leg(241)));
    expect(store.get().document.looms.inlet!.segments['s-inj1']!.lengthMm).toBe(241);
    expect(count()).toBe(0);
    answer();
    expect(count()).toBe(1);
    expect(store.get().result!.job).toBe(store.get().document);
  });

  test('where its plan takes long a length is drawn without it', async () => {
    const { store, count, rest } = begin();
    store.edit(createCommand('leg', leg(242)));
    await Promise.resolve();
    expect(count()).toBe(0);
    rest();
    await until(() => count() > 0);
    const before = count();
    store.edit(name);
    expect(count()).toBeGreaterThan(before);
  });

  test.each<[string, (draft: Job) => void]>([
    ['a name', (draft) => void (draft.name = 'Skiff')],
    [
      'a length with something else',
      (draft) => {
        draft.name = 'Skiff 2';
        draft.looms.inlet!.segments['s-inj1']!.lengthMm = 243;
      },
    ],
  ])('%s is drawn at once', (_, change) => {
    const { store, count } = begin();
    store.edit(createCommand('change', change));
    expect(count()).toBeGreaterThan(0);
  });
});

test('an edit of somebody else is planned too', async () => {
  const server = new FakeServer();
  const { store } = opened(server);
  mockPlanned.length = 0;
  server.take('theirs', 'other', 'leg 150', [{ op: 'replace', path: LEG, value: 150 }]);
  store.edit(
    createCommand('leg of another run', (draft) => {
      draft.looms.inlet!.segments['s-inj2']!.lengthMm += 1;
    }),
  );
  await until(() => store.get().saving === 'saved' && store.get().version === 2);
  expect(mockPlanned.map(lengthOf)).toEqual([130, 150]);
});

test('what somebody else does shows when the server tells, and what was missed when the stream is back', async () => {
  const server = new FakeServer();
  const { store, id } = opened(server);
  await until(() => store.get().saving === 'saved');
  server.take('t1', 'other', 'leg 150', [{ op: 'replace', path: LEG, value: 150 }]);
  say({ topic: 'job', id: 'another job', version: 1 });
  await new Promise((resolve) => setTimeout(resolve, 80));
  expect(lengthOf(store.get().document)).toBe(130);
  say({ topic: 'job', id, version: 1 });
  await until(() => lengthOf(store.get().document) === 150);
  server.isAway = true;
  store.edit(createCommand('leg 160', leg(160)));
  await until(() => store.get().saving === 'offline');
  server.take('t2', 'other', 'rename', [{ op: 'replace', path: '/name', value: 'Other' }]);
  server.isAway = false;
  say({ topic: 'again' });
  await until(() => store.get().saving === 'saved' && store.get().version === 3);
  expect([store.get().document.name, lengthOf(server.document)]).toEqual(['Other', 160]);
});

test('a change that changes nothing is no edit', async () => {
  const server = new FakeServer();
  const { store } = opened(server);
  store.edit(createCommand('the same', leg(130)));
  await new Promise((resolve) => setTimeout(resolve, 80));
  expect(server.edits).toEqual([]);
});

test('a preview is shown and not stored; letting it go brings the old back', () => {
  const server = new FakeServer();
  const { store } = opened(server);
  store.preview(createCommand('leg 200', leg(200)));
  expect(lengthOf(store.get().document)).toBe(200);
  store.cancelPreview();
  expect(lengthOf(store.get().document)).toBe(130);
  expect(server.edits).toEqual([]);
});

test('with the server away edits are kept through a reload and sent once', async () => {
  const server = new FakeServer();
  const first = opened(server);
  await until(() => first.store.get().saving === 'saved');
  server.isAway = true;
  first.store.edit(createCommand('leg 140', leg(140)));
  first.store.edit(createCommand('leg 150', leg(150)));
  await until(() => first.store.get().saving === 'offline');
  first.store.end();
  const again = opened(server, first.id);
  await until(() => lengthOf(again.store.get().document) === 150);
  server.isAway = false;
  await until(() => again.store.get().saving === 'saved');
  expect(server.edits.map(({ label }) => label)).toEqual(['leg 140', 'leg 150']);
});

test('an answer lost on its way: the edit is sent again and counts once', async () => {
  const server = new FakeServer();
  const { store } = opened(server);
  await until(() => store.get().saving === 'saved');
  server.lose = 1;
  store.edit(createCommand('leg 140', leg(140)));
  await until(() => store.get().saving === 'saved' && store.get().version === 1);
  expect(server.edits).toHaveLength(1);
});

test('somebody else was first elsewhere: ours goes on top without a word', async () => {
  const server = new FakeServer();
  const { store } = opened(server);
  await until(() => store.get().saving === 'saved');
  server.take('t1', 'Jun Okafor', 'rename', [{ op: 'replace', path: '/name', value: 'Other' }]);
  store.edit(createCommand('leg 140', leg(140)));
  await until(() => store.get().version === 2 && store.get().saving === 'saved');
  expect([store.get().document.name, lengthOf(server.document), store.get().conflict]).toEqual(['Other', 140, null]);
});

test.each([
  ['mine', 140, 2],
  ['theirs', 199, 1],
] as const)('both changed one place: %s stands when it is chosen', async (keep, lengthMm, version) => {
  const server = new FakeServer();
  const { store } = opened(server);
  await until(() => store.get().saving === 'saved');
  server.take('t1', 'Jun Okafor', 'leg 199', [{ op: 'replace', path: LEG, value: 199 }]);
  store.edit(createCommand('leg 140', leg(140)));
  await until(() => store.get().conflict !== null);
  expect(store.get().conflict).toMatchObject({ mine: { label: 'leg 140' }, theirs: [{ author: 'Jun Okafor', label: 'leg 199' }] });
  store.settle(keep);
  await until(() => store.get().saving === 'saved' && store.get().version === version);
  expect([lengthOf(server.document), lengthOf(store.get().document)]).toEqual([lengthMm, lengthMm]);
});

test('an edit that the server refuses is taken back and kept with its reason, through a reload, until it is let go', async () => {
  const server = new FakeServer();
  const { store, id } = opened(server);
  await until(() => store.get().saving === 'saved');
  store.edit(createCommand('refuse me', leg(140)));
  await until(() => store.get().refused.length === 1);
  expect(store.get()).toMatchObject({ refused: [{ label: 'refuse me', reason: `${LEG}: expected a length` }], saving: 'saved' });
  expect(lengthOf(store.get().document)).toBe(130);
  store.end();
  const again = opened(server, id);
  await until(() => again.store.get().refused.length === 1);
  again.store.letGo(again.store.get().refused[0]!.id);
  await until(() => again.store.get().refused.length === 0);
  // it goes from the screen at once, from the device behind that
  await untilForgotten(id);
  again.store.end();
  const last = opened(server, id);
  await until(() => last.store.get().saving === 'saved');
  expect(last.store.get().refused).toEqual([]);
});

test.each([500, 502, 503, 504, 429])('status %d for an edit: it is shown, waits, and is stored when the server is well', async (status) => {
  const server = new FakeServer();
  const { store } = opened(server);
  await until(() => store.get().saving === 'saved');
  const well = server.fetch;
  global.fetch = ((path: string, init?: { body?: string }) =>
    init ? Promise.resolve({ ok: false, status, json: () => Promise.resolve(null) }) : well(path, init)) as unknown as typeof fetch;
  store.edit(createCommand('leg 140', leg(140)));
  await until(() => store.get().saving === 'offline');
  expect([lengthOf(store.get().document), store.get().waiting]).toEqual([140, 1]);
  global.fetch = well as unknown as typeof fetch;
  await until(() => store.get().saving === 'saved' && store.get().version === 1);
  expect([server.edits.length, store.get().refused]).toEqual([1, []]);
});

test('two tabs of one browser: both edits show in both, and each is stored once', async () => {
  const server = new FakeServer();
  const one = opened(server);
  const other = opened(server, one.id);
  await until(() => one.store.get().saving === 'saved' && other.store.get().saving === 'saved');
  server.isAway = true;
  one.store.edit(createCommand('leg 140', leg(140)));
  other.store.edit(
    createCommand('rename', (draft) => {
      draft.name = 'Other';
    }),
  );
  const isBoth = (job: Job) => lengthOf(job) === 140 && job.name === 'Other';
  await until(() => isBoth(one.store.get().document) && isBoth(other.store.get().document));
  server.isAway = false;
  await until(() => [one, other].every(({ store }) => store.get().saving === 'saved' && store.get().version === 2));
  expect([isBoth(server.document), isBoth(one.store.get().document), isBoth(other.store.get().document)]).toEqual([true, true, true]);
  expect(server.edits.map(({ label }) => label).sort()).toEqual(['leg 140', 'rename']);
});
