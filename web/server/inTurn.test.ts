import { inTurn } from './inTurn';

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

test('what is about one thing goes one after another in its order, other things beside it; a failure holds up nobody', async () => {
  const log: string[] = [];
  const work = (name: string, ms: number) => async () => {
    log.push(`${name} begins`);
    await pause(ms);
    if (name === 'a2') throw new Error('no');
    log.push(`${name} ends`);
    return name;
  };
  const all = await Promise.allSettled([
    inTurn('a', work('a1', 30)),
    inTurn('a', work('a2', 1)),
    inTurn('b', work('b1', 5)),
    inTurn('a', work('a3', 1)),
  ]);
  expect(all.map(({ status }) => status)).toEqual(['fulfilled', 'rejected', 'fulfilled', 'fulfilled']);
  expect(log).toEqual(['a1 begins', 'b1 begins', 'b1 ends', 'a1 ends', 'a2 begins', 'a3 begins', 'a3 ends']);
});

test('where sixty wait the next one is told to come again, and is let in when there is room', async () => {
  const waiting = Array.from({ length: 60 }, () => inTurn('c', () => pause(1)));
  await expect(inTurn('c', () => pause(1))).rejects.toMatchObject({ status: 503 });
  await expect(inTurn('d', () => Promise.resolve('other'))).resolves.toBe('other');
  await Promise.all(waiting);
  await expect(inTurn('c', () => Promise.resolve('in'))).resolves.toBe('in');
});
