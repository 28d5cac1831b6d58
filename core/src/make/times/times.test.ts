import { CATALOGUE } from '../../catalogue';
import { createInlet } from '../../demo';
import { TASK_KINDS, MINUTE_KEYS, TIME_DEFAULTS, type MinuteKey } from '../../model';
import { plan } from '../../plan';
import { runs } from '../../testing/runs';
import { createRandom } from '../../units';
import { createBuild } from '../createBuild';
import { createItem, createStep } from '../createStep';
import { ISOLATION, OPERATIONS, PAIRS, type ExpectedReading, type Operation, type Step } from '../step';
import { compareTimes, listMinutes, measureTaken, toTimeWords, type TimedDeed } from './index';

const { minutes: FIGURES } = TIME_DEFAULTS;
const NO_LAYUP = { layups: [] };
const read = (id: string): ExpectedReading => ({ id, words: id, unit: 'Ω', least: null, most: 1 });
const toReads = (count: number) => Array.from({ length: count }, (_, at) => read(`r${at}`));
const step = (operation: Operation, count: number): Step =>
  createStep(`${operation}.x`, operation, operation, {
    // what a task takes it says itself
    ...((TASK_KINDS as readonly string[]).includes(operation) ? { minutes: 7 } : {}),
    items: Array.from({ length: count }, (_, at) => createItem(`i${at}`, '', [], null, [])),
  });
const ringOut = (pairs: number, nets: number): Step =>
  createStep('test', 'test', 'Ring out', {
    items: [
      { ...createItem(PAIRS, '', [], null, []), reads: toReads(pairs) },
      { ...createItem(ISOLATION, '', [], null, []), reads: toReads(nets) },
    ],
  });
const sum = (steps: readonly Step[], figures = FIGURES) =>
  [...listMinutes(steps, NO_LAYUP, figures).values()].reduce((all, one) => all + one, 0);

describe('what work takes (calculations H1)', () => {
  test('the inlet loom, as it is counted there: 8.2 h', () => {
    const steps = [
      // 41 wires cut and marked at both ends, threaded once
      ...[step('cut', 41), step('mark', 82), step('thread', 41), step('crimp', 64), step('seat', 64), step('splice', 5)],
      ...[step('slide', 19), step('cover', 19), step('label', 15), step('shrink', 15), step('lay', 20), step('fit', 2)],
      ...[ringOut(36, 28), step('sign', 1)],
    ];
    expect(sum(steps)).toBeCloseTo(490.3, 6);
    expect(toTimeWords(sum(steps))).toBe('8.2 h');
  });

  test.each(MINUTE_KEYS)('%s acts on what it is about, and on nothing else', (key) => {
    const steps = [...OPERATIONS.filter((one) => one !== 'test').map((one) => step(one, 3)), ringOut(4, 5)];
    const count: Partial<Record<MinuteKey, number>> = { fit: 1, sign: 1, pair: 4, isolation: 5 };
    expect(sum(steps, { ...FIGURES, [key]: FIGURES[key] + 7 }) - sum(steps)).toBeCloseTo(7 * (count[key] ?? 3), 6);
  });

  test('a layer is timed by its elements and its length, a cure by nobody', () => {
    const job = createInlet();
    job.looms.inlet!.bundling = 'concentric';
    const loom = plan(job, CATALOGUE).looms[0]!;
    const { steps } = createBuild(job, loom, CATALOGUE);
    const of = listMinutes(steps, loom, FIGURES);
    const layers = steps.filter(({ operation }) => operation === 'layup');
    expect(layers.length).toBeGreaterThan(2);
    const taken = layers.reduce((all, { id, items }) => all + items.reduce((part, item) => part + of.get(`${id} ${item.id}`)!, 0), 0);
    const elementMetres = loom.layups.reduce(
      (all, { marks, stretches }) =>
        all +
        stretches.reduce(
          (part, { fromMark, toMark, layers: laid }) =>
            part + ((marks[toMark]!.mm - marks[fromMark]!.mm) / 1000) * laid.reduce((slots, layer) => slots + layer.slots.length, 0),
          0,
        ),
      0,
    );
    expect(taken).toBeCloseTo(3 * elementMetres, 6);
    expect(sum([step('wait', 2)])).toBe(0);
  });

  test('words', () => {
    expect([0, 0.4, 45.4, 99.6, 491].map(toTimeWords)).toEqual(['0 min', 'under a minute', '45 min', '100 min', '8.2 h']);
  });
});

const MINUTE = 60_000;
const LIMITS = { pauseMin: 10, sessionMin: 240 };
let serial = 0;
const deed = (minute: number, rest: Partial<TimedDeed> = {}): TimedDeed => {
  serial += 1;
  return {
    id: `e${serial}`,
    kind: 'tick',
    stepId: 'crimp.a',
    itemId: `i${serial}`,
    author: 'Tobin',
    words: '',
    atMs: minute * MINUTE,
    ...rest,
  };
};

describe('what work took (craft D6)', () => {
  test('minutes between ticks count, a longer time is a pause, and one tap makes it work', () => {
    const deeds = [deed(0), deed(3), deed(5), deed(29), deed(30)];
    const { minutes, gaps } = measureTaken(deeds, LIMITS).get('crimp.a')!;
    expect([minutes, gaps]).toEqual([
      6,
      [{ eventId: deeds[3]!.id, itemId: deeds[3]!.itemId, author: 'Tobin', minutes: 24, isWork: false }],
    ]);
    const worked = deed(31, { kind: 'worked', words: deeds[3]!.id });
    const said = measureTaken([...deeds, worked], LIMITS).get('crimp.a')!;
    expect([said.minutes, said.gaps.map(({ isWork }) => isWork)]).toEqual([30, [true]]);
    // a shop that gives longer
    expect(measureTaken(deeds, { ...LIMITS, pauseMin: 24 }).get('crimp.a')!).toMatchObject({ minutes: 30, gaps: [] });
    // and back
    expect(measureTaken([...deeds, worked, deed(32, { kind: 'paused', words: deeds[3]!.id })], LIMITS).get('crimp.a')!.minutes).toBe(6);
  });

  test('of one’s own time only one says what it was; an hour at another step is of that', () => {
    const deeds = [deed(0), deed(20), deed(25, { stepId: 'seat.a' }), deed(26)];
    const other = deed(30, { kind: 'worked', words: deeds[1]!.id, author: 'Jun' });
    expect(measureTaken([...deeds, other], LIMITS).get('crimp.a')!.minutes).toBe(1);
    expect(measureTaken(deeds, LIMITS).get('seat.a')!.minutes).toBe(5);
  });

  test('two at one step are each timed by their own ticks, whoever ticks between', () => {
    const deeds = [deed(0), deed(1, { author: 'Jun' }), deed(4), deed(7, { author: 'Jun' })];
    const { minutes, byAuthor } = measureTaken(deeds, LIMITS).get('crimp.a')!;
    expect([minutes, [...byAuthor]]).toEqual([
      10,
      [
        ['Jun', 6],
        ['Tobin', 4],
      ],
    ]);
  });

  test('a night is no work, whatever is said; a planner’s answer at her desk is none either; taking a lane begins', () => {
    const morning = deed(900);
    const night = [deed(0), morning, deed(905, { kind: 'worked', words: morning.id })];
    expect(measureTaken(night, LIMITS).get('crimp.a')).toBeUndefined();
    expect(measureTaken(night, { ...LIMITS, sessionMin: 1000 }).get('crimp.a')!.minutes).toBe(900);
    expect(measureTaken([deed(0), deed(2, { kind: 'answer' }), deed(4)], LIMITS).get('crimp.a')!.minutes).toBe(4);
    const taken = measureTaken([deed(0), deed(8, { kind: 'take', stepId: '' }), deed(9)], LIMITS);
    expect([taken.get('crimp.a')!.minutes, taken.get('')]).toEqual([1, undefined]);
  });

  test('nobody is at work longer than between his first tick and his last; tablets may send in any order', () => {
    for (let seed = 0; seed < runs(60, 600); seed += 1) {
      const random = createRandom(seed);
      const deeds = Array.from({ length: 30 }, () =>
        deed(Math.floor(random() * 400), { author: random() < 0.5 ? 'Jun' : 'Tobin', stepId: random() < 0.5 ? 'crimp.a' : 'seat.a' }),
      );
      const taken = measureTaken(deeds, LIMITS);
      for (const author of ['Jun', 'Tobin']) {
        const at = deeds.filter((one) => one.author === author).map(({ atMs }) => atMs / MINUTE);
        const worked = [...taken.values()].reduce((all, { byAuthor }) => all + (byAuthor.get(author) ?? 0), 0);
        const paused = [...taken.values()].flatMap(({ gaps }) => gaps).filter((one) => one.author === author);
        // work and pauses together are the day
        expect(worked + paused.reduce((all, { minutes }) => all + minutes, 0)).toBeCloseTo(Math.max(...at) - Math.min(...at), 6);
        expect(paused.every(({ minutes, isWork }) => minutes > 10 && !isWork)).toBe(true);
      }
      const totals = (from: readonly TimedDeed[]) =>
        [...measureTaken(from, LIMITS).values()].reduce((all, { minutes }) => all + minutes, 0);
      expect(totals([...deeds].reverse())).toBeCloseTo(totals(deeds), 6);
    }
  });

  test('planned beside taken, by kind of work: of what is done of steps that somebody was timed at', () => {
    const steps = [step('crimp', 4), { ...step('crimp', 2), id: 'crimp.y' }, step('seat', 3)];
    const taken = measureTaken([deed(0, { stepId: 'crimp.x' }), deed(6, { stepId: 'crimp.x' })], LIMITS);
    const isDone = (stepId: string, itemId: string) => stepId === 'crimp.x' && itemId !== 'i3';
    expect(compareTimes([{ steps, minutes: listMinutes(steps, NO_LAYUP, FIGURES), taken, isDone }])).toEqual([
      { operation: 'crimp', items: 3, plannedMin: expect.closeTo(3.6, 6), takenMin: 6 },
    ]);
  });
});

test('a task that does not say what it takes is no task of no time', () => {
  expect(() =>
    listMinutes([createStep('task.t1', 'fabricate', 'Make', { items: [createItem('done', 'made', [], null, [])] })], NO_LAYUP, FIGURES),
  ).toThrow('minutes of step task.t1: expected what it takes, got nothing');
});
