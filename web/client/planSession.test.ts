import fc from 'fast-check';
import { CATALOGUE, createPlanner, editDocument, listFindings, type Job } from 'wattograph-core';
import { createInlet, createSkerry } from 'wattograph-core/demo';
import { runs } from '../../core/src/testing/runs';
import { STEP, takeStep } from '../../core/src/testing/takeStep';
import { FINDINGS_MEASURE, PLAN_MEASURE, PlanRunner, type PlanResult } from './planner';
import { createPlanSession, type PlanRequest } from './planSession';

/** A worker as the page sees it: messages are copied on their way, and answered when the test lets it. */
class FakeWorker {
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;
  isEnded = false;
  readonly asked: PlanRequest[] = [];
  readonly rehearsed: boolean[] = [];
  private readonly waiting: PlanRequest[] = [];
  readonly session = createPlanSession(
    () => '2026-01-01',
    () => 0,
  );

  postMessage(request: PlanRequest): void {
    const copy = JSON.parse(JSON.stringify(request)) as PlanRequest;
    this.asked.push(copy);
    this.waiting.push(copy);
  }

  terminate(): void {
    this.isEnded = true;
  }

  /** isChecked false: plans alone, as in a drag whose next plan comes first */
  work(isChecked = true): void {
    for (let next = this.waiting.shift(); next; next = this.waiting.shift()) {
      this.send(this.session.answer(next));
      // what is rehearsed between two messages changes nothing that is answered
      this.rehearsed.push(this.session.rehearse(this.asked.length));
      if (isChecked) this.check();
    }
  }

  check(): void {
    const found = this.session.check();
    if (found) this.send(found);
  }

  private send(data: unknown): void {
    this.onmessage!({ data: JSON.parse(JSON.stringify(data)) as unknown });
  }
}

function open() {
  const workers: FakeWorker[] = [];
  const results: PlanResult[] = [];
  const failures: string[] = [];
  const runner = new PlanRunner(CATALOGUE, () => {
    workers.push(new FakeWorker());
    return workers.at(-1) as unknown as Worker;
  });
  runner.tell(
    (result) => results.push(result),
    (message) => failures.push(message),
  );
  const plan = (job: Job, isChecked = true) => {
    runner.plan(job);
    workers.at(-1)!.work(isChecked);
  };
  return { runner, workers, results, failures, plan };
}

const lengthen = (job: Job, mm: number) =>
  editDocument(job, (draft) => {
    draft.looms.inlet!.segments['s-inj1']!.lengthMm = mm;
  }).next;
const fromNothing = (job: Job) => {
  const plan = createPlanner(CATALOGUE)(job);
  return JSON.parse(JSON.stringify({ ...plan, findings: listFindings(job, plan, CATALOGUE, '2026-01-01') })) as object;
};

test.each([
  ['one loom', createInlet, runs(5, 100)],
  ['four looms', createSkerry, runs(2, 30)],
])('through the messages of the worker, whatever edits follow each other, %s is planned as from nothing', (_, create, numRuns) => {
  fc.assert(
    fc.property(fc.array(fc.tuple(STEP, fc.boolean()), { minLength: 1, maxLength: 8 }), (steps) => {
      const { plan, workers, results, failures } = open();
      let job = create();
      plan(job);
      for (const [step, isChecked] of steps) {
        job = takeStep(job, step);
        plan(job, isChecked);
      }
      workers.at(-1)!.check();
      expect(failures).toEqual([]);
      const { looms, power, findings, job: planned } = results.at(-1)!;
      expect(planned).toEqual(job);
      expect({ looms, power, findings }).toEqual(fromNothing(job));
    }),
    { numRuns, seed: 8 },
  );
});

test('after the first job only what changed is sent', () => {
  const { plan, workers } = open();
  const job = createInlet();
  plan(job);
  plan(lengthen(job, 222));
  expect(workers[0]!.asked.map((one) => ('job' in one ? 'job' : one.patch))).toEqual([
    'job',
    [{ op: 'replace', path: '/looms/inlet/segments/s-inj1/lengthMm', value: 222 }],
  ]);
});

test('a job that says the same is not planned again, and of those that wait only the last', () => {
  const { runner, workers, results } = open();
  const job = createInlet();
  runner.plan(job);
  for (const mm of [201, 202, 203]) runner.plan(lengthen(job, mm));
  workers[0]!.work();
  runner.plan(JSON.parse(JSON.stringify(lengthen(job, 203))) as Job);
  workers[0]!.work();
  expect(workers[0]!.asked).toHaveLength(2);
  expect(results.map((one) => one.job.looms.inlet!.segments['s-inj1']!.lengthMm)).toEqual([
    job.looms.inlet!.segments['s-inj1']!.lengthMm,
    203,
    // its findings
    203,
  ]);
});

test('what leaves the machine to the plan waits for the last that is asked for, and not for ever', async () => {
  const { runner, workers, plan } = open();
  const job = createInlet();
  const isOver = async (mostMs: number) => {
    let over = false;
    const calm = runner.calm(mostMs).then(() => (over = true));
    await Promise.resolve();
    await Promise.resolve();
    return { calm, now: () => over };
  };
  expect((await isOver(60_000)).now()).toBe(true);
  runner.plan(job);
  runner.plan(lengthen(job, 201));
  const waits = await isOver(60_000);
  expect(waits.now()).toBe(false);
  workers[0]!.work();
  await waits.calm;
  // one whose worker stops, or is slow
  runner.plan(lengthen(job, 202));
  const stops = await isOver(60_000);
  workers[0]!.onerror!({ message: 'gone' });
  await stops.calm;
  plan(lengthen(job, 203));
  runner.plan(lengthen(job, 204));
  const slow = await isOver(1);
  expect(slow.now()).toBe(false);
  await slow.calm;
  expect(slow.now()).toBe(true);
});

test('each plan leaves one measure, with its number', () => {
  const { plan } = open();
  const job = createInlet();
  plan(job);
  plan(lengthen(job, 222));
  const measures = [PLAN_MEASURE, FINDINGS_MEASURE].map((name) => performance.getEntriesByName(name) as PerformanceMeasure[]);
  expect(measures.map((ones) => ones.map(({ detail }) => detail as unknown))).toEqual([[{ sequence: 2, ms: 0 }], [{ sequence: 2, ms: 0 }]]);
});

describe('findings', () => {
  test('come with the first plan, and after a later one, whose looms stay the same objects', () => {
    const { plan, results } = open();
    const job = createInlet();
    plan(job);
    expect(results).toHaveLength(1);
    expect(results[0]!.findings).toEqual((fromNothing(job) as PlanResult).findings);
    const next = editDocument(job, (draft) => void delete draft.looms.inlet!.circuits.c205).next;
    plan(next);
    expect(results).toHaveLength(3);
    const [before, first, last] = results as [PlanResult, PlanResult, PlanResult];
    expect(first.findings).toBe(before.findings);
    expect(last.findings).toEqual((fromNothing(next) as PlanResult).findings);
    expect(last.findings).not.toEqual(first.findings);
    expect(last.looms).toBe(first.looms);
  });

  test('of a plan that was overtaken are left out, and those of the last one are told against what the page has', () => {
    const { plan, results } = open();
    const job = createInlet();
    plan(job);
    const without = (...ids: string[]) =>
      editDocument(job, (draft) => ids.forEach((id) => void delete draft.looms.inlet!.circuits[id])).next;
    plan(without('c205'), false);
    plan(without('c205', 'c201'), false);
    expect(results.map(({ findings }) => findings === results[0]!.findings)).toEqual([true, true, true]);
    plan(without('c201'));
    expect(results.at(-1)!.findings).toEqual((fromNothing(without('c201')) as PlanResult).findings);
  });

  test('that say the same draw nothing again', () => {
    const { plan, results } = open();
    const job = createInlet();
    plan(job);
    plan(editDocument(job, (draft) => void (draft.name = 'another')).next);
    expect(results).toHaveLength(2);
  });
});

test('what the planner refuses is told, and the next job is sent whole', () => {
  const { plan, workers, results, failures } = open();
  const job = createInlet();
  plan(job);
  plan({ ...job, standardId: 'nobody knows' });
  expect(failures).toEqual([expect.stringContaining('got "nobody knows"')]);
  expect(workers[0]!.rehearsed).toEqual([true, false]);
  plan(lengthen(job, 222));
  expect('job' in workers[0]!.asked[2]!).toBe(true);
  expect(results.at(-1)!.looms).toEqual((fromNothing(lengthen(job, 222)) as PlanResult).looms);
});

describe('a plan that was made elsewhere', () => {
  const given = (job: Job) => ({ job, text: JSON.stringify(fromNothing(job)) });

  test('is shown before the worker has one, once, and what follows is told against it', async () => {
    const { runner, workers, results, plan } = open();
    const job = createInlet();
    const held = runner.hold(Promise.resolve(given(job)));
    runner.plan(job);
    expect(workers[0]!.asked).toEqual([]);
    await held;
    expect(results.map(({ looms, power, findings }) => ({ looms, power, findings }))).toEqual([fromNothing(job)]);
    workers[0]!.work();
    expect(results).toHaveLength(1);
    plan(lengthen(job, 222));
    const { looms, power, findings } = results.at(-1)!;
    expect({ looms, power, findings }).toEqual(fromNothing(lengthen(job, 222)));
    expect(looms[0]!.terminations[0]).toBe(results[0]!.looms[0]!.terminations[0]);
  });

  test('that is another one is put right by the worker', async () => {
    const { runner, workers, results } = open();
    const job = createInlet();
    const held = runner.hold(Promise.resolve({ job, text: given(lengthen(job, 400)).text }));
    runner.plan(job);
    await held;
    workers[0]!.work();
    // the given one, the right one, and that with its findings
    expect(results.map(({ looms, findings }) => ({ looms, findings }))).toEqual(
      [
        [lengthen(job, 400), lengthen(job, 400)],
        [job, lengthen(job, 400)],
        [job, job],
      ].map(([of, found]) => ({
        looms: (fromNothing(of!) as PlanResult).looms,
        findings: (fromNothing(found!) as PlanResult).findings,
      })),
    );
  });

  test.each([
    ['there is none', (): null => null],
    ['something else answered', (job: Job) => ({ job, text: '<html>Sign in</html>' })],
    ['the job changed meanwhile', (): { job: Job; text: string } => given(createInlet())],
  ])('is not shown where %s', async (_, come) => {
    const { runner, workers, results } = open();
    const job = createInlet();
    const held = runner.hold(Promise.resolve(come(job)));
    runner.plan(job);
    await held;
    expect(results).toEqual([]);
    workers[0]!.work();
    expect(results.map(({ looms }) => ({ looms }))).toEqual([{ looms: (fromNothing(job) as PlanResult).looms }]);
  });
});

test('a worker that stops is replaced, and what waited is planned by the new one', () => {
  const { runner, workers, results, failures } = open();
  const job = createInlet();
  runner.plan(job);
  runner.plan(lengthen(job, 222));
  workers[0]!.onerror!({ message: 'out of memory' });
  expect([failures, workers.map(({ isEnded }) => isEnded)]).toEqual([['out of memory'], [true, false]]);
  workers[1]!.work();
  expect(results.map((one) => one.job.looms.inlet!.segments['s-inj1']!.lengthMm)).toEqual([222]);
  // one that cannot even be loaded is not tried again until something is asked
  workers[1]!.onerror!({ message: 'not found' });
  expect(workers).toHaveLength(2);
  runner.plan(job);
  expect(workers).toHaveLength(3);
});
