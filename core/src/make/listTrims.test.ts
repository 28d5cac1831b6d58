import { CATALOGUE } from '../catalogue';
import { createBrief, type Job, type Segment } from '../model';
import { createPlanner, findStandard } from '../plan';
import { createBench } from '../testing/createBench';
import { measureCoverage, normal, withinSigma } from '../testing/measureCoverage';
import { listTrims } from './listTrims';

const standard = findStandard({ standardId: 'larkhollow', brief: createBrief() }, CATALOGUE);
const planner = createPlanner(CATALOGUE);
const only = (job: Job) => planner(job).looms[0]!;
const fit = (segment: Segment, fittedMm: number): Segment => ({ ...segment, status: 'fitted', fittedMm });

test('what comes off each wire end, worked by hand', () => {
  const job = createBench((loom) => {
    loom.segments = { s1: fit(loom.segments.s1!, 290), s2: fit(loom.segments.s2!, 108), s3: loom.segments.s3! };
  });
  const [left, right] = listTrims(job.looms.bench!, only(job));
  // T-1: path 300 + 100; half of the 3 wires' bundle at the fork; Hollin 22 and Tarn 14 deep, stripped 4 and 4.5; two terminations of 8 mm at each end
  const bundle = only(job).bundles.find(({ segmentId }) => segmentId === 's1')!.odMm;
  const allowances = bundle / 2 + 22 + 14 + 4 + 4.5 + 2 * 2 * 8;
  const sigma = Math.hypot(5, 5, 0.005 * (300 + 100));
  const up = (mm: number) => Math.ceil(mm / 5 - 1e-9) * 5;
  const cutMm = up(400 + allowances + Math.max(50, 2 * sigma));
  const finalMm = up(398 + allowances);
  expect(left).toMatchObject({ endId: 'L', name: 'left' });
  expect(left!.trims[0]).toEqual({ wireId: 'c1.1', number: 'T-1', cutMm, finalMm, offMm: cutMm - finalMm, waitsFor: [] });
  expect(right!.trims[0]).toMatchObject({ number: 'T-2', finalMm: null, offMm: null, waitsFor: ['right'] });
});

test('lengths that are known to have been cut count before the readings; too short shows as less than nothing', () => {
  const job = createBench((loom) => {
    loom.segments = { s1: fit(loom.segments.s1!, 300), s2: fit(loom.segments.s2!, 100), s3: loom.segments.s3! };
  });
  const finalMm = only(job).wires.find(({ number }) => number === 'T-1')!.cutMm;
  const trimOf = (cut: number) => listTrims(job.looms.bench!, only(job), new Map([['T-1', cut]]))[0]!.trims[0]!;
  expect(trimOf(700)).toMatchObject({ cutMm: 700, offMm: 700 - finalMm });
  expect(trimOf(finalMm - 15).offMm).toBe(-15);
});

test('a wire is trimmed at its end further from the datum, one between splices at a splice', () => {
  const job = createBench();
  const groups = listTrims(job.looms.bench!, only(job));
  expect(groups.map(({ name, trims }) => `${name}: ${trims.map(({ number }) => number).join(' ')}`)).toEqual([
    'left: T-1 T-3C',
    'right: T-2 T-3B',
    'at splices: T-3A',
  ]);
});

describe('10,000 wires in random looms, fitted with errors drawn from the stated bands', () => {
  test('errors anywhere within one sigma of each reading: every wire is long enough', () => {
    const { wires, share } = measureCoverage(1000, 10_000, withinSigma);
    expect(wires).toBeGreaterThanOrEqual(10_000);
    expect(share).toBe(1);
  });
  test('errors of the normal law with that sigma: two sigma on one side, so at least 97.7 % are long enough', () => {
    expect(measureCoverage(5000, 10_000, normal).share).toBeGreaterThanOrEqual(0.977);
  });
});

test('the first cut follows the readings alone, whatever was fitted', () => {
  const before = only(createBench());
  const after = only(
    createBench((loom) => {
      for (const id of Object.keys(loom.segments)) loom.segments[id] = fit(loom.segments[id]!, loom.segments[id]!.lengthMm + 31);
    }),
  );
  for (const [index, wire] of after.wires.entries()) expect(wire.firstCutMm).toBe(before.wires[index]!.roughMm);
  expect(standard.roughExtraMm).toBe(50);
});
