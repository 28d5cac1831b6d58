import type { FloorEvent } from '../server/floorEvent';
import { findCure } from './findCure';

const step = {
  operation: 'wait' as const,
  needs: [{ stepId: 'pot.L', because: '' }],
  items: [
    { id: 'cured', words: '', asks: [{ what: 'hours of cure', value: 22.6 }], wireIds: [], cavity: null, reads: [], heldBecause: null },
  ],
};
const event = (kind: FloorEvent['kind'], happenedAt: string, itemId = 'poured', stepId = 'pot.L'): FloorEvent => ({
  ...{ id: `${stepId} ${itemId} ${happenedAt}`, loomId: 'bench', stepId, itemId, kind, words: '', author: 'Tobin Ashgrove', happenedAt },
});

test('is ready so many hours after it was poured, by whom', () => {
  const cure = findCure(step, [event('tick', '2026-11-24T08:00:00Z')])!;
  expect(cure.readyAt.toISOString()).toBe('2026-11-25T06:36:00.000Z');
  expect([cure.pouredAt.toISOString(), cure.author]).toEqual(['2026-11-24T08:00:00.000Z', 'Tobin Ashgrove']);
});

test('counts from the last pouring; one that was taken back is none', () => {
  const again = [event('tick', '2026-11-24T08:00:00Z'), event('untick', '2026-11-24T09:00:00Z'), event('tick', '2026-11-24T10:00:00Z')];
  expect(findCure(step, again)!.pouredAt.toISOString()).toBe('2026-11-24T10:00:00.000Z');
  expect(findCure(step, again.slice(0, 2))).toBeNull();
});

test('is none before it is poured, of another item or step, and of a step that is no wait', () => {
  expect(findCure(step, [])).toBeNull();
  expect(
    findCure(step, [event('tick', '2026-11-24T08:00:00Z', 'mixed'), event('tick', '2026-11-24T08:00:00Z', 'poured', 'pot.R')]),
  ).toBeNull();
  expect(findCure({ ...step, operation: 'pot' }, [event('tick', '2026-11-24T08:00:00Z')])).toBeNull();
});
