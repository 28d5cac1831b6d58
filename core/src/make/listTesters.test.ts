import { listTesters } from './listTesters';

const STEPS = [
  { id: 'test', operation: 'test' as const },
  { id: 'sign', operation: 'sign' as const },
  { id: 'cut.a', operation: 'cut' as const },
];
const event = (stepId: string, itemId: string, kind: 'tick' | 'untick', author: string, more = {}) => ({
  stepId,
  itemId,
  kind,
  author,
  ...more,
});

test('who tested is who ticked the test, not who did other work or took a tick back', () => {
  expect(listTesters(STEPS, [])).toEqual([]);
  expect(listTesters(STEPS, [event('cut.a', 'w', 'tick', 'Tobin'), event('sign', 'signed', 'tick', 'Imke')])).toEqual([]);
  const ticks = [event('test', 'pairs', 'tick', 'Jun'), event('test', 'look', 'tick', 'Tobin')];
  expect(listTesters(STEPS, ticks)).toEqual(['Jun', 'Tobin']);
  expect(listTesters(STEPS, [...ticks, event('test', 'pairs', 'untick', 'Imke')])).toEqual(['Tobin']);
  expect(listTesters(STEPS, [...ticks, event('test', 'pairs', 'untick', 'Imke'), event('test', 'pairs', 'tick', 'Saoirse')])).toEqual([
    'Tobin',
    'Saoirse',
  ]);
});

test('a late tick of a device that had not heard of the item being opened again makes nobody a tester', () => {
  const events = [
    event('test', 'pairs', 'tick', 'Jun', { serial: 1, device: 'a', after: 0 }),
    event('test', 'pairs', 'untick', 'Imke', { serial: 2, device: 'b', after: 1 }),
    event('test', 'pairs', 'tick', 'Tobin', { serial: 3, device: 'a', after: 1 }),
  ];
  expect(listTesters(STEPS, events)).toEqual([]);
});
