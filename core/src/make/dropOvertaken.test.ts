import { dropOvertaken, type SeenTick } from './dropOvertaken';

const event = (
  serial: number | null,
  kind: string,
  device: string | null,
  after: number | null,
  itemId = 'w1',
): SeenTick & { name: string } => ({
  ...{ stepId: 'cut', itemId, kind, serial, device, after },
  name: `${kind} ${serial}`,
});
const left = (events: (SeenTick & { name: string })[]) => dropOvertaken(events).map(({ name }) => name);

test('a tick that comes late, made before its device heard of an untick elsewhere, does not close the item', () => {
  expect(left([event(1, 'tick', 'a', 0), event(2, 'untick', 'b', 1), event(3, 'tick', 'c', 1)])).toEqual(['tick 1', 'untick 2']);
});

test('one that knew of the untick closes it again, as does one of the same device', () => {
  expect(left([event(1, 'untick', 'b', 0), event(2, 'tick', 'c', 1)])).toEqual(['untick 1', 'tick 2']);
  expect(left([event(1, 'untick', 'b', 0), event(2, 'tick', 'b', 0)])).toEqual(['untick 1', 'tick 2']);
});

test('an untick of another item or step overtakes nothing, nor do troubles', () => {
  expect(left([event(1, 'untick', 'b', 0, 'w2'), event(2, 'tick', 'a', 0)])).toHaveLength(2);
  expect(left([event(1, 'untick', 'b', 0), event(2, 'problem', 'a', 0), event(3, 'solved', 'a', 0)])).toHaveLength(3);
});

test('what an older device sent, which does not say what it knew, counts in the order it came', () => {
  expect(left([event(1, 'untick', 'b', 0), event(2, 'tick', null, null)])).toHaveLength(2);
});

test('what waits on this device comes last and knew what its device knew', () => {
  expect(left([event(7, 'untick', 'b', 3), event(null, 'tick', 'a', 4)])).toEqual(['untick 7']);
  expect(left([event(7, 'untick', 'b', 3), event(null, 'tick', 'a', 7)])).toEqual(['untick 7', 'tick null']);
});
