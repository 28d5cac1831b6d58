import { CATALOGUE } from '../catalogue';
import { createRandom, createRandomJob } from '../demo/generate';
import type { Job } from '../model';
import { createPlanner, findStandard, measureSegment } from '../plan';

// not by estimate: what is only guessed is held and never cut
const METHODS = ['tape', 'rope', 'board', 'drawing'] as const;
const ROUTES = 8;

/** An error of a reading, drawn for its one sigma; mm. */
export type ErrorLaw = (sigmaMm: number, random: () => number) => number;

/** Anywhere within one sigma of the reading. */
export const withinSigma: ErrorLaw = (sigmaMm, random) => (2 * random() - 1) * sigmaMm;

/** The normal law with that sigma (Box and Muller, Annals of Mathematical Statistics 29, 1958). */
export const normal: ErrorLaw = (sigmaMm, random) => sigmaMm * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/**
 * How many wires of random looms, rough cut by readings and then fitted with errors of a law, were cut long enough.
 * Seeded: the same seed gives the same cases. Eight routes, measured in other ways and turning out otherwise each time.
 */
export function measureCoverage(seed: number, leastWires: number, law: ErrorLaw): { wires: number; share: number } {
  const planner = createPlanner(CATALOGUE);
  let wires = 0;
  let covered = 0;
  for (let serial = 0; wires < leastWires; serial += 1) {
    const random = createRandom(seed + serial);
    const job: Job = createRandomJob(seed + (serial % ROUTES), 200);
    const { segments } = job.looms.random!;
    const standard = findStandard(job, CATALOGUE);
    for (const [id, segment] of Object.entries(segments)) {
      const read = { ...segment, method: METHODS[Math.floor(random() * METHODS.length)]! };
      const { lengthMm, sigmaMm } = measureSegment(read, standard);
      segments[id] = { ...read, status: 'fitted', fittedMm: Math.max(1, lengthMm + law(sigmaMm, random)) };
    }
    for (const { firstCutMm, cutMm } of planner(job).looms[0]!.wires) {
      wires += 1;
      if (firstCutMm >= cutMm) covered += 1;
    }
  }
  return { wires, share: covered / wires };
}
