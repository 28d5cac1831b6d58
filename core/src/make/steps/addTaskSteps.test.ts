import fc from 'fast-check';
import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { createTask, TASK_BEFORE, TASK_KINDS, TIME_DEFAULTS, type Job, type Task, type TaskBefore } from '../../model';
import { createPlanner } from '../../plan';
import { runs } from '../../testing/runs';
import { carryOver } from '../carryOver';
import { createBuild } from '../createBuild';
import type { Operation, Step } from '../step';
import { listMinutes } from '../times';

const planner = createPlanner(CATALOGUE);
const base = { ...createCleanSkerry(), tasks: {} };
const planned = planner(base).looms.find(({ loomId }) => loomId === 'gearbox')!;
const gearbox = base.looms.gearbox!;
const build = (tasks: Job['tasks']): Step[] => createBuild({ ...base, tasks }, planned, CATALOGUE).steps;
const plain = build({});
const needsOf = (steps: readonly Step[], task: string) => steps.filter(({ needs }) => needs.some(({ stepId }) => stepId === task));

const places = [
  { loomId: 'gearbox', kind: 'loom' as const, id: 'gearbox' },
  ...Object.keys(gearbox.ends).map((id) => ({ loomId: 'gearbox', kind: 'end' as const, id })),
  ...Object.keys(gearbox.segments).map((id) => ({ loomId: 'gearbox', kind: 'segment' as const, id })),
  { loomId: 'inlet', kind: 'loom' as const, id: 'inlet' },
];
/** What waits, by its own words: of one kind of work everything, of another what is at the place. */
const WHOLE: readonly TaskBefore[] = ['cut', 'fit', 'route', 'clip', 'sign'];
const COVERING: readonly Operation[] = ['cover', 'boot', 'shrink', 'close'];
const isOf = (operation: Operation, before: TaskBefore) => (before === 'cover' ? COVERING.includes(operation) : operation === before);

describe('what is waited for beside the work on a loom (craft D5, I7)', () => {
  test('whatever tasks there are: each is done before what it names, where it is for, and before the signature; nothing else waits', () => {
    const task = fc.record({
      kind: fc.constantFrom(...TASK_KINDS),
      before: fc.constantFrom(...TASK_BEFORE),
      at: fc.uniqueArray(fc.constantFrom(...places), { maxLength: 3 }),
    });
    fc.assert(
      fc.property(fc.array(task, { minLength: 1, maxLength: 4 }), (list) => {
        const tasks = Object.fromEntries(
          list.map(({ kind, before, at }, index) => [`t${index}`, createTask(kind, `task ${index}`, 5, { before, places: at })]),
        );
        const steps = build(tasks);
        const order = new Map(steps.map(({ id }, index) => [id, index]));
        list.forEach(({ kind, before, at }, index) => {
          const id = `task.t${index}`;
          const here = at.filter(({ loomId }) => loomId === 'gearbox');
          expect(steps.some((step) => step.id === id && step.operation === kind)).toBe(here.length > 0);
          const waiting =
            here.length === 0
              ? []
              : steps.filter(
                  ({ operation, endId, segmentId }) =>
                    operation === 'sign' ||
                    (isOf(operation, before) &&
                      (WHOLE.includes(before) ||
                        here.some(
                          (one) =>
                            one.kind === 'loom' ||
                            (one.kind === 'end' && one.id === endId) ||
                            (one.kind === 'segment' && one.id === segmentId),
                        ))),
                );
          expect(needsOf(steps, id).map((step) => step.id)).toEqual(waiting.map((step) => step.id));
          for (const step of waiting) expect(order.get(step.id)!).toBeGreaterThan(order.get(id)!);
        });
        // and the rest of the work is what it was
        expect(
          steps
            .filter(({ id }) => !id.startsWith('task.'))
            .map(({ id, items }) => [id, items.length])
            .sort(),
        ).toEqual(plain.map(({ id, items }) => [id, items.length]).sort());
      }),
      { numRuns: runs(25, 400) },
    );
  });

  const weld: Task = createTask('fabricate', 'stud on the selector housing', 45, {
    ...{ where: 'upper left', before: 'fit', hazards: ['weld'], owner: 'Jun Okafor', due: '2027-01-15' },
    places: [{ loomId: 'gearbox', kind: 'segment', id: 'r-selector' }],
  });
  const [step] = build({ t1: weld }).filter(({ id }) => id === 'task.t1');

  test('it says where, for what, who and by when, what can hurt, and takes the minutes that it says', () => {
    expect(step).toMatchObject({ title: 'Make: stud on the selector housing', operation: 'fabricate' });
    expect(step!.items[0]!.words).toBe('made, in its place (upper left; valve block to selector; Jun Okafor sees to it; by 2027-01-15)');
    expect(step!.caution).toMatch(/^Battery negative off.*controller unplugged first/);
    expect(build({ t1: { ...weld, hazards: [] } }).find(({ id }) => id === 'task.t1')!.caution).not.toMatch(/unplugged/);
    expect(listMinutes([step!], planned, TIME_DEFAULTS.minutes).get('task.t1 done')).toBe(45);
  });

  test.each<[string, Partial<Task>, 'carried' | 'reopened']>([
    ['another owner', { owner: 'Imke Dorsey' }, 'carried'],
    ['another day', { due: null }, 'carried'],
    ['more minutes', { minutes: 90 }, 'carried'],
    ['something else', { what: 'two studs on the selector housing' }, 'reopened'],
    ['somewhere else', { where: 'lower right' }, 'reopened'],
    ['before other work', { before: 'route' }, 'reopened'],
  ])('%s in a later revision: what was done is %s', (_, rest, expected) => {
    const work = carryOver([
      { number: 1, steps: build({ t1: weld }), ticks: [{ stepId: 'task.t1', itemId: 'done', kind: 'tick' }] },
      { number: 2, steps: build({ t1: { ...weld, ...rest } }), ticks: [] },
    ]);
    expect([work.carried.length, work.reopened.length]).toEqual(expected === 'carried' ? [1, 0] : [0, 1]);
  });
});
