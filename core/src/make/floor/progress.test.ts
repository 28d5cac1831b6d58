import type { Step } from '../step';
import { findNext, findResume } from './findNext';
import { holdChanged } from './holdChanged';
import { listWork } from './listWork';
import { measureProgress, type ProgressDeed } from './measureProgress';

const step = (id: string, items: string[], held: string[] = []): Step => ({
  id,
  operation: 'crimp',
  title: id,
  endId: null,
  segmentId: null,
  spliceId: null,
  tool: '',
  parts: [],
  caution: null,
  needs: [],
  items: items.map((item) => ({
    id: item,
    words: item,
    asks: [],
    wireIds: [],
    cavity: item,
    reads: [],
    heldBecause: held.includes(item) ? 'guessed' : null,
  })),
});
let serial = 0;
const event = (stepId: string, itemId: string, kind: ProgressDeed['kind'] = 'tick', id = `id${(serial += 1)}`): ProgressDeed => ({
  id,
  loomId: 'l',
  stepId,
  itemId,
  kind,
  words: 'bent pin',
  author: 'Tobin Ashgrove',
});
const steps = [step('a', ['1', '2']), step('b', ['1', '2', '3'], ['2']), step('c', ['1'])];

test('a tick that came late, by a tablet that had not heard that the item was opened again, leaves it open', () => {
  const opened = { ...event('a', '1', 'untick'), serial: 9, device: 'one', after: 3 };
  const late = { ...event('a', '1'), id: 'late', serial: 10, device: 'two', after: 3 };
  const ticked = (events: ProgressDeed[]) => measureProgress(steps, events).get('a')!.ticked.has('1');
  expect([ticked([opened, late]), ticked([opened, { ...late, after: 9 }])]).toEqual([false, true]);
});

test('a step is done when every item is ticked', () => {
  const progress = measureProgress(steps, [event('a', '1'), event('a', '2'), event('c', '1')]);
  expect(steps.map(({ id }) => progress.get(id)!.done)).toEqual([true, false, true]);
});

test('the same event twice counts once, and a later untick wins', () => {
  const progress = measureProgress(steps, [event('a', '1', 'tick', 'x'), event('a', '1', 'untick'), event('a', '1', 'tick', 'x')]);
  expect(progress.get('a')!.ticked.size).toBe(0);
});

test('work broken off in the middle of a connector resumes there', () => {
  expect(findResume(steps, measureProgress(steps, [event('a', '1'), event('a', '2'), event('b', '1')]))).toBe(1);
});

test('what is held does not keep the crew from going on', () => {
  expect(findResume(steps, measureProgress(steps, [event('a', '1'), event('a', '2'), event('b', '1'), event('b', '3')]))).toBe(2);
});

test('with everything done it stays at the last step; with nothing it begins at the first', () => {
  const all = steps.flatMap(({ id, items }) => items.map((item) => event(id, item.id)));
  expect(findResume(steps, measureProgress(steps, all))).toBe(2);
  expect(findResume(steps, measureProgress(steps, []))).toBe(0);
});

test('a problem stands until it is solved', () => {
  expect(measureProgress(steps, [event('b', 'step', 'problem')]).get('b')!.trouble?.words).toBe('bent pin');
  expect(measureProgress(steps, [event('b', 'step', 'problem'), event('b', 'step', 'solved')]).get('b')!.trouble).toBeNull();
});

test('an answer stands until the problem is solved, or told anew: then it waits for another', () => {
  const told = (...events: ProgressDeed[]) => {
    const { trouble, answer } = measureProgress(steps, events).get('b')!;
    return [trouble?.kind ?? null, answer?.itemId ?? null];
  };
  const [problem, answer] = [event('b', 'step', 'problem'), event('b', 'carry-on', 'answer')];
  expect(told(problem, answer)).toEqual(['problem', 'carry-on']);
  expect(told(problem, answer, event('b', 'step', 'solved'))).toEqual([null, null]);
  expect(told(problem, answer, event('b', 'step', 'problem'))).toEqual(['problem', null]);
  // who is where is no trouble, and solves none
  expect(told(problem, event('', 'end x', 'take'), event('', 'end x', 'leave'))).toEqual(['problem', null]);
});

test('the next step is in the same lane, then in one’s own, then where nobody is; never where somebody else is', () => {
  const lanes = ['x', 'y', 'x', 'z'].map((end, at) => ({ ...step(`s${at}`, ['1']), endId: end }));
  const work = (done: string[] = []) => listWork(lanes, (id) => done.includes(id));
  const claim = (author: string) => [{ author, sinceMs: 0, lastMs: 0 }];
  const next = (after: string | null, claims: Record<string, string>, done: string[] = []) =>
    findNext(work(done), new Map(Object.entries(claims).map(([end, author]) => [`end ${end}`, claim(author)])), 'Imke', after)?.step.id ??
    null;
  expect(next('s0', {}, ['s0'])).toBe('s2');
  expect(next('s0', { z: 'Imke' }, ['s0', 's2'])).toBe('s3');
  expect(next('s0', { y: 'Jun' }, ['s0', 's2'])).toBe('s3');
  expect(next(null, { x: 'Jun' })).toBe('s1');
  expect(next('s0', { y: 'Jun', z: 'Jun' }, ['s0', 's2'])).toBeNull();
});

test('a reading outside its limit undoes a tick until a later one passes; work goes on there', () => {
  const pulled: Step = {
    ...steps[0]!,
    items: steps[0]!.items.map((item) => ({ ...item, reads: [{ id: 'pull', words: 'pull test', unit: 'N', least: 40, most: null }] })),
  };
  const read = (value: number, author = 'Tobin Ashgrove'): ProgressDeed => ({
    ...event('a', '1', 'reading'),
    ...{ readId: 'pull', value, unit: 'N', instrument: 'pull tester', author },
  });
  const ticks = [event('a', '1'), event('a', '2')];
  const failed = measureProgress([pulled], [...ticks, read(31)]);
  expect(failed.get('a')).toMatchObject({ done: false, failed: new Set(['1']), ticked: new Set(['1', '2']) });
  expect(findResume([pulled, steps[2]!], measureProgress([pulled, steps[2]!], [...ticks, read(31)]))).toBe(0);
  const mended = measureProgress([pulled], [...ticks, read(31), read(40, 'Imke Dorsey')]);
  expect(mended.get('a')).toMatchObject({ done: true, failed: new Set() });
  expect(
    mended
      .get('a')!
      .readings.get('1')!
      .map(({ value, author }) => [value, author]),
  ).toEqual([
    [31, 'Tobin Ashgrove'],
    [40, 'Imke Dorsey'],
  ]);
});

describe('what is done over after it was tested is untested', () => {
  const work = [
    { ...step('seat', ['1']), operation: 'seat' as const },
    { ...step('label', ['1']), operation: 'label' as const },
    { ...step('test', ['pairs']), operation: 'test' as const, needs: [{ stepId: 'seat', because: '' }] },
    { ...step('route', ['1']), operation: 'route' as const, needs: [{ stepId: 'test', because: '' }] },
    { ...step('repin', ['1']), operation: 'seat' as const, needs: [{ stepId: 'route', because: '' }] },
    { ...step('sign', ['1']), operation: 'sign' as const, needs: [{ stepId: 'repin', because: '' }] },
  ];
  const done = ['seat', 'label', 'test', 'route', 'repin', 'sign'].map((id) => event(id, id === 'test' ? 'pairs' : '1'));
  const open = (events: ProgressDeed[]) => {
    const progress = measureProgress(work, events);
    return work.filter(({ id }) => !progress.get(id)!.done).map(({ id }) => id);
  };

  test('work in its order voids nothing, also what is pinned in the vehicle after the test', () => {
    expect(open(done)).toEqual([]);
  });

  test('a contact that is seated anew opens test and signature; a label neither', () => {
    expect(open([...done, event('seat', '1', 'untick'), event('seat', '1')])).toEqual(['test', 'sign']);
    expect(open([...done, event('label', '1', 'untick'), event('label', '1')])).toEqual([]);
  });

  test('what was pinned after the test and is done over opens the signature alone', () => {
    expect(open([...done, event('repin', '1', 'untick'), event('repin', '1')])).toEqual(['sign']);
  });

  test('a test that was carried over from an earlier revision is open again likewise', () => {
    const carried = { carried: [{ stepId: 'test', itemId: 'pairs', revision: 1 }], reopened: [], undo: [] };
    const test = (events: ProgressDeed[]) => measureProgress(work, events, carried).get('test')!;
    expect([test([]).done, test([event('seat', '1')]).done, test([event('seat', '1')]).carried.size]).toEqual([true, false, 0]);
  });
});

describe('what whoever plans will change', () => {
  const told = [event('b', '1'), event('b', 'step', 'problem')];
  const answered = [...told, { ...event('b', 'change', 'answer'), words: 'a longer leg' }];
  const held = (events: ProgressDeed[], inHand: string[] = []) =>
    holdChanged(steps, measureProgress(steps, events), new Map(inHand.map((key) => [key, null]))).map(({ items }) =>
      items.map(({ heldBecause }) => heldBecause),
    );
  const because = 'done otherwise in the next revision: a longer leg';

  test('waits, with her words: not what is done, nor what is in a hand', () => {
    expect(held(answered)).toEqual([[null, null], [null, 'guessed', because], [null]]);
    expect(held(answered, ['b 3'])[1]).toEqual([null, 'guessed', null]);
    // taken back, it is left again
    expect(held([...answered, event('b', '1', 'untick')])[1]).toEqual([because, 'guessed', because]);
  });

  test('no other answer holds anything; solved, or told anew, nothing is held any more', () => {
    for (const events of [
      told,
      ...['carry-on', 'redo', 'concession'].map((answer) => [...told, event('b', answer, 'answer')]),
      [...answered, event('b', 'step', 'solved')],
      [...answered, event('b', 'step', 'problem')],
    ])
      expect(holdChanged(steps, measureProgress(steps, events), new Map())).toBe(steps);
  });
});
