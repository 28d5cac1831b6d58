import { createMemory } from './createMemory';

test('what was made of the same inputs is given again, of others anew', () => {
  const memory = createMemory<object>(2);
  const [a, b] = [{}, {}];
  const first = memory('one', [a, 1, 'x'], () => ({}));
  expect(memory('one', [a, 1, 'x'], () => ({}))).toBe(first);
  for (const inputs of [
    [b, 1, 'x'],
    [a, 2, 'x'],
    [a, 1],
    [a, 1, 'x', null],
  ])
    expect(memory(inputs.join(), inputs, () => ({}))).not.toBe(first);
  expect(memory('two', [a, 1, 'x'], () => ({}))).not.toBe(first);
});

test('only the last few are kept, and one that is asked for again stays', () => {
  const memory = createMemory<number>(2);
  let made = 0;
  const ask = (input: number) => memory('', [input], () => (made += 1));
  expect([ask(1), ask(2), ask(1), ask(3)]).toEqual([1, 2, 1, 3]);
  expect([ask(1), ask(2)]).toEqual([1, 4]);
});
