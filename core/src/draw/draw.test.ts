import { createVehicle } from '../testing/createVehicle';
import { CATALOGUE, type Catalogue } from '../catalogue';
import { createCleanSkerry, createFenRanger, createInlet, createSkerry } from '../demo';
import { createBuild, listBreak, listFindings, toMeterReading } from '../make';
import { listCavities, type Job } from '../model';
import { plan } from '../plan';
import {
  createSheets,
  drawFace,
  fitText,
  layoutStrip,
  measureText,
  SCREEN_DETAILS,
  toSvg,
  type Paper,
  type SheetPage,
  type StripOptions,
} from './index';

const options: StripOptions = { scale: 0.5, row: 18, left: 40, top: 30, text: 14, sides: null, detail: SCREEN_DETAILS[2]! };
const layout = (job: Job) => layoutStrip(Object.values(job.looms)[0]!, plan(job, CATALOGUE).looms[0]!, options);

describe('strip', () => {
  test('what leaves first lies lowest, so that no branch crosses a trace that goes on', () => {
    const traces = layout(createInlet()).listTraces();
    const plain = plan(createInlet(), CATALOGUE).looms[0]!;
    const yAtStart = (id: string) => Number(/^M[\d.]+ ([\d.]+)/.exec(traces.find(({ wireId }) => wireId === id)!.parts[0]!.d)![1]);
    const to = (endId: string) =>
      plain.wires.find((wire) => wire.to.kind === 'cavity' && wire.to.endId === endId && wire.from.kind === 'cavity')!.id;
    expect(yAtStart(to('inj1'))).toBeGreaterThan(yAtStart(to('thr')));
    expect(yAtStart(to('thr'))).toBeGreaterThan(yAtStart(to('inj4')));
    expect(yAtStart(to('inj4'))).toBeGreaterThan(yAtStart(to('byp')));
    expect(yAtStart(to('byp'))).toBeGreaterThan(yAtStart(to('air')));
  });
  test('every wire is drawn once, and along the tape to its true distance', () => {
    const job = createInlet();
    const made = layout(job);
    expect(
      made
        .listTraces()
        .map(({ wireId }) => wireId)
        .sort(),
    ).toEqual(
      plan(job, CATALOGUE)
        .looms[0]!.wires.filter(({ pieces }) => pieces.length > 0)
        .map(({ id }) => id)
        .sort(),
    );
    expect(made.ends.find(({ endId }) => endId === 'air')!.x).toBeCloseTo(40 + 1116.5 * 0.5, 6);
  });
});

describe('faces', () => {
  test.each(Object.entries(CATALOGUE.families))('%s: every cavity once, none over another, the mating side its mirror', (_, family) => {
    const wire = drawFace(family, 'wire');
    const mating = drawFace(family, 'mating');
    expect(wire.spots.map(({ cavity }) => cavity)).toEqual(listCavities(family));
    wire.spots.forEach((a, index) => {
      expect(mating.spots[index]!.x).toBeCloseTo(-a.x, 9);
      expect(mating.spots[index]!.y).toBeCloseTo(a.y, 9);
      wire.spots
        .slice(index + 1)
        .forEach((b) =>
          expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThanOrEqual((wire.cavityMm(a.cavity) + wire.cavityMm(b.cavity)) / 2 - 1e-9),
        );
    });
  });
});

describe('sheets', () => {
  const pack = (job: Job, paper: Paper = 'A4', catalogue: Catalogue = CATALOGUE): SheetPage[] => {
    const whole = plan(job, catalogue);
    const loom = whole.looms[0]!;
    return createSheets(
      { job, whole, plan: loom, build: createBuild(job, loom, catalogue), findings: listFindings(job, whole, catalogue, null), catalogue },
      {
        paper,
        job: job.name,
        loom: 'inlet',
        revision: 'revision 3',
        date: '2026-11-24',
      },
    );
  };
  const words = (page: SheetPage) => page.marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
  test.each(['A4', 'Letter'] as const)(
    '%s: page x of y, job, loom, revision and date on every page, nothing outside the paper',
    (paper) => {
      const pages = pack(createInlet(), paper);
      pages.forEach((page, index) => {
        expect(words(page)).toContain(`page ${index + 1} of ${pages.length}`);
        expect(words(page)).toContain('Skerry 12 · loom inlet · revision 3 · 2026-11-24');
        for (const mark of page.marks) {
          if (mark.kind !== 'text' || mark.turn) continue;
          const width = measureText(mark.text, mark.size, mark.face);
          const left = mark.anchor === 'start' ? mark.x : mark.anchor === 'middle' ? mark.x - width / 2 : mark.x - width;
          expect(left).toBeGreaterThanOrEqual(8);
          expect(left + width).toBeLessThanOrEqual(page.widthMm - 8);
          expect(mark.y).toBeLessThanOrEqual(page.heightMm - 5);
        }
      });
    },
  );
  test('counts are in the singular where there is one', () => {
    const first = pack(createFenRanger()).find(({ sheet }) => sheet === 'Loom')!;
    expect(words(first).join(' ')).toMatch(/8 wires, 1 splice, 3 ends\./);
    const all = pack(createFenRanger()).flatMap(words).join('\n');
    expect(all).not.toMatch(/(?<![\d.,])1 (wires|splices|ends|pages|contacts|circuits|sleeves|devices|pieces|rings|lines)\b/);
  });
  test('every wire number and its colour in words is on the cut list; held ones say so', () => {
    const text = pack(createInlet())
      .filter(({ sheet }) => sheet === 'Cut list')
      .flatMap(words);
    for (const { number } of plan(createInlet(), CATALOGUE).looms[0]!.wires) expect(text).toContain(number);
    expect(text).toEqual(expect.arrayContaining(['AWG 20 ETFE red/white', 'HELD']));
  });
  test('what was chosen by hand prints with its reason: a size, a fuse that guards a wire of this loom, a sleeve', () => {
    const job = createVehicle((one) => {
      one.looms.main!.circuits.c4!.sizePin = { size: '16', reason: 'left over from the tail loom' };
      one.looms.main!.segments.trunk!.coveringPin = { kind: 'braid', itemId: null, reason: 'the customer wants it open' };
      one.devices.box!.ratings.f2 = { ratingA: 20, reason: 'the box came with it' };
    });
    const printed = pack(job).flatMap(words).join(' ');
    expect(printed).toContain('Chosen by hand');
    for (const reason of ['left over from the tail loom', 'the customer wants it open', 'the box came with it', '20 A', 'AWG 16'])
      expect(printed).toContain(reason);
    expect(pack(createVehicle()).flatMap(words).join(' ')).not.toContain('Chosen by hand');
  });
  test('names are escaped in SVG', () => {
    const job = createInlet();
    const sly = { ...job, notes: '<script>alert("x")</script> & more' };
    const svg = toSvg(pack(sly).find(({ sheet }) => sheet === 'Loom')!);
    expect(svg).not.toContain('<script>');
    expect(svg).toContain('&lt;script&gt;');
  });
  test('an empty loom still has its sheets', () => {
    const job = createInlet();
    const empty = {
      ...job,
      looms: {
        inlet: {
          ...job.looms.inlet!,
          segments: {},
          ends: {},
          circuits: {},
          splicePins: {},
          nodes: { datum: job.looms.inlet!.nodes.datum! },
        },
      },
    };
    expect(pack(empty).map(({ sheet }) => sheet)).toContain('Steps');
  });
});

test('fitText cuts to the width it is given', () => {
  expect(fitText('short', 3, 'sans', 100)).toBe('short');
  const cut = fitText('a very long line indeed', 3, 'sans', 12);
  expect(cut.endsWith('…')).toBe(true);
  expect(measureText(cut, 3, 'sans')).toBeLessThanOrEqual(12);
});

describe('boxes and breaks', () => {
  const sheetOf = (job: Job, loomId: string) => {
    const whole = plan(job, CATALOGUE);
    const loom = whole.looms.find((one) => one.loomId === loomId)!;
    const pages = createSheets(
      { job, whole, plan: loom, build: createBuild(job, loom, CATALOGUE), findings: [], catalogue: CATALOGUE },
      {
        paper: 'A4',
        job: job.name,
        loom: loomId,
        revision: 'draft',
        date: '2026-11-25',
      },
    );
    return pages
      .filter(({ sheet }) => sheet === 'Boxes and breaks')
      .flatMap(({ marks }) => marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : [])));
  };
  test('every fuse and channel of the loom with what is fitted or set, and why where it was chosen by hand', () => {
    const job = createSkerry();
    const words = sheetOf(job, 'chassis');
    expect(words).toEqual(expect.arrayContaining(['Fuses and settings', 'main fuse', '150 A fuse']));
    expect(words.join(' ')).toContain('by hand:');
    const { protections } = plan(job, CATALOGUE).power;
    const set = protections.filter(({ kind, netId, ratingA }) => kind === 'channel' && netId !== null && ratingA !== null);
    expect(set.length).toBeGreaterThan(10);
    for (const { ratingA, tripS } of set) expect(words.some((one) => one.startsWith(`set to ${ratingA} A, ${tripS} s`))).toBe(true);
    // a motor's or a filament's inrush has a window
    expect(words.join(' ')).toMatch(/set to 16 A, 0\.5 s, 42 A for 200 ms let through/);
    expect(words.join(' ')).toContain('Fuses go in last');
  });
  test('one that is not chosen says so, and what was chosen for nothing is not there', () => {
    const job = createCleanSkerry();
    const [endId] = Object.entries(job.looms.chassis!.ends).find(([, { name }]) => name === 'brake light')!;
    job.looms.chassis!.ends[endId]!.pins['1']!.currentA = null;
    expect(sheetOf(job, 'chassis')).toContain('NOT CHOSEN');
  });
  test('both faces of each break stand on the sheets of both looms, colour beside colour', () => {
    const job = createCleanSkerry();
    const { sides, rows } = listBreak(job, CATALOGUE, Object.keys(job.mates)[0]!);
    for (const { loomId } of sides) {
      const words = sheetOf(job, loomId);
      for (const { circuits } of rows)
        circuits.forEach((circuit, side) => expect(words).toContain(`${sides[side]!.prefix}-${circuit!.number}`));
    }
  });
  test('a cavity that is wired on one side alone is told, and the spare ones are listed', () => {
    const job = createCleanSkerry();
    const [mateId, { a }] = Object.entries(job.mates)[0]!;
    const { rows, spare } = listBreak(job, CATALOGUE, mateId);
    for (const circuit of Object.values(job.looms[a.loomId]!.circuits))
      circuit.terminations = circuit.terminations.filter((one) => one.endId !== a.endId || one.cavity !== rows[0]!.cavity);
    const words = sheetOf(job, a.loomId).join(' ');
    expect(words).toContain('ONE SIDE ONLY:');
    expect(words).toContain(spare.length ? `Spare: ${spare[0]}` : 'No cavity to spare.');
  });
  test('inline parts print with what they read; a loom with none of all that has no such sheet', () => {
    expect(sheetOf(createSkerry(), 'engine')).toEqual(
      expect.arrayContaining(['Inline parts', 'terminator 120 Ω, 0.25 W', 'far end of the bus']),
    );
    const job = createInlet();
    job.mates = {};
    job.parts = {};
    expect(sheetOf(job, 'inlet')).toEqual([]);
  });
});

test.each([
  [{ kind: 'resistor', ohms: 4700 }, '4.7 kΩ'],
  [{ kind: 'pull-up', ohms: 47 }, '47 Ω'],
  [{ kind: 'terminator', ohms: 120 }, '120 Ω alone, half of it on a bus with both'],
  [{ kind: 'diode', ohms: null }, 'about 0.5 V one way, open the other'],
  [{ kind: 'suppressor', ohms: null }, 'the coil beside it'],
] as const)('what a meter reads across %j', (part, reading) =>
  expect(toMeterReading({ ...part, watts: null, at: { loomId: 'l', endId: 'e', cavities: ['1', '2'] }, inside: false, reason: 'x' })).toBe(
    reading,
  ),
);
