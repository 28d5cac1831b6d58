import { isDoubtful, isPinning, listInHand, toHandState, type Asking, type HandDeed } from './inHand';

const MINUTE = 60_000;
const deed = (kind: string, itemId: string, rest: Partial<HandDeed> = {}): HandDeed => ({
  ...{ kind, stepId: 'seat B1', itemId, author: 'Tobin', device: 'tablet-1', atMs: 0 },
  ...rest,
});
const asking = (rest: Partial<Asking> = {}): Asking => ({
  ...{ author: 'Tobin', device: 'tablet-1', nowMs: MINUTE, leaseMin: 20, takenHere: new Set() },
  ...rest,
});
const nineteen = listInHand([deed('hand', '19')]).get('seat B1 19')!;

test.each([
  ['taken', [deed('hand', '1')], ['seat B1 1']],
  ['ticked', [deed('hand', '1'), deed('tick', '1')], []],
  ['put down', [deed('hand', '1'), deed('down', '1')], []],
  ['opened again', [deed('hand', '1'), deed('untick', '1')], []],
  ['taken again after it was put down', [deed('hand', '1'), deed('down', '1'), deed('hand', '1')], ['seat B1 1']],
  ['another is ticked', [deed('hand', '1'), deed('tick', '2')], ['seat B1 1']],
  ['the same cavity of another step', [deed('hand', '1'), deed('tick', '1', { stepId: 'crimp B1' })], ['seat B1 1']],
])('in hand: %s', (_, deeds, keys) => expect([...listInHand(deeds).keys()]).toEqual(keys));

test.each<[string, Partial<Asking>, boolean]>([
  ['whoever took it, on the page on which it was taken', { takenHere: new Set(['seat B1 19']) }, false],
  ['the same after the page was opened anew, as after a power cut', {}, true],
  ['somebody else on the same tablet, at once', { author: 'Jun' }, true],
  [
    'somebody else on the same tablet, who took one of that name on this page before',
    { author: 'Jun', takenHere: new Set(['seat B1 19']) },
    true,
  ],
  ['somebody else on another tablet, while it is at work there', { author: 'Jun', device: 'tablet-2' }, false],
  ['the same, the next morning', { author: 'Jun', device: 'tablet-2', nowMs: 14 * 60 * MINUTE }, true],
  ['the same, just as the lease ends', { author: 'Jun', device: 'tablet-2', nowMs: 20 * MINUTE }, true],
])('doubtful for %s: %#', (_, rest, expected) => expect(isDoubtful(nineteen, asking(rest))).toBe(expected));

test('a cavity is to do, in hand, doubtful, done or held', () => {
  const item = { id: '19', heldBecause: null };
  const inHand = listInHand([deed('hand', '19')]);
  const seat = { id: 'seat B1', operation: 'seat' } as const;
  const here = asking({ takenHere: new Set(['seat B1 19']) });
  expect([
    toHandState(seat, item, false, new Map(), here),
    toHandState(seat, item, false, inHand, here),
    toHandState(seat, item, false, inHand, asking()),
    toHandState(seat, item, true, inHand, asking()),
    toHandState({ ...seat, operation: 'crimp' }, item, true, inHand, asking()),
    toHandState(seat, { ...item, heldBecause: 'guessed' }, false, inHand, here),
  ]).toEqual(['to do', 'in hand', 'doubtful', 'seated', 'crimped', 'held']);
});

test('crimping and seating go cavity by cavity, other work does not', () => {
  const items = [{ cavity: '1' }] as never;
  expect([
    isPinning({ operation: 'seat', items }),
    isPinning({ operation: 'crimp', items }),
    isPinning({ operation: 'cut', items }),
  ]).toEqual([true, true, false]);
});
