import Ajv from 'ajv';
import { CATALOGUE, findStandard, findTool, measurePullOff, MOST_SPLICED, plan } from '../../index';
import { listSteps } from '../listSteps';
import { createCleanSkerry } from '../../demo';
import { createRandom } from '../../units';
import { runs } from '../../testing/runs';
import {
  CRIMP_STEP,
  followCrimps,
  joinSeries,
  judgeSamples,
  listCrimpSeries,
  listShort,
  SampleSetSchema,
  toShortWords,
  toToolGate,
  type BenchTool,
  type CrimpAsking,
  type CrimpDeed,
  type CrimpSeries,
  type SampleSet,
} from './index';

const SAMPLING = { sampleFirst: 3, sampleEvery: 100, sampleWarnShare: 1.15, crimpHeightMm: 0.05, sessionMin: 240 };
const NINE = Date.UTC(2026, 10, 26, 9, 0);
const at = (clock: string) => Date.UTC(2026, 10, 26, Number(clock.slice(0, 2)), Number(clock.slice(3)));

const createSeries = (count: number, part: Partial<CrimpSeries> = {}): CrimpSeries => ({
  ...{ id: 'h22', tool: 'four-indent crimper', positioner: 'positioner H22', contactName: 'Hollin size 22 contact', wires: 'AWG 22 ETFE' },
  ...{ leastN: [40], heightMm: null },
  places: Array.from({ length: count }, (_, index) => ({
    loomId: 'inlet',
    stepId: 'crimp.b1',
    itemId: `${index + 1}`,
    endId: 'b1',
    cavity: `${index + 1}`,
  })),
  elsewhere: [],
  ...part,
});

const pulled = (reason: SampleSet['reason'], ...pullsN: number[]): SampleSet => ({
  ...{ reason, pullTester: 'pull tester 2', heightGauge: null },
  samples: pullsN.map((force) => ({ bad: [], heightMm: null, pullsN: [force] })),
});
const sample = (samples: SampleSet, clock: string, author = 'Tobin', seriesId = 'h22'): CrimpDeed => ({
  ...{ kind: 'sample', loomId: 'inlet', stepId: CRIMP_STEP, itemId: seriesId, words: '', author, atMs: at(clock), samples },
});
const tick = (itemId: string | number, atMs: number, author = 'Tobin', kind = 'tick'): CrimpDeed => ({
  ...{ kind, loomId: 'inlet', stepId: 'crimp.b1', itemId: `${itemId}`, words: '', author, atMs },
});
const asking = (clock: string, part: Partial<CrimpAsking> = {}): CrimpAsking => ({
  ...{ author: 'Tobin', nowMs: at(clock), standard: SAMPLING },
  ...part,
});

test('▸ D3: AWG 22 samples of 46, 51 and 44 N pass, the third with a warning at 1.15 × 40 = 46 N; 43, 38 and 47 fail', () => {
  expect(judgeSamples(pulled('first', 46, 51, 44), createSeries(0), SAMPLING)).toEqual({
    grade: 'warn',
    lines: [{ sample: 3, grade: 'warn', words: '44 N: look at the die' }],
  });
  const bad = judgeSamples(pulled('first', 43, 38, 47), createSeries(0), SAMPLING);
  expect([bad.grade, bad.lines.find(({ grade }) => grade === 'fail')]).toEqual([
    'fail',
    { sample: 2, grade: 'fail', words: '38 N, at least 40 N' },
  ]);
  expect(judgeSamples(pulled('first', 46, 46, 46), createSeries(0), SAMPLING)).toEqual({ grade: 'pass', lines: [] });
});

test('each figure of the house style turns the verdict: share of the warning, height, how many and how often', () => {
  const warn = (sampleWarnShare: number) =>
    judgeSamples(pulled('every', 46), createSeries(0), { ...SAMPLING, sampleWarnShare }).lines.map(({ words }) => words);
  expect([warn(1), warn(1.15), warn(1.2)]).toEqual([[], [], ['46 N: look at the die']]);
  const high = { ...pulled('every', 60), samples: [{ bad: [], heightMm: 1.08, pullsN: [60] }] };
  const tall = (crimpHeightMm: number) =>
    judgeSamples(high, createSeries(0, { heightMm: 1.02 }), { ...SAMPLING, crimpHeightMm }).lines.map(({ words }) => words);
  expect([tall(0.05), tall(0.06)]).toEqual([['height 1.08 mm: 1.02 ± 0.05 mm by its sheet, too loose'], []]);
  const due = (part: Partial<CrimpAsking['standard']>, clock = '09:30') =>
    followCrimps([createSeries(9)], [sample(pulled('first', 50, 50, 50), '09:00'), tick(1, at('09:01')), tick(2, at('09:02'))], {
      ...asking(clock),
      standard: { ...SAMPLING, ...part },
    }).states.map(({ due: why, dueCount }) => [why, dueCount])[0];
  expect([due({}), due({ sampleEvery: 2 }), due({ sampleFirst: 0, sampleEvery: 2 })]).toEqual([
    [null, 0],
    ['every', 1],
    [null, 0],
  ]);
  // 28 minutes after the last crimp
  expect([due({ sessionMin: 30 }), due({ sessionMin: 28 }), due({ sessionMin: 28, sampleFirst: 5 })]).toEqual([
    [null, 0],
    ['first', 3],
    ['first', 5],
  ]);
});

test('looks, a height that nobody measured and a wire of a double crimp that nobody pulled are said one by one', () => {
  const series = createSeries(0, { leastN: [40, 60], heightMm: 1.2 });
  const set = { ...pulled('first', 1), samples: [{ bad: ['strands' as const], heightMm: null, pullsN: [41, null] }] };
  expect(judgeSamples(set, series, SAMPLING).lines.map(({ grade, words }) => `${grade}: ${words}`)).toEqual([
    'fail: not so: no strand cut, nicked or outside',
    'fail: height not measured: 1.2 mm by its sheet',
    'warn: wire 1: 41 N: look at the die',
    'fail: wire 2: not pulled: at least 60 N',
  ]);
});

test('▸ D3: a bad sample takes back the 23 contacts since 09:40, and asks everybody for three new ones', () => {
  const series = createSeries(60);
  const minute = 60_000;
  const deeds = [
    sample(pulled('first', 50, 52, 51), '09:00'),
    ...Array.from({ length: 20 }, (_, n) => tick(n + 1, NINE + (n + 1) * minute)),
    sample(pulled('reel', 49), '09:35'),
    // Saoirse crimps with the same tool, by samples of her own
    sample(pulled('first', 55, 52, 51), '09:36', 'Saoirse'),
    ...Array.from({ length: 23 }, (_, n) => tick(n + 21, at('09:40') + n * minute)),
    tick(50, at('10:01'), 'Saoirse'),
    sample(pulled('every', 43, 38, 47), '10:05'),
  ];
  const { quarantines, states } = followCrimps([series], deeds, asking('10:06'));
  const [one] = quarantines;
  expect(quarantines).toHaveLength(1);
  expect([one!.took, one!.places.length, one!.sinceMs, one!.author]).toEqual([23, 23, at('09:40'), 'Tobin']);
  expect(one!.places.map(({ itemId }) => Number(itemId))).toEqual(Array.from({ length: 23 }, (_, n) => n + 21));
  expect([states[0]!.due, states[0]!.dueCount]).toEqual(['mended', 3]);
  expect(followCrimps([series], deeds, asking('10:06', { author: 'Saoirse' })).states[0]).toMatchObject({ due: 'mended', dueCount: 3 });
  // done over one by one: opened, or crimped again
  const after = [...deeds, tick(21, at('10:08'), 'Tobin', 'untick'), sample(pulled('mended', 50, 51, 52), '10:09'), tick(22, at('10:10'))];
  const later = followCrimps([series], after, asking('10:11'));
  expect(later.quarantines[0]!.places.map(({ itemId }) => itemId)).not.toContain('21');
  expect(later.quarantines[0]!.places).toHaveLength(21);
  expect([later.states[0]!.due, later.states[0]!.since]).toEqual([null, 1]);
});

test('a first-off is due for each person and session, one more after a hundred, at another reel, and when the last is made', () => {
  const series = createSeries(110);
  const why = (deeds: CrimpDeed[], clock: string, author = 'Tobin') => followCrimps([series], deeds, asking(clock, { author })).states[0]!;
  expect(why([], '09:00')).toMatchObject({ due: 'first', dueCount: 3, last: null });
  const first = sample(pulled('first', 50, 50, 50), '09:00');
  expect(why([first], '09:01')).toMatchObject({ due: null, last: { grade: 'pass' } });
  expect(why([first], '09:01', 'Saoirse').due).toBe('first');
  const hundred = [first, ...Array.from({ length: 100 }, (_, n) => tick(n + 1, NINE + n * 60_000))];
  expect(why(hundred.slice(0, -1), '10:45').due).toBeNull();
  expect(why(hundred, '10:45')).toMatchObject({ due: 'every', dueCount: 1, since: 100 });
  const change = (words: string): CrimpDeed => ({ ...first, kind: 'changeover', words, samples: null, atMs: at('10:46') });
  expect(why([...hundred, sample(pulled('every', 50), '10:45'), change('reel')], '10:47').due).toBe('reel');
  expect(why([...hundred, sample(pulled('every', 50), '10:45'), change('weather')], '10:47').due).toBeNull();
  // the next morning the session is over, the hundred stand
  expect(why([...hundred, sample(pulled('every', 50), '10:45')], '16:00').due).toBe('first');
  const all = [...hundred, sample(pulled('every', 50), '10:45'), ...Array.from({ length: 10 }, (_, n) => tick(n + 101, at('10:50') + n))];
  expect(why(all, '11:00')).toMatchObject({ due: 'last', dueCount: 1, isUnproved: true });
  expect(why([...all, sample(pulled('last', 50), '11:01')], '11:02')).toMatchObject({ due: null, isUnproved: false });
});

test('crimps of yesterday after their last sample are taken back by a bad one this morning, and stand by a good one', () => {
  const series = createSeries(9);
  const yesterday = [sample(pulled('first', 50, 50, 50), '09:00'), tick(1, at('09:05')), tick(2, at('09:06'))];
  const morning = (set: SampleSet) => followCrimps([series], [...yesterday, sample(set, '17:00')], asking('17:01'));
  expect(morning(pulled('first', 50, 39, 50)).quarantines[0]).toMatchObject({ took: 2, sinceMs: at('09:05') });
  expect(morning(pulled('first', 50, 49, 50))).toMatchObject({ quarantines: [], states: [{ isUnproved: false }] });
});

test('without samples, for a reason, work goes on; what was made so stays unproved until a sample stands for it', () => {
  const series = createSeries(2);
  const none = { ...sample({ reason: 'none', samples: [], pullTester: '', heightGauge: null }, '09:00'), words: 'no tester here' };
  const made = [none, tick(1, at('09:05')), tick(2, at('09:06'))];
  const open = followCrimps([series], made, asking('09:10')).states[0]!;
  expect(open).toMatchObject({ isUnproved: true, due: 'last', last: { grade: 'none', words: 'no tester here' } });
  expect(followCrimps([series], [...made, sample(pulled('last', 39), '09:20')], asking('09:21')).quarantines[0]!.took).toBe(2);
});

test('▸ D3: a third new termination where two were kept is short by 8 mm; what the end keeps of its own counts first', () => {
  const series = createSeries(2);
  const redone = Array.from({ length: 4 }, (_, n) => [tick(1, at('09:00') + n), tick(1, at('09:00') + n, 'Tobin', 'untick')]).flat();
  const house = { reterminations: 2, reterminationMm: 8 };
  const end = (reterminations: number | null) => ({ ends: { b1: { reterminations } } }) as unknown as Parameters<typeof listShort>[2];
  expect(listShort([series], redone.slice(0, 6), end(null), house)).toEqual([]);
  const [short] = listShort([series], redone.slice(0, 7), end(null), house);
  expect(short).toEqual({ key: 'crimp.b1 1', times: 4, kept: 2, shortMm: 8 });
  expect(toShortWords(short!)).toBe('crimped 4 times, length was kept for 2 new terminations: now short by 8 mm');
  expect(listShort([series], redone, end(3), house)).toEqual([]);
  expect(listShort([series], redone, end(0), house)[0]!.shortMm).toBe(24);
  // said twice is done once
  expect(listShort([series], [tick(1, 0), tick(1, 1), tick(1, 2)], end(0), house)).toEqual([]);
});

const TOOL: BenchTool = {
  name: 'four-indent crimper',
  setting: 'go and no-go gauge',
  dueDay: '2027-10-05',
  isListed: true,
  isPast: false,
  gauged: true,
  crimps: 0,
  serviceCrimps: 10_000,
};

test('a tool is gauged by each person in each session; past its date, over its crimps or refused by its gauge it is not used', () => {
  const gauge = (words: string, author = 'Tobin'): CrimpDeed => ({
    ...{ kind: 'gauge', loomId: 'inlet', stepId: CRIMP_STEP, itemId: TOOL.name, words, author, atMs: at('09:00') },
  });
  const gate = (deeds: CrimpDeed[], part: Partial<BenchTool> = {}, sessionMs: number | null = at('09:00')) =>
    toToolGate({ ...TOOL, ...part }, deeds, 'Tobin', sessionMs);
  expect(gate([])).toMatchObject({ stops: [], asksGauge: true });
  expect(gate([gauge('')])).toMatchObject({ stops: [], asksGauge: false });
  expect([
    gate([gauge('')], {}, at('09:30')).asksGauge,
    gate([gauge('')], {}, null).asksGauge,
    gate([gauge('', 'Saoirse')]).asksGauge,
  ]).toEqual([true, true, true]);
  expect(gate([], { gauged: false }).asksGauge).toBe(false);
  expect(gate([gauge('no-go goes in', 'Saoirse')]).stops).toEqual(['its gauge did not pass: no-go goes in (Saoirse)']);
  expect(gate([gauge('no-go goes in', 'Saoirse'), gauge('')]).stops).toEqual([]);
  expect(gate([], { isPast: true, crimps: 10_000 }).stops).toEqual([
    'its calibration ended on 2027-10-05',
    '10000 crimps since its service: it is serviced after 10000',
  ]);
  expect(gate([], { isPast: true, dueDay: null }).stops).toEqual(['no calibration on record']);
  const unknown = { isListed: false, gauged: false, dueDay: null };
  expect(gate([], unknown).stops).toEqual(['no tool of the shop has that name: neither its calibration nor its gauge is known']);
});

const skerry = createCleanSkerry();
const { looms } = plan(skerry, CATALOGUE);

test('every crimp of the demo that is pulled is in one series, with the contact, tool and force that its step asks for', () => {
  for (const loom of looms) {
    const steps = listSteps(skerry, loom, CATALOGUE);
    const series = listCrimpSeries(loom, steps, CATALOGUE.contacts);
    const read = steps.filter(({ operation }) => operation === 'crimp').flatMap(({ id, items }) => items.map((item) => ({ id, item })));
    const asked = read.filter(({ item }) => item.reads.length > 0);
    const ofContacts = series.flatMap((one) => one.places.map((place) => ({ one, place }))).filter(({ place }) => place.endId !== null);
    const placed = ofContacts.map(({ one, place: { stepId, itemId } }) => ({ key: `${stepId} ${itemId}`, one }));
    expect(new Set(placed.map(({ key }) => key)).size).toBe(placed.length);
    expect(placed.map(({ key }) => key).sort()).toEqual(asked.map(({ id, item }) => `${id} ${item.id}`).sort());
    const of = new Map(placed.map(({ key, one }) => [key, one]));
    for (const { id, item } of asked) {
      const one = of.get(`${id} ${item.id}`)!;
      const ask = (what: string) => item.asks.find((each) => each.what === what)?.value;
      expect([one.contactName, `${one.tool}${one.positioner ? `, ${one.positioner}` : ''}`]).toEqual([ask('contact'), ask('tool')]);
      expect(findTool(CATALOGUE.tools, one.tool)).toBeDefined();
      expect(item.reads.map(({ least }) => least).sort()).toEqual(one.leastN.filter((force) => force !== null).sort());
    }
  }
  expect(findStandard(skerry, CATALOGUE).sampleFirst).toBe(3);
});

test('every splice of the demo is in one series by its barrel and what is in it, each of its wires pulled by IEC 60352-2', () => {
  for (const loom of looms) {
    const steps = listSteps(skerry, loom, CATALOGUE);
    const placed = listCrimpSeries(loom, steps, CATALOGUE.contacts).flatMap((one) =>
      one.places.flatMap(({ endId, stepId, cavity }) => (endId === null ? [{ one, stepId, cavity }] : [])),
    );
    expect(placed.map(({ stepId }) => stepId).sort()).toEqual(loom.splices.map(({ id }) => `splice.${id}`).sort());
    for (const { one, stepId, cavity } of placed) {
      const at = loom.splices.findIndex(({ id }) => stepId === `splice.${id}`);
      const barrel = loom.barrels[at]!;
      const forces = barrel.wireIds.map((id) => {
        const { conductor } = loom.wires.find((wire) => wire.id === id)!;
        return measurePullOff(conductor);
      });
      expect([one.contactName, one.tool, cavity]).toEqual([barrel.barrelName, barrel.tool, loom.splices[at]!.label]);
      expect([...one.leastN].sort()).toEqual(forces.sort());
    }
  }
  expect(looms.reduce((sum, { splices }) => sum + splices.length, 0)).toBeGreaterThan(10);
});

test('one in a hundred is counted over the looms of a vehicle, and a bad sample takes back what was made on another one', () => {
  const gearbox = createSeries(60).places.map((place) => ({ ...place, loomId: 'gearbox' }));
  const [own] = joinSeries([createSeries(60)], [createSeries(0, { places: gearbox }), createSeries(3, { id: 'p16' })]);
  expect(own!.elsewhere).toEqual(gearbox);
  const minute = 60_000;
  const made = (loomId: string, count: number, fromMs: number) =>
    Array.from({ length: count }, (_, n) => ({ ...tick(n + 1, fromMs + n * minute), loomId }));
  const deeds = [sample(pulled('first', 50, 50, 50), '09:00'), ...made('gearbox', 60, at('09:01')), ...made('inlet', 40, at('10:01'))];
  const stateOf = (of: CrimpDeed[], clock: string) => followCrimps([own!], of, asking(clock)).states[0]!;
  expect(stateOf(deeds.slice(0, -1), '10:41')).toMatchObject({ due: null, since: 99 });
  expect(stateOf(deeds, '10:42')).toMatchObject({ due: 'every', since: 100 });
  const { quarantines } = followCrimps([own!], [...deeds, sample(pulled('every', 39), '10:43')], asking('10:44'));
  expect(quarantines.map(({ took, places }) => [took, places.filter(({ loomId }) => loomId === 'gearbox').length])).toEqual([[100, 60]]);
  // what is open on the gearbox loom is no matter of this one
  const all = made('inlet', 60, at('10:01'));
  const proved = [...deeds.slice(0, 1), ...all, sample(pulled('last', 50), '11:02'), ...made('gearbox', 1, at('11:05'))];
  expect(stateOf(proved, '11:06')).toMatchObject({ due: null, isUnproved: false, since: 1 });
  expect(stateOf([...deeds.slice(0, 1), ...all], '11:06')).toMatchObject({ due: 'last', isUnproved: true });
});

test('a splice that is made anew uses up no length that an end kept', () => {
  const splice = createSeries(1, { places: createSeries(1).places.map((place) => ({ ...place, endId: null })) });
  const redone = Array.from({ length: 6 }, (_, n) => [tick(1, n), tick(1, n, 'Tobin', 'untick')]).flat();
  expect(listShort([splice], redone, { ends: {} }, { reterminations: 2, reterminationMm: 8 })).toEqual([]);
});

test('of unlike wires in one barrel the forces stand by the first crimp, as its samples were told, whichever lies first in the next', () => {
  const [fine, thick] = ['22', '20'].map((size) => looms[0]!.wires.find(({ conductor }) => conductor.size === size)!);
  const crimp = { ...looms[0]!.terminations[0]!, contactId: 'c', tool: 'crimper' };
  const terminations = [
    { ...crimp, cavity: '1', wireIds: [fine!.id, thick!.id], pullOffsN: [40, 60] },
    { ...crimp, cavity: '2', wireIds: [thick!.id, fine!.id], pullOffsN: [60, 40] },
  ];
  const items = ['1', '2'].map((id) => ({ id })) as Parameters<typeof listCrimpSeries>[1][number]['items'];
  const step = { id: 'crimp.x', operation: 'crimp' as const, endId: crimp.endId, spliceId: null, items };
  const series = listCrimpSeries({ ...looms[0]!, terminations, barrels: [] }, [step], []);
  expect(series.map(({ leastN, places }) => [leastN, places.length])).toEqual([[[40, 60], 2]]);
  expect(series[0]!.wires).toMatch(/^AWG 22 .* with AWG 20 /);
});

test('a set of samples takes a pull for each wire of the largest splice that a shop may make', () => {
  const isShaped = new Ajv().compile(SampleSetSchema);
  const set = (wires: number) => pulled('first', 50).samples.map((one) => ({ ...one, pullsN: Array<number>(wires).fill(50) }));
  expect([MOST_SPLICED, MOST_SPLICED + 1].map((wires) => isShaped({ ...pulled('first'), samples: set(wires) }))).toEqual([true, false]);
});

test('heights come from the sheet of the contact, by the size of the wire in it', () => {
  const heights = looms.flatMap((loom) =>
    listCrimpSeries(loom, listSteps(skerry, loom, CATALOGUE), CATALOGUE.contacts).map(({ contactName, wires, heightMm }) => [
      contactName,
      wires,
      heightMm,
    ]),
  );
  expect(heights).toContainEqual(['Pellow 16 contact, fine', expect.stringMatching(/^AWG 22 /), 1.08]);
  expect(heights.filter(([name]) => String(name).startsWith('Hollin')).every(([, , height]) => height === null)).toBe(true);
});

test(`${runs(50, 400)} random days: whatever order, a crimp counts where the last set of its maker before it was good or told, and nowhere twice`, () => {
  for (let seed = 1; seed <= runs(50, 400); seed += 1) {
    const random = createRandom(seed);
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
    const series = [
      createSeries(8),
      createSeries(8, { id: 'p16', places: createSeries(8).places.map((one) => ({ ...one, stepId: 'crimp.b2' })) }),
    ];
    const deeds: CrimpDeed[] = Array.from({ length: 60 }, (_, n): CrimpDeed => {
      const clock = NINE + n * 120_000;
      const author = pick(['Tobin', 'Saoirse']);
      if (random() < 0.25) return { ...sample(pulled('first', pick([39, 44, 60])), '09:00', author, pick(['h22', 'p16'])), atMs: clock };
      return {
        ...tick(pick([1, 2, 3, 4, 5, 6, 7, 8]), clock, author, random() < 0.2 ? 'untick' : 'tick'),
        stepId: pick(['crimp.b1', 'crimp.b2']),
      };
    });
    const { quarantines } = followCrimps(series, deeds, asking('12:00'));
    // by brute force: of each crimp that stands, is the next set of its maker after it bad?
    const expected = series.flatMap((one) =>
      one.places.flatMap(({ stepId, itemId }) => {
        const last = deeds.findLastIndex((deed) => deed.stepId === stepId && deed.itemId === itemId);
        if (last < 0 || deeds[last]!.kind === 'untick') return [];
        const next = deeds
          .slice(last)
          .find(({ kind, itemId: of, author }) => kind === 'sample' && of === one.id && author === deeds[last]!.author);
        return next && next.samples!.samples[0]!.pullsN[0] === 39 ? [`${stepId} ${itemId}`] : [];
      }),
    );
    const got = quarantines.flatMap(({ places }) => places.map(({ stepId, itemId }) => `${stepId} ${itemId}`));
    expect([seed, [...got].sort()]).toEqual([seed, expected.sort()]);
  }
});
