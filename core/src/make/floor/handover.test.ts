import { CATALOGUE } from '../../catalogue';
import { createInlet } from '../../demo';
import { plan } from '../../plan';
import { createBuild } from '../createBuild';
import { createHandover, toHandoverLine, toWaitingLine } from './createHandover';
import { listClaims, type FloorDeed } from './listClaims';
import { listWork } from './listWork';

const job = createInlet();
const { steps } = createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE);
const HOUR = 3_600_000;
const tick = (stepId: string, itemId: string, author: string, hour: number, kind = 'tick'): FloorDeed => ({
  ...{ stepId, itemId, author, kind, atMs: hour * HOUR },
});
const hand = (deeds: FloorDeed[], sinceHour: number, nowHour: number) => {
  const stands = new Set<string>();
  for (const { kind, stepId, itemId } of deeds) {
    if (kind === 'tick') stands.add(`${stepId} ${itemId}`);
    if (kind === 'untick') stands.delete(`${stepId} ${itemId}`);
  }
  const work = listWork(steps, (stepId, itemId) => stands.has(`${stepId} ${itemId}`));
  return createHandover(work, deeds, listClaims(steps, deeds, { nowMs: nowHour * HOUR, leaseMin: 20 }), sinceHour * HOUR);
};
const cut = steps.filter(({ operation, items }) => operation === 'cut' && items.every(({ heldBecause }) => heldBecause === null));
const many = cut.find(({ items }) => items.length > 2)!;

test('what was done in the shift, by whom; not what was done before it, nor what was taken back', () => {
  const [first, second] = cut;
  const handed = hand(
    [
      tick(first!.id, first!.items[0]!.id, 'Tobin', 6),
      tick(many.id, many.items[0]!.id, 'Imke', 9),
      tick(many.id, many.items[1]!.id, 'Imke', 9),
      tick(second!.id, second!.items[0]!.id, 'Jun', 9),
      tick(second!.id, second!.items[0]!.id, 'Jun', 10, 'untick'),
    ],
    8,
    16,
  );
  expect(handed.done).toEqual([{ author: 'Imke', steps: [{ title: many.title, items: 2, of: many.items.length }] }]);
  expect(handed.done[0]!.steps.map(toHandoverLine)).toEqual([`${many.title}, 2 of ${many.items.length}`]);
  expect(toHandoverLine({ title: 'Crimp throttle', items: 6, of: 6 })).toBe('Crimp throttle');
});

test('what is begun and not finished says how far and by whom, whenever that was', () => {
  const handed = hand([tick(many.id, many.items[0]!.id, 'Imke', 1), tick(many.id, many.items[1]!.id, 'Jun', 2)], 8, 16);
  expect(handed.begun).toEqual([{ title: many.title, done: 2, of: many.items.length, author: 'Jun' }]);
  const finished = hand(
    many.items.map(({ id }) => tick(many.id, id, 'Imke', 9)),
    8,
    16,
  );
  expect(finished.begun).toEqual([]);
});

test('what waits is counted at what can be done now, and what is held says why, once', () => {
  const { waiting, held } = hand([], 0, 1);
  expect(waiting.length).toBeGreaterThan(0);
  const titles = new Set(cut.map(({ title }) => title));
  // before anything is cut all waits for cutting alone, or for what is held
  for (const { forTitle } of waiting) expect(titles.has(forTitle) || /^Cut and mark/.test(forTitle)).toBe(true);
  expect(waiting.map(({ steps: count }) => count)).toEqual([...waiting.map(({ steps: count }) => count)].sort((a, b) => b - a));
  expect(held).toContain('N-222: length to knock sensor only guessed');
  expect(new Set(held).size).toBe(held.length);
  expect(toWaitingLine({ forTitle: 'Cut and mark AWG 20 red', steps: 1 })).toBe('1 step waits for cut and mark AWG 20 red');
});

test('who is where, as the lanes say it now', () => {
  expect(hand([tick('', 'end inj1', 'Tobin', 15.9, 'take')], 8, 16).here).toEqual([{ lane: 'end inj1', authors: ['Tobin'] }]);
  expect(hand([tick('', 'end inj1', 'Tobin', 12, 'take')], 8, 16).here).toEqual([]);
});
