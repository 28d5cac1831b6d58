import { createPlanLoop } from './planLoop';
import type { FindingsAnswer, PlanAnswer, PlanRequest } from './planSession';

const OPENED = { sequence: 1, job: {}, shop: {}, given: null } as unknown as PlanRequest;
const EDITED: PlanRequest = { sequence: 2, patch: [] };

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

/** A worker whose plans, findings and rehearsals take so long, and what it did when, ms. */
function open({ planMs = 30, checkMs = 10, rehearseMs = (_: number) => 20 as number | null } = {}) {
  let worked = 0;
  const clock = () => Date.now() - begun + worked;
  const begun = Date.now();
  const did: string[] = [];
  let unchecked = false;
  const session = {
    answer: (request: PlanRequest): PlanAnswer => {
      worked += planMs;
      unchecked = true;
      return { sequence: request.sequence, delta: null, findings: null, ms: planMs };
    },
    check: (): FindingsAnswer | null => {
      worked += checkMs;
      const isNew = unchecked;
      unchecked = false;
      return isNew ? { findingsOf: 1, findings: null, ms: checkMs } : null;
    },
    rehearse: (round: number) => {
      did.push(`rehearsal ${round}`);
      const ms = rehearseMs(round);
      worked += ms ?? 0;
      return ms !== null;
    },
  };
  const ask = createPlanLoop(session, (told) => void did.push('findingsOf' in told ? 'findings' : 'plan'), clock);
  return { ask, did, wait: (ms: number) => void jest.advanceTimersByTime(ms) };
}
const count = (did: readonly string[], what: string) => did.filter((one) => one.startsWith(what)).length;

test('after a rest the findings follow the plan at once', () => {
  const { ask, did, wait } = open();
  ask(EDITED);
  expect(did).toEqual(['plan', 'findings']);
  wait(1000);
  ask(EDITED);
  expect(did).toEqual(['plan', 'findings', 'plan', 'findings']);
});

test('in a drag the next plan comes before the findings of the last, which are told every quarter of a second', () => {
  const { ask, did, wait } = open();
  ask(EDITED);
  did.length = 0;
  // the page asks again 5 ms after each answer: 30 + 5 ms for each of 20 plans, 700 ms
  for (let asked = 0; asked < 20; asked += 1) {
    wait(5);
    ask(EDITED);
  }
  expect(count(did, 'plan')).toBe(20);
  expect(count(did, 'findings')).toBe(2);
  wait(10);
  expect(did.at(-1)).toBe('findings');
});

test('a job that was opened is rehearsed while nothing is asked for, and no other question begins that anew', () => {
  const { ask, did, wait } = open();
  ask(OPENED);
  wait(20);
  expect(did).toEqual(['plan', 'findings', 'rehearsal 0']);
  ask(EDITED);
  wait(5);
  expect(did.at(-1)).toBe('plan');
  wait(10_000);
  expect(did.filter((one) => one.startsWith('rehearsal'))).toEqual(Array.from({ length: 24 }, (_, round) => `rehearsal ${round}`));
  const all = did.length;
  ask(EDITED);
  wait(10_000);
  expect(did.slice(all)).toEqual(['plan', 'findings']);
  ask(OPENED);
  wait(20);
  expect(did.at(-1)).toBe('rehearsal 0');
});

test.each([
  ['nothing can be planned', () => null, 1],
  ['the first two took however long, and the third more than 300 ms', (round: number) => (round < 2 ? 5000 : 301), 3],
  ['one of the first twelve took up to 300 ms, and a later one more than 120', (round: number) => (round < 12 ? 300 : 121), 13],
])('no more is rehearsed where %s', (_, rehearseMs, rounds) => {
  const { ask, did, wait } = open({ rehearseMs });
  ask(OPENED);
  wait(10_000);
  expect(count(did, 'rehearsal')).toBe(rounds);
});
