import fc from 'fast-check';
import { CATALOGUE, createLookup } from '../../../catalogue';
import { createSkerry, ENGINE_SURVEY } from '../../../demo';
import { createBrief, checkJob, createDevice, createLoom, createOpenItem, type Job, type SurveyEntry } from '../../../model';
import { createTree, findStandard } from '../../../plan';
import { createBench } from '../../../testing/createBench';
import { recordSurveyEntry, questionReading, listLine, moveBranch, moveDatum, settleConflict, applySurveyEntry, toEntryWords } from '../..';

const lookup = createLookup(CATALOGUE);
const standard = findStandard({ standardId: 'larkhollow', brief: createBrief() }, CATALOGUE);
let serial = 0;
type Of<K extends SurveyEntry['kind']> = Extract<SurveyEntry, { kind: K }>;
const base = (loomId = 'bench') => {
  serial += 1;
  return { id: `00000000-0000-4000-8000-${String(serial).padStart(12, '0')}`, loomId, author: 'Jun Okafor', at: '2026-11-25T08:00:00Z' };
};
const mark = (atMm: number, what: Of<'mark'>['what'], name: string, rest: Partial<Of<'mark'>> = {}): Of<'mark'> => ({
  ...base(),
  kind: 'mark',
  zeroNodeId: 'datum',
  viaSegmentId: null,
  atMm,
  what,
  name,
  holeMm: null,
  method: 'tape',
  ticks: [],
  deviceId: null,
  nodeId: `k${serial}`,
  segmentId: `g${serial}`,
  ...rest,
});
const empty = () =>
  createBench((_loom, job) => {
    job.looms = { bench: createLoom('bench', 'T') };
  });
/** Take entries one after another; each must be taken and pass the gate. */
const takeAll = (job: Job, entries: readonly SurveyEntry[]): Job =>
  entries.reduce((now, entry) => {
    const taken = applySurveyEntry(now, entry, CATALOGUE, standard);
    if (taken.kind === 'conflict') throw new Error(taken.theirs);
    expect(checkJob(taken.job, lookup)).toMatchObject({ ok: true });
    return taken.job;
  }, job);
const meets = (job: Job, entry: SurveyEntry) => {
  const taken = applySurveyEntry(job, entry, CATALOGUE, standard);
  return taken.kind === 'conflict' ? taken.theirs : null;
};
const distances = (job: Job) => {
  const loom = job.looms.bench!;
  const tree = createTree(loom, standard);
  return Object.fromEntries(Object.values(tree.nodes).map((node) => [loom.nodes[node.id]!.name, Math.round(node.distanceMm * 10) / 10]));
};

describe('marks read off a tape', () => {
  const first = mark(615, 'breakout', 'injector rail', { segmentId: 'g0', nodeId: 'k0' });
  const along = (atMm: number, what: Of<'mark'>['what'], name: string, rest = {}) =>
    mark(atMm, what, name, { viaSegmentId: 'g0', ...rest });
  test('one after another they make the trunk, each at its distance', () => {
    const job = takeAll(empty(), [first, along(820, 'pass', 'hole', { holeMm: 32 }), along(1040, 'end', 'crank sensor')]);
    expect(distances(job)).toEqual({ datum: 0, 'injector rail': 615, hole: 820, 'crank sensor': 1040 });
    expect(Object.values(job.looms.bench!.ends).map(({ name, kind }) => `${name} ${kind}`)).toEqual(['crank sensor tail']);
    expect(Object.values(job.looms.bench!.segments).map(({ status, method }) => `${status} ${method}`)).toEqual(
      Array(3).fill('roped tape'),
    );
  });
  test('a mark between two parts the run; what lies beyond stays where it is', () => {
    const job = takeAll(empty(), [first, along(1040, 'end', 'crank sensor'), along(700, 'breakout', 'late')]);
    expect(distances(job)).toEqual({ datum: 0, 'injector rail': 615, late: 700, 'crank sensor': 1040 });
  });
  test('a leg is read from its own zero, and the trunk still goes on by its own run', () => {
    const leg = mark(130, 'end', 'injector 1', { zeroNodeId: 'k0' });
    const job = takeAll(empty(), [first, leg, along(1900, 'end', 'far')]);
    expect(distances(job)).toEqual({ datum: 0, 'injector rail': 615, 'injector 1': 745, far: 745 - 130 + 130 + 1155 });
  });
  test.each([
    ['before the datum', mark(-20, 'breakout', 'x'), 'expected a distance beyond datum (0), got -20'],
    ['at the datum', mark(0, 'breakout', 'x'), 'expected a distance beyond datum (0), got 0'],
    ['on another mark', along(615.4, 'breakout', 'x'), 'expected a place of its own, got 615.4, where injector rail is'],
    ['beyond the end', along(1200, 'breakout', 'x'), 'expected a mark before 1040, where the line ends at crank sensor, got 1200'],
    ['an end in the middle', along(700, 'end', 'x'), 'expected an end beyond crank sensor (1040), got 700: mark a breakout there'],
    [
      'a name that is taken',
      along(900, 'breakout', 'Injector Rail'),
      'expected a name of its own, got "Injector Rail", which is at 615 mm',
    ],
    ['along a line that is gone', mark(900, 'breakout', 'x', { viaSegmentId: 'nowhere' }), 'the line it was read along is no longer there'],
    ['from a zero that is gone', mark(900, 'breakout', 'x', { zeroNodeId: 'nowhere' }), 'the zero of this line is no longer there'],
    ['in a loom that is gone', { ...mark(900, 'breakout', 'x'), loomId: 'nowhere' }, 'the loom is no longer there'],
  ])('refused %s, with what was expected', (_, entry, expected) => {
    const job = takeAll(empty(), [{ ...first, id: base().id }, along(1040, 'end', 'crank sensor', { nodeId: 'end', segmentId: 'last' })]);
    expect(meets(job, entry)).toContain(expected);
  });
  test('an end named like a device of the brief gets its housing and its pins', () => {
    const job = empty();
    job.devices.d1 = createDevice('cam sensor', 'engine sensors', { templateId: 'cam-hall' });
    const taken = takeAll(job, [mark(300, 'end', 'cam sensor', { deviceId: 'd1', nodeId: 'cam' })]);
    expect(taken.looms.bench!.ends.cam).toMatchObject({ kind: 'connector', familyId: 'tarn-3' });
    expect(Object.keys(taken.looms.bench!.ends.cam!.pins)).toEqual(['1', '2', '3']);
    expect(taken.devices.d1!.at).toEqual({ loomId: 'bench', endId: 'cam' });
  });
  test('a device of unknown place that is to be coiled ends in bare tails', () => {
    const job = empty();
    job.devices.d1 = createDevice('radio', 'data', { templateId: 'radio', decision: 'later', unknownPolicy: 'coil' });
    expect(takeAll(job, [mark(300, 'end', 'radio', { deviceId: 'd1', nodeId: 'r' })]).looms.bench!.ends.r).toMatchObject({
      kind: 'tail',
      familyId: null,
    });
  });
  test('the demo engine loom is made from its written list: 18 ends, 9 breakouts', () => {
    const { nodes, ends } = createSkerry().looms.engine!;
    const count = (kind: string) => Object.values(nodes).filter((node) => node.kind === kind).length;
    expect([count('end'), count('breakout'), count('pass'), Object.keys(ends).length]).toEqual([18, 9, 1, 19]);
    const tree = createTree(createSkerry().looms.engine!, standard);
    for (const { zero, leg, atMm, name } of ENGINE_SURVEY) {
      const id = Object.keys(nodes).find((one) => nodes[one]!.name === name)!;
      const zeroId = Object.keys(nodes).find((one) => nodes[one]!.name === zero)!;
      // two runs of the demo carry a second reading, which moves what lies beyond by half its difference
      if (leg === 'new') expect(Math.abs(tree.nodes[id]!.distanceMm - tree.nodes[zeroId]!.distanceMm - atMm)).toBeLessThan(1e-6);
    }
  });
  test('listLine gives nothing for a run that does not leave the zero', () => {
    const { bench } = createBench().looms;
    expect(listLine(bench!, createTree(bench!, standard), 'datum', 's2')).toEqual([]);
    expect(listLine(bench!, createTree(bench!, standard), 'datum', 's1').map(({ nodeId, atMm }) => `${nodeId} ${atMm}`)).toEqual([
      'b1 300',
      'n2 500',
    ]);
  });
});

describe('slips are asked about, never corrected by themselves', () => {
  const marks = [
    { atMm: 430, name: 'oil' },
    { atMm: 520, name: 'coil rail' },
  ];
  const options = (atMm: number) => questionReading(marks, atMm)?.options.map((one) => one.atMm) ?? null;
  test.each([
    ['the next mark', 615, null],
    ['61.5 where 615 would be next: centimetres', 61.5, [615, 61.5]],
    ['24.2 where 614.7 would be next: inches', 24.2, [614.7, 24.2]],
    ['6150: ten times too far', 6150, [615, 6150]],
    ['4000: far, and a tenth would not be next', 4000, [4000]],
    ['480: out of order', 480, [4800, 480].slice(1)],
  ])('%s', (_, atMm, expected) => expect(options(atMm)).toEqual(expected));
  test('says where an early reading would lie', () => {
    expect(questionReading(marks, 480)!.words).toBe(
      '480 is out of order: the last mark is coil rail at 520. Does it lie between oil (430) and coil rail (520)?',
    );
    expect(questionReading(marks, 61.5)!.words).toBe('61.5 lies before oil (430). Did you read centimetres?');
  });
  test('the first mark has no neighbour to be measured by', () => expect(questionReading([], 24)).toBeNull());
  test.each([NaN, 0, -3])('%p is not asked about: it is refused when it is entered', (value) =>
    expect(questionReading(marks, value)).toBeNull(),
  );
});

describe('entries that meet something else', () => {
  const reading = (lengthMm: number, seen: Of<'reading'>['seen']): Of<'reading'> => ({
    ...base(),
    kind: 'reading',
    segmentId: 's1',
    lengthMm,
    method: 'tape',
    seen,
  });
  test('a reading beside a reading is the second; a third that saw only the first is shown beside it', () => {
    const seen = { lengthMm: 300, secondLengthMm: null };
    const job = takeAll(createBench(), [reading(304, seen)]);
    expect(job.looms.bench!.segments.s1).toMatchObject({ lengthMm: 300, secondLengthMm: 304 });
    expect(meets(job, reading(309, seen))).toBe('300 and 304 mm stands there');
    const kept = recordSurveyEntry(job, reading(309, seen), CATALOGUE, standard);
    expect(kept.isConflict).toBe(true);
    const [id] = Object.keys(kept.job.surveyConflicts);
    expect(kept.job.surveyConflicts[id!]).toMatchObject({
      mine: 'datum to fork: 309 mm by tape',
      theirs: '300 and 304 mm stands there',
      canForce: true,
    });
    expect(checkJob(kept.job, lookup)).toMatchObject({ ok: true });
    expect(settleConflict(kept.job, id!, 'theirs', CATALOGUE, standard)).toEqual(job);
    const mine = settleConflict(kept.job, id!, 'mine', CATALOGUE, standard);
    expect(mine.looms.bench!.segments.s1).toMatchObject({ secondLengthMm: 309 });
    expect(mine.surveyConflicts).toEqual({});
  });
  test('a reading takes the place of a guess', () => {
    const guessed = createBench((loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, method: 'estimate', status: 'guessed' };
    });
    expect(takeAll(guessed, [reading(322, { lengthMm: 300, secondLengthMm: null })]).looms.bench!.segments.s1).toMatchObject({
      lengthMm: 322,
      secondLengthMm: null,
      method: 'tape',
      status: 'roped',
    });
  });
  test('the same value entered twice is no conflict', () => {
    const fitted: Of<'fitted'> = { ...base(), kind: 'fitted', segmentId: 's2', fittedMm: 104, seen: null };
    const job = takeAll(createBench(), [fitted]);
    expect(job.looms.bench!.segments.s2).toMatchObject({ fittedMm: 104, status: 'fitted', lengthMm: 100 });
    expect(meets(job, { ...fitted, ...base() })).toBeNull();
    expect(meets(job, { ...fitted, ...base(), fittedMm: 110 })).toBe('fitted at 104 mm');
  });
  test('ticks, anchors, clamp, answers and questions are taken; an answer to an answered question is shown beside it', () => {
    const start = createBench((_loom, job) => {
      job.openItems.q = createOpenItem('thread of the stud');
      job.anchors = { battery: { name: 'battery', place: '', nodes: [], state: 'open', by: '' } };
    });
    const answer = (words: string): SurveyEntry => ({
      ...base(),
      kind: 'answer',
      itemId: 'q',
      answer: words,
      evidence: 'measured',
      seen: null,
    });
    const job = takeAll(start, [
      { ...base(), kind: 'ticks', segmentId: 's1', ticks: ['hot', 'wet'], seen: [] },
      { ...base(), kind: 'anchor', anchorId: 'battery', state: 'fixed', place: 'behind the seat', seen: 'open' },
      { ...base(), kind: 'datum', name: 'firewall hole', seen: 'datum' },
      { ...base(), kind: 'clamp', clamped: true, seen: false },
      answer('M6'),
      { ...base(), kind: 'ask', itemId: 'q2', question: 'which side', blocks: [] },
    ]);
    expect(job.looms.bench!.segments.s1!.ticks).toEqual(['hot', 'wet']);
    const aside = takeAll(job, [{ ...base(), kind: 'side', segmentId: 's2', leavesDeg: 90, seen: null }]);
    expect(aside.looms.bench!.segments.s2!.leavesDeg).toBe(90);
    // somebody else saw it leave elsewhere: both are shown; the same again is nothing new
    expect(meets(aside, { ...base(), kind: 'side', segmentId: 's2', leavesDeg: 180, seen: null })).toBe('leaves at 3 o’clock');
    expect(meets(aside, { ...base(), kind: 'side', segmentId: 's2', leavesDeg: 90, seen: null })).toBeNull();
    expect(job.anchors.battery).toEqual({ name: 'battery', place: 'behind the seat', nodes: [], state: 'fixed', by: 'Jun Okafor' });
    expect(job.looms.bench!.clampedBy).toBe('Jun Okafor');
    expect(job.looms.bench!.nodes.datum!.name).toBe('firewall hole');
    expect(meets(job, { ...base(), kind: 'datum', name: 'battery', seen: 'datum' })).toBe('the datum is firewall hole');
    expect(job.openItems.q).toMatchObject({ answer: 'M6', evidence: 'measured', answeredBy: 'Jun Okafor' });
    expect(job.openItems.q2).toMatchObject({ question: 'which side', answer: null });
    expect(meets(job, answer('M8'))).toBe('answered "M6" (Jun Okafor)');
    expect(meets(job, { ...base(), kind: 'ticks', segmentId: 'gone', ticks: [], seen: [] })).toBe('the run is no longer there');
  });
  test('a mark of a name that is taken can go in under another', () => {
    const job = takeAll(empty(), [mark(300, 'breakout', 'fork', { nodeId: 'a', segmentId: 'b' })]);
    const twin = mark(500, 'breakout', 'fork', { viaSegmentId: 'b' });
    const kept = recordSurveyEntry(job, twin, CATALOGUE, standard).job;
    expect(distances(settleConflict(kept, twin.id, 'mine', CATALOGUE, standard))).toEqual({ datum: 0, fork: 300, 'fork 2': 500 });
  });
  test('two devices enter the same lines without a network: whatever the order they arrive in, every entry is taken or kept', () => {
    const place = fc.record({
      atMm: fc.integer({ min: 1, max: 900 }),
      name: fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f'),
      leg: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(place, { maxLength: 8 }), fc.array(place, { maxLength: 8 }), (one, other) => {
        const entries = [...one, ...other].map(({ atMm, name, leg }, index) =>
          mark(
            atMm,
            leg ? 'end' : 'breakout',
            name,
            leg ? { zeroNodeId: 'b1' } : { viaSegmentId: 's1', nodeId: `k${index}x`, segmentId: `g${index}x` },
          ),
        );
        const job = entries.reduce((now, entry) => recordSurveyEntry(now, entry, CATALOGUE, standard).job, createBench());
        expect(checkJob(job, lookup)).toMatchObject({ ok: true });
        const taken = entries.filter(({ nodeId }) => Object.hasOwn(job.looms.bench!.nodes, nodeId)).length;
        expect(taken + Object.keys(job.surveyConflicts).length).toBe(entries.length);
      }),
      { numRuns: 60, seed: 4640 },
    );
  });
  test('an entry in words', () => {
    expect(toEntryWords(createBench(), mark(820, 'pass', 'firewall', { holeMm: 32 }))).toBe('820 hole 32 firewall');
  });
});

describe('editing the route', () => {
  const edit = (change: (job: Job) => void) => {
    const job = createBench();
    change(job);
    expect(checkJob(job, lookup)).toMatchObject({ ok: true });
    return job;
  };
  const treeOf = (job: Job) => createTree(job.looms.bench!, standard);
  test('a branch moved to another node keeps its length', () => {
    const job = edit((now) => moveBranch(now.looms.bench!, treeOf(now), 's2', 'datum'));
    expect(distances(job)).toMatchObject({ left: 100, right: 500, fork: 300 });
  });
  test('a branch cannot leave from an end, nor from itself', () => {
    const job = createBench();
    expect(() => moveBranch(job.looms.bench!, treeOf(job), 's2', 'n2')).toThrow(
      'expected a breakout, a hole or the datum, got the end right',
    );
    expect(() => moveBranch(job.looms.bench!, treeOf(job), 's1', 'b1')).toThrow(
      'expected a node that is not on the branch itself, got fork',
    );
  });
  test('moving the datum lengthens the first run alone and takes back what was fitted there', () => {
    const job = edit((now) => {
      const { bench } = now.looms;
      for (const id of ['s1', 's2'])
        bench!.segments[id] = { ...bench!.segments[id]!, status: 'fitted', fittedMm: bench!.segments[id]!.lengthMm };
      expect(moveDatum(bench!, treeOf(now), 25)).toEqual(['s1']);
    });
    expect(distances(job)).toEqual({ datum: 0, fork: 325, left: 425, right: 525 });
    expect(job.looms.bench!.segments.s1).toMatchObject({ status: 'roped', fittedMm: null });
    expect(job.looms.bench!.segments.s2).toMatchObject({ status: 'fitted', fittedMm: 100 });
  });
  test('a clamped datum does not move, nor past the first breakout', () => {
    const clamped = createBench((loom) => {
      loom.clampedBy = 'Jun Okafor';
    });
    expect(() => moveDatum(clamped.looms.bench!, treeOf(clamped), 25)).toThrow('clamped by Jun Okafor: take the clamp off first');
    const job = createBench();
    expect(() => moveDatum(job.looms.bench!, treeOf(job), -298)).toThrow('the first run is 300 mm');
  });
});
