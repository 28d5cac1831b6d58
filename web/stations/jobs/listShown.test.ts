import type { JobSummary } from '../../server/jobSummaries';
import { countShown, FILTERS, listShown, toTouchedWords, type Filter, type Order } from './listShown';

const job = (name: string, rest: Partial<JobSummary> = {}): JobSummary => ({
  ...{ id: name, name, customer: 'Penhallow', counted: { looms: 1, wires: 4, stops: 0, checks: 0, problem: null }, isCurrent: true },
  ...{ revision: 0, editsSince: 3, changedAt: '2026-11-20T08:00:00.000Z', changedBy: 'Jun Okafor', isArchived: false, deleted: null },
  ...{ next: 'Release revision 1', promisedOn: null, ...rest },
});
const counted = { looms: 1, wires: 4, stops: 0, checks: 0, problem: null };
const wall = [
  job('Skerry', { counted: { ...counted, stops: 2 }, next: 'Mend 2 stop findings', promisedOn: '2027-01-10' }),
  job('Fen', { changedAt: '2026-11-26T08:00:00.000Z', revision: 2, editsSince: 0, next: 'Build revision 2', changedBy: 'Imke Dorsey' }),
  job('Broken', { counted: { ...counted, wires: 0, problem: 'a cavity is gone' }, promisedOn: '2026-12-01' }),
  job('New', { counted: null, changedBy: null }),
  job('Old', { isArchived: true, revision: 5, editsSince: 0 }),
  job('Gone', { isArchived: true, deleted: { by: 'Imke Dorsey', until: '2026-12-20' } }),
];
const names = (filter: Filter, order: Order = 'name', words = '') => listShown(wall, { words, filter, order }).map(({ name }) => name);

test('each word of the bar stands for its jobs, and counts as many as it shows', () => {
  expect(FILTERS.map((filter) => names(filter))).toEqual([
    ['Broken', 'Fen', 'New', 'Skerry'],
    ['Broken', 'Skerry'],
    [],
    ['Fen'],
    ['Old'],
    ['Gone'],
  ]);
  for (const filter of FILTERS) expect(countShown(wall, filter)).toBe(names(filter).length);
  expect(names('release', 'name')).toEqual([]);
  expect(
    listShown([job('Ready'), job('Again', { revision: 1, editsSince: 2 })], { words: '', filter: 'release', order: 'name' }),
  ).toHaveLength(2);
});

test('the last touched first, or what is promised soonest, what nobody promised last', () => {
  expect(names('work', 'touched')[0]).toBe('Fen');
  expect(names('work', 'promised')).toEqual(['Broken', 'Skerry', 'Fen', 'New']);
});

test('every word that is searched for has to stand somewhere: name, customer, what is next, who', () => {
  expect([
    names('work', 'name', 'imke'),
    names('work', 'name', 'penh mend'),
    names('work', 'name', 'SKERRY'),
    names('work', 'name', 'zzz'),
  ]).toEqual([['Fen'], ['Skerry'], ['Skerry'], []]);
});

test('when it was touched, from just now to a date in the way of the reader', () => {
  const now = Date.parse('2026-11-26T12:00:00Z');
  const ago = (minutes: number) => toTouchedWords(new Date(now - minutes * 60_000).toISOString(), now, 'en-GB');
  expect([-5, 0.5, 1, 59, 60, 23 * 60, 24 * 60, 47 * 60, 48 * 60].map(ago)).toEqual([
    ...['just now', 'just now', '1 min ago', '59 min ago', '1 h ago', '23 h ago', 'yesterday', 'yesterday', '24 Nov 2026'],
  ]);
});
