import { CATALOGUE, LARKHOLLOW } from '../../../catalogue';
import { createPinNeed, type PinNeed } from '../../../model';
import { createBench, join } from '../../../testing/createBench';
import { plan } from '../..';
import { createAmbients, measureContactPeak, measureContactRating } from '../../terminate/measureContactRating';

/** A pump on the bench, fed and grounded through contacts of one kind at both ends. */
const createPump = (currentA: number, rest: Partial<PinNeed> = {}) =>
  createBench((loom, job) => {
    loom.ends.A!.familyId = 'pellow-4';
    loom.ends.R!.pins = {
      '1': createPinNeed('supply', 'supply', { volts: 12, currentA, load: 'motor', ...rest }),
      '2': createPinNeed('ground', 'power-ground'),
    };
    loom.circuits = { c1: join('1', 'A-1 R-1', { kind: 'supply' }), c2: join('2', 'A-2 R-2', { kind: 'power-ground' }) };
    job.devices = {};
  });
const feedOf = (job: ReturnType<typeof createPump>) => plan(job, CATALOGUE).looms[0]!.wires.find(({ circuitId }) => circuitId === 'c1')!;

describe('a wire as thick as the contact that bears its current (calculations 3 and 8)', () => {
  const area = (size: string) => CATALOGUE.wires.etfe!.find((one) => one.size === size)!.areaMm2;
  const contactFor = (size: string) =>
    CATALOGUE.contacts.find(
      ({ cavitySize, minAreaMm2, maxAreaMm2 }) => cavitySize === '16s' && area(size) >= minAreaMm2 && area(size) <= maxAreaMm2,
    );
  const fine = contactFor('22');
  const wide = contactFor('14');
  const job = createPump(1);
  const ambientC = createAmbients(job, job.looms.bench!, LARKHOLLOW)(job.looms.bench!.ends.A!.nodeId);
  const bearsA = measureContactRating(fine!, ambientC);

  test('the finer contact bears less than the wider of the same cavity', () => {
    expect(bearsA).toBeCloseTo(0.8 * fine!.currentA * Math.sqrt((fine!.maxC - ambientC) / (fine!.maxC - 20)), 9);
    expect(measureContactRating(wide!, ambientC)).toBeGreaterThan(bearsA);
    expect(wide!.minAreaMm2).toBeGreaterThan(fine!.minAreaMm2);
  });
  test('below what it bears nothing is asked, above it the wire of the wider one', () => {
    expect(feedOf(createPump(0.98 * bearsA)).because).not.toContain('the contact that bears');
    const over = feedOf(createPump(1.02 * bearsA));
    expect(over).toMatchObject({ ruledBy: 'contact' });
    expect(over.because).toMatch(/^the contact that bears [\d.]+ A there takes no thinner wire/);
    expect(over.conductor.areaMm2).toBeGreaterThan(fine!.maxAreaMm2);
    expect(over.conductor.areaMm2).toBeLessThanOrEqual(wide!.maxAreaMm2);
  });
  test('an inrush above its peak asks for it as well', () => {
    const peakA = measureContactPeak(fine!);
    const started = (inrushA: number) => feedOf(createPump(2, { inrushA, inrushMs: 5 })).because;
    expect(started(0.98 * peakA)).not.toContain('the contact that bears');
    expect(started(1.02 * peakA)).toContain('the contact that bears');
  });
});
