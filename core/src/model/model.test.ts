import fc from 'fast-check';
import { CATALOGUE, createLookup } from '../catalogue';
import { createSkerry } from '../demo';
import { createBench, join, run } from '../testing/createBench';
import {
  applyEdit,
  type EditOperation,
  checkJob,
  editDocument,
  FORMAT_VERSION,
  isOverlap,
  JobSchema,
  toProblemLines,
  type Job,
} from './index';

const lookup = createLookup(CATALOGUE);
const lines = (value: unknown) => {
  const checked = checkJob(value, lookup);
  return checked.ok ? [] : toProblemLines(checked.problems);
};
/** The bench with one thing in it wrong. */
const spoil = (change: (job: Record<string, never> & Job) => void): unknown => {
  const job = structuredClone(createBench());
  change(job as never);
  return job;
};

test('the demo and the bench pass the gate', () => {
  expect(lines(createSkerry())).toEqual([]);
  expect(lines(createBench())).toEqual([]);
});

test('the published schema is the one in use', async () => {
  const { default: published } = (await import(`../../schema/job-${FORMAT_VERSION}.json`)) as { default: unknown };
  expect(published).toEqual(JSON.parse(JSON.stringify(JobSchema)));
});

describe('wrong shapes are named with their place', () => {
  test.each<[string, unknown, string]>([
    ['not an object', 'loom', '/: expected a job (a JSON object), got "loom"'],
    ['a list', [], '/: expected a job (a JSON object), got a list'],
    [
      'a missing length',
      spoil((job) => delete (job.looms.bench!.segments.s1 as Partial<{ lengthMm: number }>).lengthMm),
      '/looms/bench/segments/s1/lengthMm: expected a value, got nothing: the field is missing',
    ],
    [
      'a negative length',
      spoil((job) => {
        job.looms.bench!.segments.s1!.lengthMm = -40;
      }),
      '/looms/bench/segments/s1/lengthMm: must be > 0, got -40',
    ],
    [
      'a length of zero',
      spoil((job) => {
        job.looms.bench!.segments.s1!.lengthMm = 0;
      }),
      '/looms/bench/segments/s1/lengthMm: must be > 0, got 0',
    ],
    [
      'text for a length',
      spoil((job) => {
        job.looms.bench!.segments.s1!.lengthMm = '300' as never;
      }),
      '/looms/bench/segments/s1/lengthMm: expected number, got "300"',
    ],
    [
      'a colour that is none',
      spoil((job) => {
        job.looms.bench!.circuits.c1!.colour.base = 'teal' as never;
      }),
      '/looms/bench/circuits/c1/colour/base: expected one of "black", "brown", "red", "orange", "yellow", "green", "blue", "violet", "grey", "white", "pink", got "teal"',
    ],
    [
      'a field nobody knows',
      spoil((job) => {
        (job.looms.bench!.nodes.b1 as unknown as Record<string, unknown>).size = 3;
      }),
      '/looms/bench/nodes/b1/size: expected no such field here: the name is unknown or not a valid id',
    ],
    [
      'a pin without a reason',
      spoil((job) => {
        job.looms.bench!.circuits.c1!.sizePin = { size: '20', reason: ' ' };
      }),
      '/looms/bench/circuits/c1/sizePin/reason: must match pattern "\\S", got " "',
    ],
    [
      'a newer format',
      { ...createBench(), formatVersion: 99 },
      `/formatVersion: expected at most ${FORMAT_VERSION}, got 99: this file was written by a newer Wattograph`,
    ],
    ['a format that never was', { ...createBench(), formatVersion: 0 }, `/formatVersion: expected 1 to ${FORMAT_VERSION}, got 0`],
  ])('%s', (_, value, expected) => expect(lines(value)).toContain(expected));
});

describe('what a schema cannot say', () => {
  test.each<[string, (job: Job) => void, string]>([
    [
      'a loop in the route',
      (job) => {
        job.looms.bench!.segments.s4 = run('n1', 'n2', 50);
      },
      '/looms/bench/segments/s4: expected a tree, got a loop through segments s2, s3, s4',
    ],
    [
      'a detached piece',
      (job) => {
        Object.assign(job.looms.bench!.nodes, { x: job.looms.bench!.nodes.n1, y: job.looms.bench!.nodes.n2 });
        job.looms.bench!.segments.s9 = run('x', 'y', 50);
      },
      '/looms/bench/segments/s9: expected every segment to reach the datum, got a detached piece: segments s9',
    ],
    [
      'a node that nothing leads to',
      (job) => {
        job.looms.bench!.nodes.x = { ...job.looms.bench!.nodes.n1! };
      },
      '/looms/bench/nodes/x: expected a segment that leads to this node, got none',
    ],
    [
      'two data',
      (job) => {
        job.looms.bench!.nodes.n1!.kind = 'datum';
      },
      '/looms/bench/nodes: expected exactly one datum, got 2 (datum, n1)',
    ],
    [
      'a segment to nowhere',
      (job) => {
        job.looms.bench!.segments.s2!.toNodeId = 'gone';
      },
      '/looms/bench/segments/s2/toNodeId: expected a node of this loom, got "gone"',
    ],
    [
      'a circuit on a cavity that is not there',
      (job) => {
        job.looms.bench!.circuits.c1 = join('1', 'A-1 L-9');
      },
      '/looms/bench/circuits/c1/terminations/1/cavity: expected a cavity of left (Tarn 3, 1 to 3), got "9"',
    ],
    [
      'a circuit on an end that is not there',
      (job) => {
        job.looms.bench!.circuits.c1 = join('1', 'A-1 Q-1');
      },
      '/looms/bench/circuits/c1/terminations/1/endId: expected an end of this loom, got "Q"',
    ],
    [
      'two wires in one cavity',
      (job) => {
        job.looms.bench!.circuits.c9 = join('9', 'A-1 R-4');
      },
      '/looms/bench/circuits/c9/terminations/0/cavity: expected one wire in a cavity, got circuits "c1" and "c9" both in anchor cavity 1',
    ],
    [
      'a circuit number given twice',
      (job) => {
        job.looms.bench!.circuits.c9 = join('1', 'A-9 R-4');
      },
      '/looms/bench/circuits/c9/number: expected a number of its own, got "1", which circuit "c1" has',
    ],
    [
      'two ends at a node',
      (job) => {
        job.looms.bench!.ends.X = { ...job.looms.bench!.ends.L! };
      },
      '/looms/bench/ends/X/nodeId: expected one end at a node, got "L" and "X" at "n1"',
    ],
    [
      'an end on a breakout',
      (job) => {
        job.looms.bench!.ends.L!.nodeId = 'b1';
      },
      '/looms/bench/ends/L/nodeId: expected an end node or the datum, got the breakout "b1"',
    ],
    [
      'a family nobody makes',
      (job) => {
        job.looms.bench!.ends.L!.familyId = 'nix';
      },
      '/looms/bench/ends/L/familyId: expected a connector family of the catalogue or of this job, got "nix"',
    ],
    [
      'a stud without a size',
      (job) => {
        Object.assign(job.looms.bench!.ends.L!, { kind: 'ring', familyId: null });
      },
      '/looms/bench/ends/L/studMm: expected the diameter of the stud in mm, got null',
    ],
    [
      'a zone that is not there',
      (job) => {
        job.looms.bench!.segments.s1!.zoneId = 'moon';
      },
      '/looms/bench/segments/s1/zoneId: expected a zone of this job, got "moon"',
    ],
    [
      'a size of another table',
      (job) => {
        job.looms.bench!.circuits.c1!.sizePin = { size: '0.5', reason: 'x' };
      },
      '/looms/bench/circuits/c1/sizePin/size: expected one of 26, 24, 22, 20, 18, 16, 14, 12, 10, 8 (etfe), got "0.5"',
    ],
    [
      'a standard of another shop',
      (job) => {
        job.standardId = 'other';
      },
      '/standardId: expected one of larkhollow, plain, got "other"',
    ],
    [
      'an onward run elsewhere',
      (job) => {
        job.looms.bench!.nodes.b1!.onwardSegmentId = 's9';
      },
      '/looms/bench/nodes/b1/onwardSegmentId: expected a segment at this node, got "s9"',
    ],
    [
      'a splice pinned in nothing',
      (job) => {
        job.looms.bench!.splicePins['c3@b1'] = { segmentId: 's9', offsetMm: 3, reason: 'x' };
      },
      '/looms/bench/splicePins/c3@b1/segmentId: expected a segment of this loom, got "s9"',
    ],
  ])('%s', (_, change, expected) => expect(lines(spoil(change))).toContain(expected));

  test('a family of the job itself is as good as one of the catalogue', () => {
    expect(
      lines(
        spoil((job) => {
          job.families.own1 = { ...CATALOGUE.families['tarn-3']!, name: 'own' };
          job.looms.bench!.ends.L!.familyId = 'own1';
        }),
      ),
    ).toEqual([]);
  });
  test('names from the prototype are not records', () => {
    expect(
      lines(
        spoil((job) => {
          job.looms.bench!.ends.L!.familyId = 'constructor';
        }),
      ),
    ).toContain('/looms/bench/ends/L/familyId: expected a connector family of the catalogue or of this job, got "constructor"');
  });
});

describe('edits', () => {
  test('leave the document as it was, and what they do not touch identical', () => {
    const job = createBench();
    const edited = applyEdit(job, [{ op: 'replace', path: '/looms/bench/segments/s1/lengthMm', value: 333 }]);
    if (!edited.ok) throw new Error('expected the edit to fit');
    expect(edited.value.looms.bench!.segments.s1!.lengthMm).toBe(333);
    expect(job.looms.bench!.segments.s1!.lengthMm).toBe(300);
    expect(edited.value.looms.bench!.circuits).toBe(job.looms.bench!.circuits);
  });
  test('one that does not fit is refused whole, with its path', () => {
    const refused = applyEdit(createBench(), [
      { op: 'replace', path: '/name', value: 'x' },
      { op: 'replace', path: '/looms/bench/segments/s77/lengthMm', value: 1 },
    ]);
    expect(refused).toMatchObject({ ok: false, problems: [{ path: '/looms/bench/segments/s77/lengthMm' }] });
  });
  test('cannot be of the document as a whole', () => {
    const job = createBench();
    for (const [operation, to] of [
      [{ op: 'replace', path: '', value: {} }, 'replace'],
      [{ op: 'remove', path: '' }, 'remove'],
      [{ op: 'move', path: '/notes', from: '' }, 'move'],
    ] as [EditOperation, string][])
      expect(applyEdit(job, [operation])).toEqual({
        ok: false,
        problems: [{ path: '', message: `expected a place in the document to ${to}, got the whole of it` }],
      });
    expect(applyEdit(job, [{ op: 'test', path: '', value: job }]).ok).toBe(true);
  });
  test('cannot put a thing into itself', () => {
    expect(applyEdit(createBench(), [{ op: 'move', from: '/looms', path: '/looms/bench' }])).toEqual({
      ok: false,
      problems: [{ path: '/looms/bench', message: 'expected a place outside of what is moved, got one in /looms' }],
    });
  });
  test('is applied or refused, whatever it says', () => {
    const place = fc.oneof(
      fc.constantFrom(
        '',
        '/',
        '/looms',
        '/looms/bench',
        '/looms/bench/nodes',
        '/looms/bench/circuits/-',
        '/notes',
        '/notes/x',
        '/circuits/0',
        '/looms/bench/ends/a/1',
      ),
      fc
        .array(fc.constantFrom('looms', 'bench', 'segments', 's1', 'lengthMm', '0', '-', '~0', '~2', 'toString', '__proto__'), {
          maxLength: 5,
        })
        .map((parts) => `/${parts.join('/')}`),
    );
    const value = fc.oneof(fc.constant(null), fc.integer(), fc.string(), fc.constant({ a: [1, { b: 2 }] }));
    const operation = fc.oneof(
      fc.record({ op: fc.constantFrom('add', 'replace', 'test'), path: place, value }),
      fc.record({ op: fc.constant('remove'), path: place }),
      fc.record({ op: fc.constant('move'), from: place, path: place }),
    );
    const job = createBench();
    const before = JSON.stringify(job);
    fc.assert(
      fc.property(fc.array(operation, { minLength: 1, maxLength: 4 }), (patch) => {
        const applied = applyEdit(job, patch as EditOperation[]);
        if (applied.ok) JSON.stringify(applied.value);
        else expect(applied.problems[0]!.message).not.toBe('');
        expect(JSON.stringify(job)).toBe(before);
      }),
      { numRuns: 2000, seed: 12 },
    );
  });
  test('cannot reach the prototype', () => {
    for (const path of ['/__proto__/evil', '/looms/constructor/prototype/evil', '/looms/__proto__'])
      expect(applyEdit(createBench(), [{ op: 'add', path, value: 1 }])).toEqual({
        ok: false,
        problems: [{ path, message: 'expected a place in the document, got a reserved name' }],
      });
    expect(({} as Record<string, unknown>).evil).toBeUndefined();
  });
  test('a recipe gives its patch', () => {
    expect(
      editDocument(createBench(), (job) => {
        job.notes = 'x';
      }).patch,
    ).toEqual([{ op: 'replace', path: '/notes', value: 'x' }]);
  });
  test.each([
    ['/a/b', '/a/b', true],
    ['/a', '/a/b', true],
    ['/a/b', '/a/c', false],
    ['/a/b', '/a/bc', false],
    ['/a/-', '/a/2', true],
  ])('%s and %s overlap: %p', (one, other, expected) => {
    expect(isOverlap([{ op: 'replace', path: one, value: 1 }], [{ op: 'replace', path: other, value: 1 }])).toBe(expected);
  });
});
