import { measureCoverage, normal, withinSigma } from '../src/testing/measureCoverage';
import { CATALOGUE } from '../src/catalogue';
import { createRandomJob } from '../src/demo/createRandomJob';
import { createCleanSkerry, createInlet, createSkerry } from '../src/demo';
import { createRandomVehicle } from '../src/demo/createRandomVehicle';
import { assignPins } from '../src/edit';
import { editDocument, type Job } from '../src/model';
import { reportLayups } from './layupBench';
import { createPlanner, findStandard, plan } from '../src/plan';

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

/** The demo job with all its looms, and made-up vehicles of many. */
function reportVehicles(): void {
  const job = createSkerry();
  for (let warm = 0; warm < 24; warm += 1) plan(job, CATALOGUE);
  const planner = createPlanner(CATALOGUE);
  let edited = job;
  const { power, looms } = planner(job);
  const wires = looms.reduce((sum, one) => sum + one.wires.length, 0);
  console.log(
    `demo job, ${looms.length} looms, ${wires} wires: full plan ${measure(25, () => plan(job, CATALOGUE)).toFixed(1)} ms, settled in ${power.rounds} rounds`,
  );
  for (const [loomId, segmentId] of [
    ['inlet', 's-inj1'],
    ['chassis', 'r-radiator-fan'],
  ] as const) {
    const lengthen = () => {
      edited = editDocument(edited, (draft) => {
        draft.looms[loomId]!.segments[segmentId]!.lengthMm += 3;
      }).next;
      planner(edited);
    };
    // warm as the full plans are
    for (let warm = 0; warm < 24; warm += 1) lengthen();
    const one = measure(25, lengthen);
    console.log(`demo job: one length edit in the ${loomId} loom ${one.toFixed(1)} ms`);
  }
  const bare = createCleanSkerry();
  for (const [id, { kind }] of Object.entries(bare.looms.chassis!.circuits))
    if (kind !== 'power-ground' && !/^c10[1-6]$/.test(id)) delete bare.looms.chassis!.circuits[id];
  const standard = findStandard(bare, CATALOGUE);
  const { assigned } = assignPins(bare, CATALOGUE, standard);
  console.log(
    `assignment of ${assigned.length} needs of the demo job: ${measure(15, () => assignPins(bare, CATALOGUE, standard)).toFixed(1)} ms`,
  );
  const { copper } = plan(createCleanSkerry(), CATALOGUE).power;
  console.log(
    `copper of feeds and returns: ${copper.massG.toFixed(0)} g; with one size throughout each tree ${copper.oneSizeMassG.toFixed(0)} g (${((1 - copper.massG / copper.oneSizeMassG) * 100).toFixed(1)} % saved)`,
  );
  const times = [200, 800, 3200].map((size) => {
    const vehicle = createRandomVehicle(SEED, size);
    plan(vehicle, CATALOGUE);
    const ms = measure(size >= 3200 ? 5 : 11, () => plan(vehicle, CATALOGUE));
    console.log(`made-up vehicle, ${Object.keys(vehicle.looms).length} looms, about ${size} wires: ${ms.toFixed(0)} ms`);
    return ms;
  });
  console.log(`growth exponent over whole vehicles ${(Math.log(times[2]! / times[0]!) / Math.log(16)).toFixed(2)}`);
}

// the demo first: what the largest looms leave on the heap would slow it
reportVehicles();
reportLayups();
report();
reportCoverage();
