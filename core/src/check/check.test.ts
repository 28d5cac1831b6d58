import { CATALOGUE, createLookup } from '../catalogue';
import { createSkerry } from '../demo';
import { listFindings } from '../make';
import { applyEdit, checkJob, type Job, type Loom } from '../model';
import { plan } from '../plan';
import { createBench, join } from '../testing/createBench';
import { type RULES } from './index';

const findings = (job: Job) => listFindings(job, plan(job, CATALOGUE), CATALOGUE);
const codes = (job: Job) => findings(job).map(({ code }) => code);
const spoilt = (change: (loom: Loom, job: Job) => void) => createBench(change);

test('the clean bench has no finding', () => expect(findings(createBench())).toEqual([]));

describe('each rule finds what it is meant for', () => {
  const cases: Record<Exclude<keyof typeof RULES, never>, (loom: Loom, job: Job) => void> = {
    SC1: (loom) => {
      loom.segments.s2 = { ...loom.segments.s2!, status: 'guessed' };
    },
    SC3: (loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, secondLengthMm: 320 };
    },
    CI1: (loom) => {
      loom.ends.L = { ...loom.ends.L!, pins: { '3': { function: 'screen', kind: 'screen', required: true } } };
    },
    CI2: (loom) => {
      loom.circuits.c9 = join('9', 'A-9');
    },
    RO1: (loom) => {
      loom.nodes.b1 = { ...loom.nodes.b1!, kind: 'breakout', holeMm: 18 };
    },
    RO2: (loom, job) => {
      job.zones.hot = { ...job.zones.hot!, ambientC: 200 };
      loom.segments.s1 = { ...loom.segments.s1!, zoneId: 'hot' };
    },
    BU1: (loom) => {
      loom.splicePins['c3@b1'] = { segmentId: 's1', offsetMm: 282, reason: 'x' };
    },
    BU2: (loom) => {
      loom.circuits.c3 = { ...loom.circuits.c3!, sizePin: { size: '8', reason: 'x' } };
    },
    DR1: (loom) => {
      loom.segments.s2 = { ...loom.segments.s2!, slideOn: 'after-ends' };
    },
    DR2: (loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, coveringPin: { kind: 'shrink', itemId: 'shrink-38', reason: 'x' } };
    },
    DR3: (loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, zoneId: 'wet', coveringPin: { kind: 'shrink', itemId: null, reason: 'x' } };
    },
    EN1: (loom) => {
      loom.circuits.c1 = { ...loom.circuits.c1!, sizePin: { size: '12', reason: 'x' } };
    },
    EN3: (loom) => {
      loom.segments.s3 = { ...loom.segments.s3!, lengthMm: 120 };
      loom.ends.R = { ...loom.ends.R!, familyId: 'tarn-3', key: 'grey' };
    },
    EN4: (loom) => {
      loom.circuits.c2 = { ...loom.circuits.c2!, sizePin: null };
    },
    EN5: (loom) => {
      loom.circuits.c1 = { ...loom.circuits.c1!, currentA: 7 };
    },
    PO1: (loom) => {
      loom.ends.L = { ...loom.ends.L!, kind: 'ring', familyId: null, studMm: 6 };
      loom.circuits = Object.fromEntries([1, 2, 3, 4, 5].map((n) => [`c${n}`, join(String(n), `A-${n} L-${n}`)]));
    },
    MA2: (loom) => {
      loom.circuits.c1 = { ...loom.circuits.c1!, wireTable: 'thinwall', sizePin: { size: '50', reason: 'x' } };
      loom.ends.A = { ...loom.ends.A!, kind: 'tail', familyId: null };
      loom.ends.L = { ...loom.ends.L!, kind: 'tail', familyId: null };
    },
  };
  test.each(Object.entries(cases).filter(([code]) => code !== 'EN4'))('%s', (code, change) =>
    expect(codes(spoilt(change))).toContain(code),
  );
  test('EN4: wires of one look in one housing', () => {
    const job = createBench((loom) => {
      loom.circuits.c2 = { ...loom.circuits.c2!, colour: { base: 'red', stripe: null } };
      loom.circuits.c3 = { ...loom.circuits.c3!, colour: { base: 'red', stripe: null } };
    });
    expect(
      findings(job)
        .filter(({ code }) => code === 'EN4')
        .map(({ sentence }) => sentence),
    ).toEqual(expect.arrayContaining([expect.stringContaining('look alike (red) in anchor')]));
  });
  test('MA1: a wire number twice in one job', () => {
    const job = createBench((loom, whole) => {
      whole.looms.other = structuredClone(loom);
    });
    expect(
      findings({ ...job, looms: { ...job.looms, other: structuredClone(job.looms.bench!) } }).find(({ code }) => code === 'MA1')!.sentence,
    ).toBe('Wire number T-1 is given twice in looms bench and bench.');
  });
});

describe('boundaries', () => {
  test.each([
    [314, 0],
    [315, 1],
  ])('SC3: readings of 300 and %p mm give %p findings (limit two sigma of one, 13 mm, after the mean)', (second, count) => {
    const job = createBench((loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, lengthMm: 301, secondLengthMm: second };
    });
    expect(codes(job).filter((code) => code === 'SC3')).toHaveLength(count);
  });
  test.each([
    [250, 1],
    [251, 0],
  ])('EN3: like housings %p mm apart give %p findings', (apart, count) => {
    const job = createBench((loom) => {
      loom.segments.s3 = { ...loom.segments.s3!, lengthMm: apart - 100 };
      loom.ends.R = { ...loom.ends.R!, familyId: 'tarn-3', key: 'grey' };
    });
    expect(codes(job).filter((code) => code === 'EN3')).toHaveLength(count);
  });
  test.each([
    [5, 0],
    [5.1, 1],
  ])('EN5: %p A through a 5 A contact gives %p findings', (currentA, count) => {
    const job = createBench((loom) => {
      loom.circuits.c1 = { ...loom.circuits.c1!, currentA };
    });
    expect(codes(job).filter((code) => code === 'EN5')).toHaveLength(count);
  });
  test.each([
    [22, 0],
    [19.9, 1],
  ])('RO1: a Tarn 3 of 20 mm and a hole of %p', (holeMm, count) => {
    const job = createBench((loom) => {
      loom.nodes.b1 = { ...loom.nodes.b1!, holeMm };
      loom.ends.R = { ...loom.ends.R!, familyId: 'tarn-2', key: 'grey' };
      loom.circuits.c3 = join('3', 'A-3 L-2');
    });
    expect(codes(job).filter((code) => code === 'RO1')).toHaveLength(count);
  });
});

describe('the demo', () => {
  test('opens with its planted traps', () => expect(codes(createSkerry())).toEqual(['SC1', 'CI1', 'DR1', 'BU1', 'EN3']));
  test('every fix that is offered mends its finding and leaves a valid job', () => {
    for (const finding of findings(createSkerry()).filter(({ fix }) => fix !== null)) {
      const fixed = applyEdit(createSkerry(), finding.fix!.patch);
      if (!fixed.ok) throw new Error(`${finding.code}: ${fixed.problems[0]!.message}`);
      expect(checkJob(fixed.value, createLookup(CATALOGUE)).ok).toBe(true);
      expect(findings(fixed.value).map(({ key }) => key)).not.toContain(finding.key);
    }
  });
  test('worst come first, and keys are unlike', () => {
    const found = findings(createSkerry());
    expect(found.map(({ grade }) => grade)).toEqual(['stop', 'stop', 'stop', 'check', 'check']);
    expect(new Set(found.map(({ key }) => key)).size).toBe(found.length);
  });
});
