import { CATALOGUE, createLookup } from '../../catalogue';
import { createSkerry } from '../../demo';
import { createBench } from '../../testing/createBench';
import { checkJob, createDevice, createOpenItem, isBlocking, toProblemLines, type Job } from '..';

const lookup = createLookup(CATALOGUE);
const lines = (change: (job: Job) => void): string[] => {
  const job = structuredClone(createBench());
  change(job);
  const checked = checkJob(job, lookup);
  return checked.ok ? [] : toProblemLines(checked.problems);
};
const second = (job: Job) => {
  job.looms.other = structuredClone(job.looms.bench!);
  job.looms.other.prefix = 'X';
};

test('the demo passes the gate with devices, mates and open items', () => expect(checkJob(createSkerry(), lookup).ok).toBe(true));

describe('references of the brief', () => {
  test.each<[string, (job: Job) => void, string]>([
    [
      'a template that nobody has',
      (job) => void (job.devices.d = createDevice('x', 'y', { templateId: 'nothing' })),
      '/devices/d/templateId: expected a device template of the catalogue or of this job, got "nothing"',
    ],
    [
      'a zone of another job',
      (job) => void (job.devices.d = createDevice('x', 'y', { zoneId: 'moon' })),
      '/devices/d/zoneId: expected a zone of this job, got "moon"',
    ],
    [
      'a loom that is not there',
      (job) => void (job.devices.d = createDevice('x', 'y', { at: { loomId: 'no', endId: 'L' } })),
      '/devices/d/at/loomId: expected a loom of this job, got "no"',
    ],
    [
      'an end that is not there',
      (job) => void (job.devices.d = createDevice('x', 'y', { at: { loomId: 'bench', endId: 'Z' } })),
      '/devices/d/at/endId: expected an end of loom "bench", got "Z"',
    ],
    [
      'two devices at one end',
      (job) => {
        for (const id of ['d', 'e']) job.devices[id] = createDevice(id, 'y', { at: { loomId: 'bench', endId: 'L' } });
      },
      '/devices/e/at: expected one device at an end, got "d" and "e" at "L"',
    ],
    [
      'a mate of an end that is not there',
      (job) => void (job.mates.m = { a: { loomId: 'bench', endId: 'Z' }, b: { loomId: 'bench', endId: 'L' } }),
      '/mates/m/a/endId: expected an end of loom "bench", got "Z"',
    ],
    [
      'an end that mates twice',
      (job) => {
        second(job);
        job.mates = {
          m: { a: { loomId: 'bench', endId: 'A' }, b: { loomId: 'other', endId: 'A' } },
          n: { a: { loomId: 'bench', endId: 'A' }, b: { loomId: 'other', endId: 'L' } },
        };
      },
      '/mates/n/a: expected an end to mate once, got mates "m" and "n" at "A"',
    ],
    [
      'a fitted status without a length',
      (job) => void (job.looms.bench!.segments.s1!.status = 'fitted'),
      '/looms/bench/segments/s1/fittedMm: expected the fitted length in mm, got null',
    ],
    [
      'a fitted length without the status',
      (job) => void (job.looms.bench!.segments.s1!.fittedMm = 300),
      '/looms/bench/segments/s1/fittedMm: expected null for a run that is roped, got 300',
    ],
    [
      'a day that is none',
      (job) => void (job.brief.promisedOn = '2026-13-01'),
      '/brief/promisedOn: expected string or null, got "2026-13-01"',
    ],
    [
      'a decision that is none',
      (job) => void (job.devices.d = { ...createDevice('x', 'y'), decision: 'sell' as never }),
      '/devices/d/decision: expected one of "fit", "keep", "remove", "repurpose", "later", got "sell"',
    ],
  ])('%s is refused with its place', (_, change, expected) => expect(lines(change)).toContain(expected));
  test('a template of the job counts', () =>
    expect(
      lines((job) => {
        job.deviceTemplates.mine = { name: 'mine', system: 'x', familyId: null, pins: {}, hazard: null, note: '', offers: {}, links: {} };
        job.devices.d = createDevice('x', 'y', { templateId: 'mine' });
      }),
    ).toEqual([]));
});

describe('what blocks', () => {
  const blocks = [{ loomId: 'bench', kind: 'loom' as const, id: 'bench' }];
  test.each([
    ['an open question', createOpenItem('x', { blocks }), true],
    ['one that blocks nothing', createOpenItem('x'), false],
    ['an answered one', createOpenItem('x', { blocks, answer: 'y', evidence: 'read' }), false],
    ['one answered by a guess', createOpenItem('x', { blocks, answer: 'y', evidence: 'guessed' }), true],
    ['an open assumption', createOpenItem('x', { blocks, kind: 'assumption' }), true],
    ['a concession', createOpenItem('x', { blocks, kind: 'concession' }), false],
  ])('%s: %p', (_, item, expected) => expect(isBlocking(item)).toBe(expected));
});
