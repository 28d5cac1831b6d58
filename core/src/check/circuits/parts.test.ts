import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { listFindings } from '../../make';
import { applyEdit, type InlinePart, type Job } from '../../model';
import { createPlanner } from '../../plan';
import type { Finding } from '../types';

const planner = createPlanner(CATALOGUE);
const find = (job: Job, code: string): Finding[] =>
  listFindings(job, planner(job), CATALOGUE, null).filter((finding) => finding.code === code);

/** The clean demo with one more part at a named end of the chassis loom. */
function withPart(endName: string, cavities: [string, string], part: Partial<InlinePart> = {}): Job {
  const job = createCleanSkerry();
  const [endId] = Object.entries(job.looms.chassis!.ends).find(([, { name }]) => name === endName)!;
  job.parts = {
    probe: {
      kind: 'resistor',
      ohms: 1000,
      watts: 0.5,
      at: { loomId: 'chassis', endId, cavities },
      inside: false,
      reason: 'stands in for the old lamp',
      ...part,
    },
  };
  return job;
}
const mend = (job: Job, [finding]: Finding[]): Job => {
  const applied = applyEdit(job, finding!.fix!.patch);
  if (!applied.ok) throw new Error(applied.problems[0]!.message);
  return applied.value;
};

describe('CI17: what a resistor gives off', () => {
  test('12.5 V across 1 kΩ is 0.16 W: half a watt bears it', () => {
    expect(find(withPart('brake light', ['1', '2']), 'CI17')).toEqual([]);
  });
  test('across 47 Ω it is 3.3 W: half a watt burns, and one of 10 W runs at a third', () => {
    const job = withPart('brake light', ['1', '2'], { ohms: 47 });
    const found = find(job, 'CI17');
    expect(found).toMatchObject([
      {
        grade: 'stop',
        sentence:
          'The resistor of 47 Ω between brake light 1 and 2 gives off 3.3 W between 12.5 V and 0 V; it may give off 0.5 W, and burns.',
        limit: 0.5,
        fix: { label: 'Take one of 10 W' },
      },
    ]);
    expect(found[0]!.measured).toBeCloseTo(12.5 ** 2 / 47, 9);
    expect(find(mend(job, found), 'CI17')).toEqual([]);
  });
  test('one that nobody rated is asked about', () => {
    const [found] = find(withPart('brake light', ['1', '2'], { ohms: 220, watts: null }), 'CI17');
    expect(found).toMatchObject({ grade: 'check', limit: null, fix: { label: 'Take one of 2 W' } });
    expect(found!.sentence).toMatch(/what it may give off is not known\.$/);
  });
  test('a pull-up to 5 V counts 5 V, and one to a signal nothing that is not known', () => {
    const [found] = find(withPart('damper front left', ['1', '2'], { kind: 'pull-up', ohms: 50, watts: 0.25 }), 'CI17');
    expect(found!.measured).toBeCloseTo(0.5, 9);
    expect(find(withPart('damper front left', ['1', '3'], { kind: 'pull-up', ohms: 50, watts: 0.25 }), 'CI17')).toEqual([]);
  });
  test('what no resistor bears has no fix; a diode gives off nothing by ohms', () => {
    expect(find(withPart('brake light', ['1', '2'], { ohms: 0.1 }), 'CI17')).toMatchObject([{ grade: 'stop', fix: null }]);
    expect(find(withPart('brake light', ['1', '2'], { kind: 'diode', ohms: null, watts: null }), 'CI17')).toEqual([]);
  });
  test('one that is built into a device is not ours to change', () => {
    expect(find(withPart('brake light', ['1', '2'], { ohms: 47, inside: true }), 'CI17')).toMatchObject([{ grade: 'stop', fix: null }]);
  });
});

describe('CI16: a part that does nothing', () => {
  test('where a leg is not wired any more; the fix takes it out', () => {
    const job = withPart('brake light', ['1', '2']);
    const { endId } = job.parts.probe!.at;
    for (const circuit of Object.values(job.looms.chassis!.circuits))
      circuit.terminations = circuit.terminations.filter((one) => one.endId !== endId || one.cavity !== '2');
    const found = find(job, 'CI16');
    expect(found.map(({ sentence }) => sentence)).toEqual([
      'The resistor of 1000 Ω between brake light 1 and 2 does nothing: no circuit reaches 2.',
    ]);
    expect(mend(job, found).parts).toEqual({});
  });
  test('where both legs are on one circuit', () => {
    const job = withPart('controller plug B', ['3', '4']);
    const loom = job.looms.chassis!;
    const { endId } = job.parts.probe!.at;
    const at = (cavity: string) =>
      Object.entries(loom.circuits).find(([, { terminations }]) =>
        terminations.some((one) => one.endId === endId && one.cavity === cavity),
      )!;
    const [[, one], [id, other]] = [at('3'), at('4')];
    if (one !== other) {
      one.terminations.push(...other.terminations.filter(({ cavity, endId: end }) => end === endId && cavity === '4'));
      delete loom.circuits[id];
    }
    expect(find(job, 'CI16')[0]!.sentence).toMatch(/both its legs are on one circuit\.$/);
  });
  test('not where it is built into the device, and not in the demo', () => {
    const job = withPart('brake light', ['1', '2'], { inside: true });
    job.parts.probe!.at.cavities = ['1', '9'];
    expect(find(job, 'CI16')).toEqual([]);
    expect(find(createCleanSkerry(), 'CI16')).toEqual([]);
  });
});
