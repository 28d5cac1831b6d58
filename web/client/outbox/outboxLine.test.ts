/** @jest-environment ./web/testing/environment/screen.cjs */
import 'fake-indexeddb/auto';
import { RequestError } from '../request';
import { outboxDatabase } from './outboxDatabase';
import { listLines, OutboxLine } from './outboxLine';

globalThis.structuredClone ??= ((value: unknown) => JSON.parse(JSON.stringify(value)) as unknown) as typeof structuredClone;

/** A server that counts each id once, in the order in which it came. */
class FakeServer {
  taken: string[] = [];
  requests: string[][] = [];
  /** what it answers to a batch instead of taking it */
  answer: (ids: readonly string[]) => number = () => 200;
  /** answers that are lost on their way back */
  lose = 0;

  readonly take = async (ids: readonly string[]): Promise<void> => {
    this.requests.push([...ids]);
    await Promise.resolve();
    const status = this.answer(ids);
    if (status !== 200) throw new RequestError(status, [{ path: '', message: `no: ${status}` }], {});
    this.taken.push(...ids.filter((id) => !this.taken.includes(id)));
    if (this.lose > 0) {
      this.lose -= 1;
      throw new RequestError(0, [], {});
    }
  };
}

let serial = 0;
const ends: (() => void)[] = [];
const open = (server: FakeServer, name = `line-${(serial += 1)}`, most = 10, ofWhom?: (body: string) => string) => {
  const line = new OutboxLine<string>({
    name,
    most,
    ...(ofWhom ? { ofWhom } : {}),
    send: async (batch) => {
      await server.take(batch.map(({ id }) => id));
      return () => {};
    },
    onChange: () => {},
  });
  ends.push(line.begin());
  return { line, name };
};
const until = async (isSo: () => boolean | Promise<boolean>) => {
  for (let tries = 0; tries < 400 && !(await isSo()); tries += 1) await new Promise((resolve) => setTimeout(resolve, 20));
  expect(await isSo()).toBe(true);
};
const idsOf = ({ waiting, refused }: OutboxLine<string>) => [waiting.map(({ id }) => id), refused.map(({ id }) => id)];
const stored = async (name: string) => (await outboxDatabase.rows.where('line').equals(name).toArray()).map(({ id }) => id);

afterEach(() => {
  ends.splice(0).forEach((end) => end());
  Reflect.deleteProperty(navigator, 'locks');
});

test('what is added is on the device until the server has it, and is sent in its order', async () => {
  const server = new FakeServer();
  const { line, name } = open(server);
  server.answer = () => 0;
  for (const id of ['a', 'b', 'c']) line.add(`${name}-${id}`, id);
  await until(async () => (await stored(name)).length === 3);
  server.answer = () => 200;
  await until(() => line.waiting.length === 0);
  expect(server.taken).toEqual(['a', 'b', 'c'].map((id) => `${name}-${id}`));
  await until(async () => (await stored(name)).length === 0);
});

test('what the device kept before goes before what is done while the page still opens', async () => {
  const server = new FakeServer();
  server.answer = () => 0;
  const first = open(server);
  first.line.add(`${first.name}-1`, '1');
  await until(async () => (await stored(first.name)).length === 1);
  ends.splice(0).forEach((end) => end());
  server.answer = () => 200;
  server.requests = [];
  const again = open(server, first.name);
  again.line.add(`${first.name}-2`, '2');
  await until(() => again.line.isOpen && again.line.waiting.length === 0);
  expect(server.taken).toEqual([`${first.name}-1`, `${first.name}-2`]);
});

test.each([0, 408, 425, 429, 500, 501, 502, 503, 504])(
  'the answer %d passes: the entry waits, outlives the page, and is taken once when the server is well',
  async (status) => {
    const server = new FakeServer();
    server.answer = () => status;
    const first = open(server);
    first.line.add(`${first.name}-a`, 'a');
    await until(() => !first.line.online);
    expect(idsOf(first.line)).toEqual([[`${first.name}-a`], []]);
    await until(async () => (await stored(first.name)).length === 1);
    ends.splice(0).forEach((end) => end());
    server.answer = () => 200;
    const again = open(server, first.name);
    await until(() => again.line.isOpen && again.line.waiting.length === 0);
    expect([server.taken, again.line.online, again.line.refused]).toEqual([[`${first.name}-a`], true, []]);
  },
);

test('what one made who is not signed in here waits for them; what others made goes past it', async () => {
  const server = new FakeServer();
  let isIn = false;
  server.answer = (ids) => (ids[0]!.includes('tobin') && !isIn ? 401 : 200);
  const { line, name } = open(server, undefined, 5, (body) => body);
  for (const [id, by] of [
    ['tobin-1', 'tobin'],
    ['imke-1', 'imke'],
    ['imke-2', 'imke'],
    ['tobin-2', 'tobin'],
    ['imke-3', 'imke'],
  ] as const)
    line.add(`${name}-${id}`, by);
  const short = (ids: readonly string[]) => ids.map((id) => id.slice(name.length + 1));
  await until(() => server.taken.length === 3);
  expect([short(server.taken), line.waiting.map(({ id }) => short([id])[0]), line.isBarred]).toEqual([
    ['imke-1', 'imke-2', 'imke-3'],
    ['tobin-1', 'tobin-2'],
    true,
  ]);
  isIn = true;
  await until(() => server.taken.length === 5);
  expect([short(server.taken).slice(3), line.waiting, line.isBarred]).toEqual([['tobin-1', 'tobin-2'], [], false]);
});

test.each([400, 403, 404, 409, 410, 413, 415, 422])(
  'the answer %d refuses: it is put aside with the reason, outlives the page, and goes when it is sent again',
  async (status) => {
    const server = new FakeServer();
    server.answer = ([id]) => (id!.endsWith('a') ? status : 200);
    const first = open(server, undefined, 1);
    first.line.add(`${first.name}-a`, 'a');
    first.line.add(`${first.name}-b`, 'b');
    await until(() => server.taken.length === 1);
    expect([server.taken, idsOf(first.line)]).toEqual([[`${first.name}-b`], [[], [`${first.name}-a`]]]);
    await until(async () => (await listLines(first.name)).length === 0);
    ends.splice(0).forEach((end) => end());
    const again = open(server, first.name, 1);
    await until(() => again.line.refused.length === 1);
    expect(again.line.refused[0]).toMatchObject({ body: 'a', reason: `no: ${status}` });
    server.answer = () => 200;
    await again.line.retry(`${first.name}-a`);
    await until(() => server.taken.length === 2);
    expect(idsOf(again.line)).toEqual([[], []]);
  },
);

test('one bad entry of a batch does not keep the others, nor is it lost', async () => {
  const server = new FakeServer();
  const { line, name } = open(server);
  server.answer = (ids) => (ids.includes(`${name}-3`) ? 422 : 200);
  for (let at = 0; at < 7; at += 1) line.add(`${name}-${at}`, String(at));
  await until(() => server.taken.length === 6);
  expect([server.taken.map((id) => id.slice(-1)).sort(), idsOf(line)]).toEqual([
    ['0', '1', '2', '4', '5', '6'],
    [[], [`${name}-3`]],
  ]);
});

test('what is let go while the server has it stays gone when the server refuses it', async () => {
  const server = new FakeServer();
  const { line, name } = open(server);
  let answered: () => void = () => {};
  const asked = new Promise<void>((resolve) => (answered = resolve));
  const held = new Promise<void>((resolve) => {
    const take = server.take;
    Object.assign(server, {
      take: async (ids: readonly string[]) => {
        resolve();
        await asked;
        return take(ids);
      },
    });
  });
  server.answer = () => 422;
  line.add(`${name}-a`, 'a');
  await held;
  await line.remove([`${name}-a`]);
  answered();
  await line.flush();
  expect(idsOf(line)).toEqual([[], []]);
  expect(await stored(name)).toEqual([]);
});

test('an entry that the server always fails on lets the others past after a while', async () => {
  const server = new FakeServer();
  const { line, name } = open(server);
  server.answer = (ids) => (ids.includes(`${name}-0`) ? 500 : 200);
  line.add(`${name}-0`, '0');
  line.add(`${name}-1`, '1');
  for (let tries = 0; tries < 200 && server.taken.length === 0; tries += 1) {
    await new Promise((resolve) => setTimeout(resolve, 20));
    void line.flush();
  }
  expect([server.taken, idsOf(line)]).toEqual([[`${name}-1`], [[], [`${name}-0`]]]);
});

test('an answer lost on its way: sent again with the same id, counted once', async () => {
  const server = new FakeServer();
  server.lose = 2;
  const { line, name } = open(server);
  line.add(`${name}-a`, 'a');
  await until(() => line.waiting.length === 0);
  expect([server.requests.length, server.taken]).toEqual([3, [`${name}-a`]]);
});

test('what is added while others are being sent, or just after, is sent', async () => {
  const server = new FakeServer();
  const { line, name } = open(server, undefined, 1);
  for (let at = 0; at < 30; at += 1) {
    line.add(`${name}-${String(at).padStart(2, '0')}`, '');
    await Promise.resolve();
    if (at % 3 === 0) await new Promise((resolve) => setTimeout(resolve, at % 5));
  }
  await until(() => line.waiting.length === 0);
  expect(server.taken).toEqual([...server.taken].sort());
  expect(server.taken).toHaveLength(30);
});

test('two tabs have one line: each shows what the other added, nothing is dropped, all is sent once', async () => {
  const server = new FakeServer();
  server.answer = () => 503;
  const one = open(server);
  const other = open(server, one.name);
  one.line.add(`${one.name}-1`, '1');
  other.line.add(`${one.name}-2`, '2');
  await until(() => one.line.waiting.length === 2 && other.line.waiting.length === 2);
  server.answer = () => 200;
  await until(() => one.line.waiting.length === 0 && other.line.waiting.length === 0);
  expect([...server.taken].sort()).toEqual([`${one.name}-1`, `${one.name}-2`]);
  expect(await stored(one.name)).toEqual([]);
});

test('with locks one tab sends at a time, and another is told what it sent', async () => {
  let isHeld = false;
  let most = 0;
  const request = async (_name: string, _options: object, work: (lock: object | null) => Promise<void>) => {
    if (isHeld) return work(null);
    isHeld = true;
    await work({});
    isHeld = false;
  };
  Object.defineProperty(navigator, 'locks', { value: { request }, configurable: true });
  const server = new FakeServer();
  let inside = 0;
  const gone: string[][] = [];
  const tab = (name: string) => {
    const line = new OutboxLine<string>({
      name,
      most: 1,
      send: async ([entry]) => {
        inside += 1;
        most = Math.max(most, inside);
        await new Promise((resolve) => setTimeout(resolve, 5));
        await server.take([entry!.id]);
        inside -= 1;
        return () => {};
      },
      onGone: (ids) => {
        gone.push([...ids]);
        return Promise.resolve(() => {});
      },
      onChange: () => {},
    });
    ends.push(line.begin());
    return line;
  };
  const name = `line-${(serial += 1)}`;
  const [one, other] = [tab(name), tab(name)];
  for (let at = 0; at < 6; at += 1) (at % 2 ? one : other).add(`${name}-${at}`, '');
  await until(() => server.taken.length === 6 && one.waiting.length === 0 && other.waiting.length === 0);
  expect([most, server.requests.length]).toEqual([1, 6]);
  expect(gone.flat().length).toBeGreaterThan(0);
});

test('one that waits for a decision keeps its place; taken out, the rest goes on', async () => {
  const server = new FakeServer();
  let isHeld = true;
  const name = `line-${(serial += 1)}`;
  const line = new OutboxLine<string>({
    name,
    most: 1,
    send: async ([entry]) => {
      if (isHeld && entry!.body === 'held') return 'hold';
      await server.take([entry!.id]);
      return () => {};
    },
    onChange: () => {},
  });
  ends.push(line.begin());
  line.add(`${name}-a`, 'held');
  line.add(`${name}-b`, 'b');
  await until(async () => (await stored(name)).length === 2);
  await line.flush();
  expect(server.taken).toEqual([]);
  isHeld = false;
  await line.remove([`${name}-a`]);
  await line.flush();
  expect(server.taken).toEqual([`${name}-b`]);
  await until(async () => (await stored(name)).length === 0);
});

test('a device that is full says so and sends all the same; with room again the warning goes', async () => {
  const server = new FakeServer();
  server.answer = () => 503;
  const { line, name } = open(server);
  await line.opened;
  const put = jest.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
    throw new DOMException('the disk is full', 'QuotaExceededError');
  });
  line.add(`${name}-a`, 'a');
  await until(() => line.isFull);
  expect(idsOf(line)).toEqual([[`${name}-a`], []]);
  put.mockRestore();
  line.add(`${name}-b`, 'b');
  await until(() => !line.isFull);
  expect(await stored(name)).toEqual([`${name}-b`]);
  server.answer = () => 200;
  await until(() => line.waiting.length === 0);
  expect(server.taken).toEqual([`${name}-a`, `${name}-b`]);
});
