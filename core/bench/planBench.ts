import { measureCoverage, normal, withinSigma } from '../src/testing/measureCoverage';
import { CATALOGUE } from '../src/catalogue';
import { createRandomJob } from '../src/demo/createRandomJob';
import { createInlet, createSkerry } from '../src/demo';
import { editDocument, type Job } from '../src/model';
import { createPlanner, plan } from '../src/plan';

const SIZES = [50, 200, 800, 3200];
const SEED = 1;

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

function measure(times: number, work: (round: number) => void): number {
  return median(
    Array.from({ length: times }, (_, round) => {
      const started = performance.now();
      work(round);
      return performance.now() - started;
    }),
  );
}

/** A new length for one run, another each round. */
function lengthen(job: Job, round: number): Job {
  return editDocument(job, (draft) => {
    const loom = Object.values(draft.looms)[0]!;
    const id = Object.keys(loom.segments)[round % Object.keys(loom.segments).length]!;
    loom.segments[id]!.lengthMm += 7;
  }).next;
}

/** Median times of a full plan from nothing (a new planner each time) and of one length edit (a planner that knows the job). */
function report(): void {
  const medians = new Map<number, number>();
  console.log('wires asked   planned   segments   full plan ms   one edit ms   heap MB');
  for (const size of SIZES) {
    const job = createRandomJob(SEED, size);
    const rounds = size >= 3200 ? 7 : size >= 800 ? 15 : 31;
    for (let warm = 0; warm < 5; warm += 1) plan(job, CATALOGUE);
    const full = measure(rounds, () => plan(job, CATALOGUE));
    const planner = createPlanner(CATALOGUE);
    let edited = job;
    planner(edited);
    const edit = measure(rounds, (round) => {
      edited = lengthen(edited, round);
      planner(edited);
    });
    medians.set(size, full);
    const { wires, bundles } = plan(job, CATALOGUE).looms[0]!;
    const heap = process.memoryUsage().heapUsed / 1e6;
    console.log(
      [
        String(size).padStart(11),
        String(wires.length).padStart(9),
        String(bundles.length).padStart(10),
        full.toFixed(1).padStart(14),
        edit.toFixed(1).padStart(13),
        heap.toFixed(0).padStart(9),
      ].join(' '),
    );
  }
  const skerry = createInlet();
  for (let warm = 0; warm < 5; warm += 1) plan(skerry, CATALOGUE);
  const engine = createSkerry();
  console.log(`demo job, ${Object.keys(engine.looms).length} looms: full plan ${measure(15, () => plan(engine, CATALOGUE)).toFixed(1)} ms`);
  console.log(`demo inlet loom: full plan ${measure(31, () => plan(skerry, CATALOGUE)).toFixed(1)} ms`);
  const ratio = medians.get(3200)! / medians.get(200)!;
  console.log(`3,200 wires take ${ratio.toFixed(1)} × the time of 200: growth exponent ${(Math.log(ratio) / Math.log(16)).toFixed(2)}`);
}

function reportCoverage(): void {
  for (const [words, law] of [
    ['anywhere within one sigma', withinSigma],
    ['of the normal law', normal],
  ] as const) {
    const { wires, share } = measureCoverage(1000, 10_000, law);
    console.log(`rough cut, errors ${words}: ${(100 * share).toFixed(2)} % of ${wires} wires long enough as fitted`);
  }
}

report();
reportCoverage();
