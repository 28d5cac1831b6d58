import { createGatherer } from './gather';

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

test('what comes while the same is done is done together, other things beside it', async () => {
  const done: string[] = [];
  const gather = createGatherer<number>(async (key, items) => {
    await pause(10);
    done.push(`${key}: ${items.join(' ')}`);
  });
  await Promise.all([gather('a', 1), gather('a', 2), gather('b', 7), gather('a', 3)]);
  expect(done).toEqual(['a: 1', 'b: 7', 'a: 2 3']);
  await gather('a', 4);
  expect(done.at(-1)).toBe('a: 4');
});

test('one bad thing fails alone, and whoever sent it hears of it', async () => {
  const done: number[] = [];
  const gather = createGatherer<number>(async (_key, items) => {
    await pause(1);
    if (items.includes(3)) throw new Error('three');
    done.push(...items);
  });
  const answers = await Promise.allSettled([1, 2, 3, 4].map((item) => gather('a', item)));
  expect(answers.map(({ status }) => status)).toEqual(['fulfilled', 'fulfilled', 'rejected', 'fulfilled']);
  expect(done).toEqual([1, 2, 4]);
});

test('a flood is parted, and all of it is done', async () => {
  const sizes: number[] = [];
  const gather = createGatherer<number>(async (_key, items) => {
    await pause(1);
    sizes.push(items.length);
  });
  await Promise.all(Array.from({ length: 1000 }, (_, item) => gather('a', item)));
  expect(sizes).toEqual([1, 300, 300, 300, 99]);
});

test('small things do not wait behind a heap of large ones, and no large one waits for ever', async () => {
  const done: string[] = [];
  const gather = createGatherer<string>(
    async (_key, items) => {
      await pause(1);
      done.push(items.join(' '));
    },
    (item) => (item.startsWith('tick') ? 1 : 200),
  );
  await Promise.all(['tick1', 'back1', 'back2', 'back3', 'tick2', 'tick3'].map((item) => gather('a', item)));
  expect(done).toEqual(['tick1', 'back1 tick2 tick3', 'back2', 'back3']);
});
