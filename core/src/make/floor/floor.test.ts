import { CATALOGUE } from '../../catalogue';
import { createInlet } from '../../demo';
import { plan } from '../../plan';
import { runs } from '../../testing/runs';
import { createRandom } from '../../units';
import { createBuild } from '../createBuild';
import { listLanes, listTouching, toLane, toLaneName } from './lanes';
import { listClaims, type FloorDeed } from './listClaims';
import { listWork } from './listWork';

const job = createInlet();
const { steps } = createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE);
const MINUTE = 60_000;
const deed = (author: string, minute: number, kind: string, itemId: string, stepId = ''): FloorDeed => ({
  ...{ author, atMs: minute * MINUTE, kind, itemId, stepId },
});
const claims = (deeds: FloorDeed[], minute: number) => listClaims(steps, deeds, { nowMs: minute * MINUTE, leaseMin: 20 });
const authors = (deeds: FloorDeed[], minute: number, lane = 'end inj1') =>
  (claims(deeds, minute).get(lane) ?? []).map(({ author }) => author);

describe('lanes', () => {
  test('every step but what is to be undone is in one, called as people call it', () => {
    for (const step of steps) expect([step.id, toLane(step)]).toEqual([step.id, expect.stringMatching(/^(end|run|post) \S/)]);
    const lanes = listLanes(steps);
    expect(new Set(lanes).size).toBe(lanes.length);
    expect(lanes[0]).toBe('post cut');
    const loom = job.looms.inlet!;
    expect(toLaneName('end inj1', loom)).toBe('injector 1');
    expect(toLaneName('run s-inj1', loom)).toBe('primary rail to injector 1');
    expect(toLane({ operation: 'undo', endId: null, segmentId: null })).toBeNull();
  });
  test('a leg and its end get in the way of one another until what is left of them no longer waits for the other; two injectors never', () => {
    const touching = listTouching(steps, () => false);
    expect(touching.get('end inj1')).toContain('run s-inj1');
    for (const [lane, others] of touching) {
      expect([lane, others.has(lane)]).toEqual([lane, false]);
      for (const other of others) expect(touching.get(other)).toContain(lane);
      if (lane.startsWith('end inj')) expect([...others].filter((other) => other.startsWith('end inj'))).toEqual([]);
    }
    expect(listTouching(steps, () => true).size).toBe(0);
  });
});

describe('claims', () => {
  test('who takes a lane has it until leaving, or until nothing was ticked there for a lease', () => {
    const taken = [deed('Imke', 0, 'take', 'end inj1')];
    expect(authors(taken, 19)).toEqual(['Imke']);
    expect(authors(taken, 20)).toEqual([]);
    expect(authors([...taken, deed('Imke', 5, 'leave', 'end inj1')], 6)).toEqual([]);
    const worked = [...taken, deed('Imke', 15, 'tick', '1', 'crimp.inj1')];
    expect(authors(worked, 34)).toEqual(['Imke']);
    expect(claims(worked, 34).get('end inj1')![0]).toMatchObject({ sinceMs: 0, lastMs: 15 * MINUTE });
  });
  test('whoever ticks or reads is there without a word; a problem told from elsewhere is no presence', () => {
    expect(authors([deed('Jun', 1, 'tick', '1', 'crimp.inj1')], 2)).toEqual(['Jun']);
    expect(authors([deed('Jun', 1, 'reading', '1', 'crimp.inj1')], 2)).toEqual(['Jun']);
    expect(authors([deed('Jun', 1, 'problem', 'step', 'crimp.inj1')], 2)).toEqual([]);
    expect(authors([deed('Jun', 1, 'tick', '1', 'crimp.inj2')], 2)).toEqual([]);
  });
  test('two who did not know of each other are both there, in whatever order their tablets send', () => {
    const both = [deed('Jun', 3, 'take', 'end inj1'), deed('Imke', 1, 'take', 'end inj1')];
    expect(authors(both, 4)).toEqual(['Imke', 'Jun']);
    // one leaves, and what was sent late from before does not bring him back
    expect(authors([deed('Jun', 9, 'leave', 'end inj1'), ...both], 10)).toEqual(['Imke']);
  });
  test('a clock that goes ahead holds nothing for longer than a lease from now', () => {
    expect(authors([deed('Imke', 600, 'take', 'end inj1')], 10)).toEqual(['Imke']);
    expect(claims([deed('Imke', 600, 'take', 'end inj1')], 10).get('end inj1')![0]!.lastMs).toBe(10 * MINUTE);
  });
  test('who comes back after a lease has begun anew', () => {
    const again = [deed('Imke', 0, 'take', 'end inj1'), deed('Imke', 30, 'tick', '1', 'crimp.inj1')];
    expect(claims(again, 31).get('end inj1')![0]!.sinceMs).toBe(30 * MINUTE);
  });
});

describe('work', () => {
  test('what is ready needs nothing that is left; done in any order it comes to its end, and nothing is ever ready before its needs', () => {
    for (let seed = 1; seed <= runs(2, 20); seed += 1) {
      const random = createRandom(seed);
      const ticked = new Set<string>();
      const isDone = (stepId: string, itemId: string) => ticked.has(`${stepId} ${itemId}`);
      for (let guard = 0; guard <= steps.length; guard += 1) {
        const ready = listWork(steps, isDone).filter((one) => one.state === 'ready');
        if (ready.length === 0) break;
        for (const { step } of ready.filter(() => ready.length === 1 || random() < 0.6)) {
          for (const { stepId } of step.needs) {
            const need = steps.find(({ id }) => id === stepId);
            expect(need?.items.filter((item) => item.heldBecause === null && !isDone(stepId, item.id)) ?? []).toEqual([]);
          }
          for (const item of step.items) if (item.heldBecause === null) ticked.add(`${step.id} ${item.id}`);
        }
      }
      // a guessed leg holds its wires: beyond it all waits, beside it all is done
      const left = listWork(steps, isDone).filter(({ state: where }) => where !== 'done');
      expect(left.filter(({ state: where }) => where === 'ready')).toEqual([]);
      expect(left.map(({ step }) => step.id)).toContain('seat.knk');
      for (const end of ['inj1', 'inj6', 'thr', 'fpt'])
        expect([end, left.filter(({ step }) => step.endId === end && ['crimp', 'seat'].includes(step.operation))]).toEqual([end, []]);
    }
  });
  test('counts what is done, and names what comes first', () => {
    const work = listWork(steps, () => false);
    const crimp = work.find(({ step }) => step.id === 'crimp.inj1')!;
    expect(crimp).toMatchObject({ state: 'waiting', done: 0, lane: 'end inj1' });
    expect(crimp.waitsFor.every(({ because }) => because.length > 0)).toBe(true);
    const all = listWork(steps, () => true);
    expect(all.every(({ state, done, step }) => state === 'done' && done === step.items.length)).toBe(true);
  });
});
