/** @jest-environment ./web/testing/environment/screen.cjs */
import { listStreams, say } from '../testing/say';
import type * as Live from './live';

type News = Live.News;

type Locks = { request: (name: string, work: () => Promise<unknown>) => Promise<unknown> };

/** A tab of its own: the module is loaded anew. */
function openTab(): { heard: News[]; deaf: () => void } {
  const heard: News[] = [];
  let deaf = () => {};
  jest.isolateModules(() => {
    const { hearNews } = jest.requireActual<typeof Live>('./live');
    deaf = hearNews((news) => heard.push(news));
  });
  return { heard, deaf };
}

const NEWS: News = { topic: 'job', id: 'a', version: 3 };
const waiting: (() => void)[] = [];

beforeEach(() => {
  jest.useFakeTimers();
  listStreams().length = 0;
  (BroadcastChannel as unknown as { all: unknown[] }).all.length = 0;
  waiting.length = 0;
  let isHeld = false;
  const locks: Locks = {
    request: async (_name, work) => {
      if (isHeld) await new Promise<void>((resolve) => waiting.push(resolve));
      isHeld = true;
      return work();
    },
  };
  Object.defineProperty(navigator, 'locks', { value: locks, configurable: true });
});
afterEach(() => jest.useRealTimers());

test('three tabs have one stream, and all hear what it says; the next tab takes over from one that closes', async () => {
  const tabs = [openTab(), openTab(), openTab()];
  await jest.advanceTimersByTimeAsync(0);
  expect(listStreams().map(({ url }) => url)).toEqual(['/api/live']);
  say(NEWS);
  expect(tabs.map(({ heard }) => heard)).toEqual([[NEWS], [NEWS], [NEWS]]);
  waiting.shift()!();
  await jest.advanceTimersByTimeAsync(0);
  expect(listStreams()).toHaveLength(2);
});

test('without locks, on a page that is not a secure context, each tab has a stream of its own', () => {
  Reflect.deleteProperty(navigator, 'locks');
  openTab();
  openTab();
  expect(listStreams()).toHaveLength(2);
});

test('a stream that is refused is opened anew; one that was cut off is left to the browser; both are told', async () => {
  const { heard } = openTab();
  await jest.advanceTimersByTimeAsync(0);
  say({ topic: 'away' });
  await jest.advanceTimersByTimeAsync(10_000);
  expect(listStreams()).toHaveLength(1);
  listStreams()[0]!.readyState = 2;
  say({ topic: 'away' });
  await jest.advanceTimersByTimeAsync(10_000);
  expect(listStreams()).toHaveLength(2);
  say({ topic: 'again' });
  expect(heard).toEqual([{ topic: 'away' }, { topic: 'away' }, { topic: 'again' }]);
});

test('who does not want to hear any more hears nothing', async () => {
  const { heard, deaf } = openTab();
  await jest.advanceTimersByTimeAsync(0);
  deaf();
  say(NEWS);
  expect(heard).toEqual([]);
});

test('a tab that was asleep looks for what it missed', async () => {
  const { heard } = openTab();
  await jest.advanceTimersByTimeAsync(0);
  document.dispatchEvent(new Event('visibilitychange'));
  expect(heard).toEqual([{ topic: 'again' }]);
});
