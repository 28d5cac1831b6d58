import { createDemoStart, CATALOGUE, createDemoShop, createLookup } from '../catalogue';
import { createInlet } from '../demo';
import { listFindings } from '../make';
import { applyEdit, checkJob, createDevice, createOpenItem, createPinNeed, type DonorWire, type Job, type Loom } from '../model';
import { plan } from '../plan';
import { createBench, join } from '../testing/createBench';
import type { RULES } from './index';
import { listScope, listScopeChange } from '../model';

const findings = (job: Job) => listFindings(job, plan(job, CATALOGUE), CATALOGUE, null);
const codes = (job: Job) => findings(job).map(({ code }) => code);
const spoilt = (change: (loom: Loom, job: Job) => void) => createBench(change);

test('the clean bench has no finding', () => expect(findings(createBench())).toEqual([]));

describe('each rule finds what it is meant for', () => {
  const cases: Record<Exclude<keyof typeof RULES, 'MA2' | 'BU8' | 'EN14'>, (loom: Loom, job: Job) => void> = {
    SC1: (loom) => {
      loom.segments.s2 = { ...loom.segments.s2!, status: 'guessed' };
    },
    SC2: (_loom, job) => {
      job.openItems.q1 = createOpenItem('which way does it turn', { blocks: [{ loomId: 'bench', kind: 'end', id: 'L' }] });
    },
    SC4: (loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, status: 'fitted', fittedMm: 298 };
    },
    SC3: (loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, secondLengthMm: 320 };
    },
    SC7: (_loom, job) => {
      const nodes = [{ loomId: 'bench', nodeId: 'n2' }];
      job.anchors = { plug: { name: 'main plug', place: '', nodes, state: 'open', by: '' } };
    },
    CI1: (loom) => {
      loom.ends.L = { ...loom.ends.L!, pins: { '3': createPinNeed('screen', 'screen') } };
    },
    CI2: (loom) => {
      loom.circuits.c9 = join('9', 'A-9');
    },
    RO1: (loom) => {
      loom.nodes.b1 = { ...loom.nodes.b1!, kind: 'breakout', holeMm: 18 };
    },
    RO3: (loom) => {
      loom.nodes.b1 = { ...loom.nodes.b1!, kind: 'breakout', holeMm: 60, drill: { roomMm: 180, behindMm: 60 } };
    },
    RO2: (loom, job) => {
      job.zones.hot = { ...job.zones.hot!, ambientC: 200 };
      loom.segments.s1 = { ...loom.segments.s1!, zoneId: 'hot' };
    },
    BU1: (loom) => {
      loom.splicePins['c3@b1'] = { segmentId: 's1', offsetMm: 282, reason: 'x' };
    },
    BU2: (loom) => {
      loom.circuits.c3 = { ...loom.circuits.c3!, wireTable: 'thinwall', sizePin: { size: '25', reason: 'x' } };
    },
    BU3: (loom, job) => {
      job.zones.oven = { ...createDemoStart().zones.cabin!, name: 'oven', ambientC: 128 };
      loom.segments.s1 = { ...loom.segments.s1!, zoneId: 'oven' };
      loom.circuits.c1 = { ...loom.circuits.c1!, currentA: 4 };
    },
    BU4: (loom) => layInLayers(loom, { 'c1.1': 0, 'c2.1': 1 }),
    BU5: (loom) => layInLayers(loom, { 'c2.1': 1 }),
    BU6: (loom) => {
      loom.bundling = 'straight';
      for (const id of ['c1', 'c2']) loom.circuits[id] = { ...loom.circuits[id]!, twist: { groupId: 'pair', pitchMm: 20 } };
    },
    BU7: (loom) => {
      layInLayers(loom, { 'c2.1': 1 });
      loom.circuits.c2 = { ...loom.circuits.c2!, wireTable: 'thinwall', sizePin: { size: '6', reason: 'x' } };
    },
    EN6: (loom) => {
      loom.ends.L = { ...loom.ends.L!, familyId: null, key: null };
    },
    PO13: (loom) => {
      for (const id of ['c1', 'c2']) loom.circuits[id] = { ...loom.circuits[id]!, cable: { groupId: 'k', itemId: 'etfe-1x24s' } };
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
    DR4: (loom) => {
      loom.dressing = 'boots';
      for (const id of ['s1', 's2']) loom.segments[id] = { ...loom.segments[id]!, lengthMm: 50 };
      loom.ends.L = { ...loom.ends.L!, familyId: 'hollin-6', key: null };
    },
    DR5: (loom) => {
      loom.ends.L = { ...loom.ends.L!, familyId: 'hollin-6', key: null, bootPin: { itemId: 'boot-36', reason: 'x' } };
    },
    DR6: (loom) => {
      loom.ends.L = { ...loom.ends.L!, familyId: 'hollin-13', key: null, bootPin: { itemId: 'boot-16', reason: 'x' } };
    },
    DR7: (loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, ticks: ['moving'], coveringPin: { kind: 'shrink', itemId: null, reason: 'x' } };
    },
    DR8: (loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, lengthMm: 9000 };
    },
    DR9: (loom, job) => {
      job.zones.kiln = { ...createDemoStart().zones.hot!, name: 'kiln', ambientC: 200 };
      loom.segments.s1 = { ...loom.segments.s1!, zoneId: 'kiln' };
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
    EN10: (loom) => {
      const cavity = { lengthMm: 2, widthMm: 2, depthMm: 2, contactsMm3: 36 };
      loom.ends.L = { ...loom.ends.L!, potting: { resinId: 'resin-soft', ...cavity, changesPerYear: null } };
    },
    EN15: (loom) => {
      loom.ends.R = { ...loom.ends.R!, kind: 'ring', familyId: null, key: null, studMm: 6, threadMm: 6 };
    },
    PO16: (loom, job) => {
      // 150 °C insulation is kept to 130
      job.zones.hot = { ...job.zones.hot!, ambientC: 131 };
      loom.segments.s1 = { ...loom.segments.s1!, zoneId: 'hot' };
    },
    PO1: (loom) => {
      loom.ends.L = { ...loom.ends.L!, kind: 'ring', familyId: null, studMm: 6 };
      loom.circuits = Object.fromEntries([1, 2, 3, 4, 5].map((n) => [`c${n}`, join(String(n), `A-${n} L-${n}`)]));
    },
  };
  test.each(Object.entries(cases).filter(([code]) => code !== 'EN4'))('%s', (code, change) =>
    expect(codes(spoilt(change))).toContain(code),
  );
  test('MA2: no marker sleeve fits a wire', () => {
    const bare = { ...CATALOGUE, labels: [] };
    const job = createBench();
    expect(listFindings(job, plan(job, bare), bare, null).map(({ code }) => code)).toContain('MA2');
  });
  test('EN4: wires of one look in one housing', () => {
    const job = createBench((loom) => {
      loom.circuits.c2 = { ...loom.circuits.c2!, colour: { base: 'red', stripe: null, bands: [] } };
      loom.circuits.c3 = { ...loom.circuits.c3!, colour: { base: 'red', stripe: null, bands: [] } };
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

describe('rules about the job as a whole', () => {
  const onDay = (job: Job, today: string | null) => listFindings(job, plan(job, CATALOGUE), CATALOGUE, today);
  test('SC1: a pin that is only guessed holds its wires and is named', () => {
    const job = createBench((loom) => {
      loom.ends.L = { ...loom.ends.L!, pins: { '1': createPinNeed('signal', 'signal', { evidence: 'guessed' }) } };
    });
    expect(findings(job)).toEqual([
      expect.objectContaining({
        code: 'SC1',
        grade: 'stop',
        sentence: 'What left has at pin 1 (signal) is only guessed: T-1 is held from cutting.',
      }),
    ]);
    job.looms.bench!.ends.L!.pins['1']!.evidence = 'told';
    expect(findings(job)).toEqual([]);
  });
  test.each([
    ['loom', 'bench', 5],
    ['segment', 's2', 2],
    ['end', 'R', 2],
    ['circuit', 'c3', 3],
  ] as const)(
    'SC2: an open item on a %s %s holds %i wires; a guess is no answer, an answer frees them, a concession holds nothing',
    (kind, id, held) => {
      const asked = (rest: Parameters<typeof createOpenItem>[1]) =>
        findings(
          createBench((_loom, job) => {
            job.openItems.q1 = createOpenItem('how far', { blocks: [{ loomId: 'bench', kind, id }], ...rest });
          }),
        ).filter(({ code }) => code === 'SC2');
      expect(asked({}).map(({ measured }) => measured)).toEqual([held]);
      expect(asked({ answer: '40', evidence: 'guessed' })).toHaveLength(1);
      expect(asked({ answer: '40', evidence: 'measured' })).toEqual([]);
      expect(asked({ kind: 'concession' })).toEqual([]);
    },
  );
  test('SC5: what was added since the scope was agreed is counted, devices and circuits', () => {
    const job = createBench();
    job.devices.d1 = createDevice('pump', 'fuel', { at: { loomId: 'bench', endId: 'L' } });
    job.brief.agreed = { on: '2026-11-01', by: 'Imke Dorsey', ...listScope(job) };
    expect(findings(job)).toEqual([]);
    job.devices.d2 = createDevice('fan', 'cooling', { at: { loomId: 'bench', endId: 'R' } });
    job.looms.bench!.circuits.c4 = join('4', 'A-4 R-3');
    expect(listScopeChange(job)).toEqual({ devicesAdded: ['fan'], devicesGone: [], circuitsAdded: ['circuit 4'], circuitsGone: [] });
    expect(findings(job)[0]).toMatchObject({ code: 'SC5', grade: 'note', measured: 2 });
  });
  test.each([
    [null, 0],
    ['2026-12-01', 0],
    ['2026-12-02', 1],
  ])('SC6: on %p a concession that ends on 2026-12-01 gives %i findings', (today, count) => {
    const job = createBench();
    job.openItems.c = createOpenItem('one fuse for all coils', { kind: 'concession', due: '2026-12-01' });
    expect(onDay(job, today).filter(({ code }) => code === 'SC6')).toHaveLength(count);
  });
  test('SC8: a device on no loom is told, one that goes is not, nor one that its old loom still serves', () => {
    const job = createBench();
    job.devices = {
      a: createDevice('radio', 'data'),
      b: createDevice('horn', 'data', { decision: 'remove' }),
      c: createDevice('lamp', 'lights', { decision: 'keep' }),
    };
    job.donors.old = { name: 'old loom', wires: { w1: donorWire({ from: 'lamp', decision: 'keep' }) } };
    expect(findings(job).map(({ code, sentence }) => `${code} ${sentence}`)).toEqual(['SC8 1 device is on no loom yet: radio.']);
  });
  test('SC9: a wire that is longer as fitted than it was cut is to be cut again', () => {
    const job = createBench((loom) => {
      for (const [id, more] of [
        ['s1', 0],
        ['s2', 90],
      ] as const)
        loom.segments[id] = { ...loom.segments[id]!, status: 'fitted', fittedMm: loom.segments[id]!.lengthMm + more };
    });
    expect(findings(job).find(({ code }) => code === 'SC9')).toMatchObject({
      grade: 'stop',
      sentence: expect.stringMatching(/^T-1 was cut to \d+ mm and needs \d+ mm as fitted/),
    });
  });
  test('MT1, MT2: mates of unlike keys, and cavities wired on one side only', () => {
    const job = createBench();
    job.looms.other = structuredClone(job.looms.bench!);
    job.looms.other.prefix = 'X';
    delete job.looms.other.circuits.c1;
    job.mates.m = { a: { loomId: 'bench', endId: 'A' }, b: { loomId: 'other', endId: 'A' } };
    expect(findings(job).filter(({ code }) => code.startsWith('MT'))).toEqual([
      expect.objectContaining({
        code: 'MT2',
        measured: 1,
        sentence: 'anchor (bench) and anchor (bench): cavity 1 has a wire on one side only.',
      }),
    ]);
    job.looms.other.ends.A!.key = 'B';
    expect(codes(job)).toContain('MT1');
  });
  test('CI7, DO1, DO2, MA6: a wire that goes takes a function from what stays; one leads nowhere; a length and a printed name contradict', () => {
    const job = createBench();
    job.devices = {
      lamp: createDevice('lamp', 'lights', { decision: 'keep' }),
      fan: createDevice('fan', 'cooling', { decision: 'remove' }),
    };
    job.donors.old = {
      name: 'old loom',
      wires: {
        a: donorWire({ number: '7', from: 'lamp', functions: ['lamp ground'], decision: 'remove' }),
        b: donorWire({ number: '8', from: 'lamp', functions: ['lamp supply'], decision: 'keep' }),
        c: donorWire({ number: '9', from: 'fan', decision: 'shorten', lengthMm: 300, newLengthMm: 400 }),
        d: donorWire({ number: '10', from: 'lamp', functions: ['fan supply'], decision: 'repurpose' }),
        e: donorWire({ number: '11', from: 'lamp', decision: 'repurpose', newName: 'T-1' }),
        f: donorWire({ number: '', from: 'lamp', decision: 'repurpose' }),
      },
    };
    expect(findings(job).map(({ code, sentence }) => `${code} ${sentence}`)).toEqual([
      'CI7 Taking 7 out of old loom takes "lamp ground" from lamp, which stays.',
      'DO1 Wire 9 of old loom stays and leads to fan, which goes.',
      'DO2 Wire 9 of old loom: expected less than 300 mm after shortening, got 400.',
      'MA6 "10", printed on a wire of old loom, tells of what it served before (fan supply): expected a new name on labels over it.',
    ]);
  });
  test('ST1: a departure from the house style is told with its reason', () => {
    const job = createBench();
    job.brief.departures.barrels = { side: 1, reason: 'rule book' };
    expect(findings(job)[0]!.sentence).toBe(
      'Departs from the house style: barrels of splices parallel: all wires in one crimp (rule book).',
    );
  });
});

/** The bench twisted in layers, with threads pinned. */
function layInLayers(loom: Loom, layers: Record<string, number>): void {
  loom.bundling = 'concentric';
  loom.layerPins = Object.fromEntries(Object.entries(layers).map(([id, layer]) => [id, { layer, reason: 'x' }]));
}

test('BU8: where hands cannot lay as short as the shop lays, it is told with the ratio', () => {
  const shop = createDemoShop();
  shop.standards.larkhollow!.layLeastMm = 60;
  const job = createBench((loom) => layInLayers(loom, {}));
  const told = listFindings(job, plan(job, shop), shop, null).filter(({ code }) => code === 'BU8');
  expect(told[0]).toMatchObject({ grade: 'check', limit: 16 });
  expect(told[0]!.sentence).toMatch(/^The lay is outside 8 to 16 times the diameter in core of datum to .* \(\d\d\.\d\)\.$/);
  expect(codes(job)).not.toContain('BU8');
});

const donorWire = (rest: Partial<DonorWire>): DonorWire => ({
  number: '1',
  from: 'a',
  fromPin: '1',
  to: 'b',
  toPin: '1',
  functions: [],
  colour: 'red',
  size: '1',
  lengthMm: null,
  decision: null,
  newLengthMm: null,
  newName: '',
  note: '',
  ...rest,
});

describe('boundaries', () => {
  test.each([
    // 2 · √(5² + (0.005 · 301)²) = 10.4
    [311, 0],
    [312, 1],
  ])('SC3: readings of 301 and %p mm give %p findings (limit two sigma of one, 10.4 mm)', (second, count) => {
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
    // by hand: 0.8 · 7.5 · √((200 − 60) / (200 − 20)) = 5.29 at 60 °C, where no zone is known
    [5.29, 0],
    [5.3, 1],
  ])('EN5: %p A through a 7.5 A contact at 60 °C gives %p findings', (currentA, count) => {
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
  test('the inlet alone opens with its planted traps, and with what has to protect it from outside', () =>
    expect(codes(createInlet())).toEqual([
      'SC1',
      'CI1',
      'DR1',
      'BU1',
      'EN3',
      'PO18',
      'PO18',
      'PO18',
      'PO18',
      'EN9',
      ...Array<string>(7).fill('EN4'),
    ]));
  test('every fix that is offered mends its finding and leaves a valid job', () => {
    for (const finding of findings(createInlet()).filter(({ fix }) => fix !== null)) {
      const fixed = applyEdit(createInlet(), finding.fix!.patch);
      if (!fixed.ok) throw new Error(`${finding.code}: ${fixed.problems[0]!.message}`);
      expect(checkJob(fixed.value, createLookup(CATALOGUE)).ok).toBe(true);
      expect(findings(fixed.value).map(({ key }) => key)).not.toContain(finding.key);
    }
  });
  test('worst come first, and keys are unlike', () => {
    const found = findings(createInlet());
    const order = ['stop', 'check', 'note'];
    const grades = found.map(({ grade }) => order.indexOf(grade));
    expect(grades).toEqual([...grades].sort((a, b) => a - b));
    expect(new Set(found.map(({ key }) => key)).size).toBe(found.length);
  });
});
