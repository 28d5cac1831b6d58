import decode from 'qr/decode.js';
import { CATALOGUE } from '../../catalogue';
import { createFenRanger } from '../../demo/createFenRanger';
import { createSkerry } from '../../demo/createSkerry';
import { createBuild, listFindings } from '../../make';
import { createOpenItem, type Job, type OpenItem } from '../../model';
import { plan } from '../../plan';
import { isCrewPost, type Mark, type SheetPage } from '../drawing';
import { createFlow } from './flow/createFlow';
import type { Band, Column, Flow } from './flow/flowTypes';
import { addCodes } from './addCodes';
import { createSheets } from './createSheets';
import { drawSchematic } from './drawSchematic';

const META = { paper: 'A4', job: 'job', loom: 'loom', revision: 'draft', date: '2026-11-28' } as const;
const make = (job: Job) => {
  const whole = plan(job, CATALOGUE);
  const findings = listFindings(job, whole, CATALOGUE, null);
  return whole.looms.map((planned) => {
    const build = createBuild(job, planned, CATALOGUE);
    const pages = createSheets({ job, whole, plan: planned, build, findings, catalogue: CATALOGUE }, META);
    return { loomId: planned.loomId, plan: planned, build, pages, loom: job.looms[planned.loomId]! };
  });
};
/** The engine loom twisted in layers as well. */
const createJob = () => {
  const job = createSkerry();
  job.looms.engine!.bundling = 'concentric';
  return job;
};
const SKERRY = make(createJob());
const FEN = make(createFenRanger());
const of = (loomId: string) => SKERRY.find((one) => one.loomId === loomId)!;
const texts = ({ marks }: Pick<SheetPage, 'marks'>) => marks.flatMap((mark) => (mark.kind === 'text' ? [mark] : []));
const crew = (pages: readonly SheetPage[]) => pages.filter(({ post }) => isCrewPost(post!));
/** lines of a sheet as they are read: what stands on one line, from the left */
const rows = (pages: readonly SheetPage[]) =>
  pages.flatMap((page) => {
    const lines = new Map<string, ReturnType<typeof texts>>();
    for (const mark of texts(page)) {
      const key = mark.y.toFixed(1);
      lines.set(key, [...(lines.get(key) ?? []), mark]);
    }
    return [...lines.entries()]
      .sort(([a], [b]) => Number(a) - Number(b))
      .map(([, line]) => line.sort((a, b) => a.x - b.x).map((mark) => mark.text));
  });

/** A code as a camera sees it: eight dots a mm on a white edge. */
function toBitmap(d: string, { x, y, sizeMm }: { x: number; y: number; sizeMm: number }) {
  const [dots, edge] = [12, 3];
  const side = Math.round((sizeMm + 2 * edge) * dots);
  const data = new Uint8ClampedArray(4 * side * side).fill(255);
  for (const part of d.split('Z').filter(Boolean)) {
    const [left, top, right, , , low] = part.match(/[\d.]+/g)!.map(Number) as [number, number, number, number, number, number];
    const to = (mm: number, from: number) => Math.round((mm - from + edge) * dots);
    for (let row = to(top, y); row < to(low, y); row++)
      for (let column = to(left, x); column < to(right, x); column++)
        data.fill(0, 4 * (row * side + column), 4 * (row * side + column) + 3);
  }
  return { width: side, height: side, data };
}

describe('cards of a crew', () => {
  test('nothing is under 9 pt, and numbers, lengths and cavities are 14', () => {
    const pages = [...SKERRY, ...FEN].flatMap((one) => crew(one.pages));
    const least = Math.min(...pages.flatMap((page) => texts(page).map(({ size }) => size)));
    expect((least / 25.4) * 72).toBeGreaterThanOrEqual(9);
    const { plan: planned, pages: all } = of('chassis');
    const sized = new Map<string, number>();
    for (const { text, size } of all.filter(({ sheet }) => sheet === 'Ends').flatMap(texts))
      sized.set(text, Math.max(size, sized.get(text) ?? 0));
    for (const { wireIds, cavity } of planned.terminations) {
      const number = wireIds.map((id) => planned.wires.find((wire) => wire.id === id)!.number).join(' ');
      for (const words of [number, cavity]) expect((sized.get(words)! / 25.4) * 72).toBeGreaterThanOrEqual(14);
    }
  });
  test('the chassis loom has at most 45 of them, before what the planner keeps', () => {
    const { pages } = of('chassis');
    expect(crew(pages).length).toBeLessThanOrEqual(45);
    expect(pages.findIndex(({ post }) => !isCrewPost(post!))).toBe(crew(pages).length);
  });
  test('each page is of a post, in the order of the work, and says of which', () => {
    const posts = of('engine').pages.map(({ post }) => post!);
    const order = ['kit', 'cut', 'crimp', 'board', 'twist', 'sleeve', 'test', 'vehicle', 'wall', 'pocket', 'office'];
    expect([...new Set(posts)]).toEqual(order);
    expect(posts.map((post) => order.indexOf(post))).toEqual([...posts.map((post) => order.indexOf(post))].sort((a, b) => a - b));
    expect(texts(of('engine').pages.find(({ sheet }) => sheet === 'Cut list')!).map(({ text }) => text)).toContain(
      'Cutting bench · Cut list',
    );
  });
  test('nothing stands on the foot of a page or outside it', () => {
    for (const page of [...SKERRY, ...FEN].flatMap(({ pages }) => pages)) {
      const foot = page.heightMm - 13;
      for (const { y, size, text } of texts(page)) if (y > foot - 1) expect([text, y - size > foot]).toEqual([text, true]);
    }
  });
});

describe('the cutting bench', () => {
  test('every wire and piece of dead wire once, with its length; the longest of a reel first; bags are ends or splices', () => {
    const { build, plan: planned, pages, loom } = of('engine');
    const lines = rows(pages.filter(({ sheet }) => sheet === 'Cut list'));
    const lengthsOf = (number: string) => lines.filter((line) => line[0] === number).map((line) => line[1]);
    for (const { number, roughMm, cutMm, heldBy, cable } of planned.wires)
      if (!cable) expect(lengthsOf(number)).toEqual([heldBy.length ? 'HELD' : String(Math.max(roughMm, cutMm))]);
    for (const { number, cutMm } of build.fillers) expect(lengthsOf(number)).toEqual([String(cutMm)]);
    for (const { wires } of build.cuts) {
      const lengths = wires.map(({ cutMm }) => cutMm);
      expect(lengths).toEqual([...lengths].sort((a, b) => b - a));
    }
    const known = [...Object.values(loom.ends).map(({ name }) => name), ...planned.splices.map(({ label }) => `splice ${label}`)];
    const first = planned.wires.find(({ heldBy, cable }) => heldBy.length === 0 && !cable)!;
    expect(known.some((name) => lines.find((line) => line[0] === first.number)!.includes(name))).toBe(true);
  });
});

describe('the crimp bench', () => {
  test('wires of an end stand in the order of seating, each under a letter that says its contact, seal, tool and pull', () => {
    const { build, plan: planned, pages, loom } = of('inlet');
    for (const [endId, { name }] of Object.entries(loom.ends)) {
      const seat = build.steps.find(({ id }) => id === `seat.${endId}`);
      if (!seat) continue;
      // from the head of its card to that of the next
      const all = pages.filter(({ sheet }) => sheet === 'Ends');
      const here = all.flatMap((page, at) => texts(page).map((mark) => ({ ...mark, at })));
      const from = here.findIndex(({ text, size }) => text === name && size === 5);
      const next = here
        .slice(from + 1)
        .findIndex(({ text, size }) => size === 5 && Object.values(loom.ends).some((one) => one.name === text));
      const card = here.slice(from, next === -1 ? undefined : from + 1 + next).map(({ text }) => text);
      const numbers = new Map(planned.wires.map(({ id, number }) => [id, number]));
      const order = seat.items.flatMap(({ cavity }) => planned.terminations.filter((one) => one.endId === endId && one.cavity === cavity));
      const places = order.map(({ wireIds }) => card.indexOf(wireIds.map((id) => numbers.get(id)).join(' ')));
      expect(places).toEqual([...places].sort((a, b) => a - b));
      expect(places).not.toContain(-1);
      for (const [at, one] of order.entries()) {
        // number, colour, letter
        const letter = card.slice(places[at]).find((text) => /^[A-Z]$/.test(text))!;
        const legend = card.slice(card.indexOf(letter), card.indexOf(letter) + 9).join(' ');
        for (const words of [one.contactName, String(one.stripMm), one.pullOffsN.join(', ')]) expect(legend).toContain(words);
      }
    }
  });
  test('every colour is said in words too', () => {
    const { plan: planned, pages } = of('gearbox');
    const words = pages.filter(({ sheet }) => sheet === 'Ends').flatMap((page) => texts(page).map(({ text }) => text));
    const swatches = pages
      .filter(({ sheet }) => sheet === 'Ends')
      .flatMap(({ marks }) => marks.filter((mark) => mark.kind === 'rect' && mark.w === 6 && mark.fill?.startsWith('#') && mark.h === 2.4));
    expect(swatches).toHaveLength(planned.terminations.length);
    for (const { colour } of planned.wires.slice(0, 5)) expect(words.some((text) => text.startsWith(colour.base))).toBe(true);
  });
  test('a strip length is drawn at its true size', () => {
    const { plan: planned, pages } = of('inlet');
    const drawn = pages
      .filter(({ sheet }) => sheet === 'Ends')
      .flatMap(({ marks }) => marks.filter((mark) => mark.kind === 'rect' && mark.h === 1));
    const lengths = new Set(planned.terminations.flatMap(({ stripMm }) => (stripMm === null ? [] : [stripMm])));
    expect(new Set(drawn.map((mark) => (mark.kind === 'rect' ? mark.w : 0)))).toEqual(lengths);
  });
});

describe('ring-out cards', () => {
  test('every pair once, under the end at which a probe stays', () => {
    const { build, pages } = of('chassis');
    const lines = rows(pages.filter(({ sheet }) => sheet === 'Continuity'));
    expect(lines.filter((line) => line.some((words) => / (Ω|mV)$/.test(words)))).toHaveLength(build.continuity.length);
    const heads = lines.flatMap((line) => line.filter((words) => words.startsWith('One probe on')));
    expect(heads).toHaveLength(new Set(build.continuity.map(({ from }) => from.endId)).size);
  });
});

describe('codes that open a card on the floor', () => {
  test('one on every page of the crew, one on every card of an end; none on what the planner keeps', () => {
    const { pages, loom } = of('chassis');
    for (const { post, codes } of pages) expect([post, codes!.length > 0]).toEqual([post, isCrewPost(post!)]);
    const cards = pages.flatMap(({ codes }) => codes!.map(({ card }) => card));
    for (const endId of Object.keys(loom.ends)) expect(cards.filter((card) => card === `end ${endId}`)).toHaveLength(1);
    for (const page of pages)
      for (const { x, y, sizeMm } of page.codes!) {
        const inside = (mark: Mark) => mark.kind === 'text' && mark.x > x && mark.x < x + sizeMm && mark.y > y && mark.y < y + sizeMm;
        expect(page.marks.filter(inside)).toEqual([]);
      }
  });
  test('read back from the paper they say the address of their card', () => {
    const page = of('inlet').pages.find(({ codes }) => codes!.length > 2)!;
    const address = (card: string) => `https://shop.example:8443/jobs/5ee12000-0000-4000-8000-000000000012/floor?release=1&card=${card}`;
    const [printed] = addCodes([page], address);
    const added = printed!.marks.slice(page.marks.length);
    expect(added).toHaveLength(page.codes!.length);
    for (const [at, mark] of added.entries()) {
      const code = page.codes![at]!;
      const image = toBitmap(mark.kind === 'path' ? mark.d : '', code);
      expect(decode(image)).toBe(address(code.card));
    }
  });
});

describe('donor looms', () => {
  test('every wire once, what goes first and what stays last, what is not decided at the end and without a box', () => {
    const job = createFenRanger();
    const donor = Object.values(job.donors)[0]!;
    Object.values(donor.wires)[0]!.decision = null;
    donor.wires.w19!.newName = 'P-1';
    donor.wires.w20!.decision = 'repurpose';
    const [made] = make(job);
    const pages = made!.pages.filter(({ sheet }) => sheet === 'Donor looms');
    const lines = rows(pages).filter((line) => /^(remove|shorten|extend|repurpose|keep|OPEN)$/.test(line[1] ?? ''));
    const order = ['remove', 'shorten', 'extend', 'repurpose', 'keep', 'OPEN'];
    const at = lines.map((line) => order.indexOf(line[1]!));
    expect(at).toEqual([...at].sort((a, b) => a - b));
    const told = pages.flatMap(({ marks }) => marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []))).join(' ');
    expect(told).toContain('new name P-1; ');
    expect(told).toContain('19 becomes P-1, 20 becomes (new name is OPEN).');
    expect(lines.map(([number]) => number).sort()).toEqual(
      Object.values(donor.wires)
        .map(({ number }) => number)
        .sort(),
    );
    const boxes = pages.flatMap(({ marks }) => marks.filter(({ kind }) => kind === 'rect'));
    expect(boxes).toHaveLength(Object.values(donor.wires).filter(({ decision }) => decision !== null).length);
  });
  test('a job without one has no such sheet', () => expect(of('inlet').pages.some(({ sheet }) => sheet === 'Donor looms')).toBe(false));
});

describe('open items', () => {
  test('stand by kind, the next day first, with what they block on this loom; those of another loom do not', () => {
    const job = createFenRanger();
    const [loomId, loom] = Object.entries(job.looms)[0]!;
    const [endId, end] = Object.entries(loom.ends)[0]!;
    const item = (question: string, rest: Partial<OpenItem> = {}) => createOpenItem(question, rest);
    job.openItems = {
      late: item('which relay', { due: '2027-02-01', owner: 'Jun', blocks: [{ loomId, kind: 'end', id: endId }] }),
      soon: item('where is the stud', { due: '2026-12-01' }),
      sealed: item('old seal stays', {
        kind: 'concession',
        due: '2027-03-01',
        answer: 'until the next fit',
        evidence: 'measured',
        answeredBy: 'Imke',
      }),
      other: item('not ours', { blocks: [{ loomId: 'elsewhere', kind: 'loom', id: 'elsewhere' }] }),
    };
    const [made] = make(job);
    const lines = rows(made!.pages.filter(({ sheet }) => sheet === 'Open items')).map((line) => line.join(' | '));
    expect(lines).toEqual(
      expect.arrayContaining([
        'where is the stud | – | nobody yet | 2026-12-01 | OPEN',
        `which relay | ${end.name} | Jun | 2027-02-01 | OPEN`,
      ]),
    );
    const at = (words: string) => lines.findIndex((line) => line.includes(words));
    expect(at('where is the stud')).toBeLessThan(at('which relay'));
    expect(at('Concessions')).toBeLessThan(at('old seal stays'));
    expect(lines[at('old seal stays')]).toContain('until the next fit');
    expect(at('not ours')).toBe(-1);
  });
});

describe('what hangs on the wall and goes into pockets', () => {
  test('the poster has every end once, with a box for each that is done to it, and counts down from all of them to none', () => {
    const { pages, loom } = of('chassis');
    const words = pages.filter(({ sheet }) => sheet === 'Poster').flatMap((page) => texts(page).map(({ text }) => text));
    for (const { name } of Object.values(loom.ends)) expect(words.join(' ')).toContain(name);
    const count = Object.keys(loom.ends).length;
    const boxes = pages
      .filter(({ sheet }) => sheet === 'Poster')
      .flatMap(({ marks }) => marks.filter((mark) => mark.kind === 'rect' && mark.w < 4));
    expect(boxes).toHaveLength(Object.values(loom.ends).reduce((sum, { kind }) => sum + (kind === 'connector' ? 4 : 3), 0));
    const foot = words.slice(words.indexOf(`${count} ends to go`) + 1, words.indexOf(`${count} ends to go`) + count + 2);
    expect(foot).toEqual(Array.from({ length: count + 1 }, (_, at) => String(count - at)));
  });
  test('corners have every end once, by the zone of its leg, and say how many', () => {
    const { pages, loom } = of('engine');
    const words = pages.filter(({ sheet }) => sheet === 'Corners').flatMap((page) => texts(page).map(({ text }) => text));
    for (const { name } of Object.values(loom.ends)) expect(words.join(' ')).toContain(name);
    const counts = words.flatMap((text) => /: (\d+) ends?$/.exec(text)?.[1] ?? []).map(Number);
    expect(counts.reduce((sum, one) => sum + one, 0)).toBe(Object.keys(loom.ends).length);
  });
  test('a pin card names every wired cavity of a plug with its wire and what it serves', () => {
    const { pages, loom, plan: planned } = of('gearbox');
    const lines = rows(pages.filter(({ sheet }) => sheet === 'Pin cards'));
    const wired = planned.terminations.filter(({ endId }) => loom.ends[endId]!.kind === 'connector');
    for (const { cavity, wireIds } of wired) {
      const { number, circuitId } = planned.wires.find(({ id }) => id === wireIds[0])!;
      const serves = loom.circuits[circuitId]!.name.slice(0, 12);
      const isIt = (line: readonly string[]) =>
        line.some((words, at) => words === cavity && line[at + 1]!.startsWith(serves) && line[at + 2]!.startsWith(`${number} `));
      expect([number, cavity, lines.some(isIt)]).toEqual([number, cavity, true]);
    }
  });
});

describe('you are here', () => {
  test('what a card is about is heavy, all else is thin, and every run is drawn once', () => {
    const { tree } = of('chassis').plan;
    const [segmentId] = Object.keys(tree.segments);
    const { marks, widthMm, heightMm } = drawSchematic(tree, { segmentIds: [segmentId!], nodeIds: [tree.segments[segmentId!]!.farNodeId] });
    const paths = marks.filter((mark) => mark.kind === 'path' && mark.d.split('L').length === 3);
    expect(paths).toHaveLength(Object.keys(tree.segments).length);
    expect(paths.filter((mark) => mark.kind === 'path' && mark.width > 0.5)).toHaveLength(1);
    expect(marks.filter(({ kind }) => kind === 'circle')).toHaveLength(1);
    for (const mark of paths)
      for (const [x, y] of (mark.kind === 'path' ? mark.d : '').match(/[\d.]+ [\d.]+/g)!.map((pair) => pair.split(' ').map(Number))) {
        expect(x).toBeLessThanOrEqual(widthMm);
        expect(y).toBeLessThanOrEqual(heightMm);
      }
  });
});

describe('the flow of cards', () => {
  test('a row that no page holds goes on over the next ones, word for word', () => {
    const words = Array.from({ length: 3000 }, (_, at) => `w${at}`);
    const pages = draw((flow) => flow.table([...columns, { title: 'tick', share: 1 }], [[words.join(' '), { tick: true }]]));
    expect(pages.length).toBeGreaterThan(2);
    const seen = pages.flatMap((page) =>
      texts(page)
        .filter(({ text }) => text.startsWith('w'))
        .flatMap(({ text }) => text.split(' ')),
    );
    expect(seen).toEqual(words);
    expect(pages.flatMap(({ marks }) => marks.filter(({ kind }) => kind === 'rect'))).toHaveLength(1);
    for (const page of pages) for (const { y, text } of texts(page)) if (text.startsWith('w')) expect(y).toBeLessThan(page.heightMm - 14);
  });

  const columns: Column[] = [{ title: 'a', share: 1 }];
  const here = { widthMm: 10, heightMm: 5, marks: [] };
  const fillRows = (count: number, name: string) => Array.from({ length: count }, (_, at) => [`${name}${at}`]);
  const draw = (fill: (flow: Flow) => void) => {
    const flow = createFlow(META);
    flow.sheet('s', 'crimp');
    fill(flow);
    return flow.finish();
  };
  const card = (flow: Flow, name: string, count: number) =>
    flow.card({ id: name, title: name, words: '', here }, () => flow.table(columns, fillRows(count, name)));
  const pagesOf = (pages: readonly SheetPage[], name: string) =>
    pages.flatMap((page, at) => (texts(page).some(({ text }) => text.startsWith(name)) ? [at] : []));

  test('a card that a page holds is on one page; one that none holds begins where there is room', () => {
    const pages = draw((flow) => {
      card(flow, 'P', 20);
      card(flow, 'Q', 30);
      card(flow, 'R', 80);
    });
    expect(pagesOf(pages, 'P')).toEqual([0]);
    expect(pagesOf(pages, 'Q')).toEqual([1]);
    expect(pagesOf(pages, 'R').length).toBeGreaterThan(1);
    const words = pages.flatMap((page) => texts(page).map(({ text }) => text));
    for (const row of [...fillRows(20, 'P'), ...fillRows(30, 'Q'), ...fillRows(80, 'R')])
      expect(words.filter((text) => text === row[0])).toHaveLength(1);
    expect(pages.flatMap(({ codes }) => codes!.map((code) => code.card)).filter((id) => id !== 'post crimp')).toEqual(['P', 'Q', 'R']);
  });
  test.each([1, 2, 7, 90, 151])('%i rows in two columns: each once, the left one first, none below the other’s foot', (count) => {
    const pages = draw((flow) => flow.twin(columns, fillRows(count, 'row')));
    const seen = pages.flatMap((page) => texts(page).flatMap(({ text }) => (text.startsWith('row') ? [text] : [])));
    expect(seen).toEqual(fillRows(count, 'row').map(([text]) => text));
    for (const page of pages) {
      const lefts = [
        ...new Set(
          texts(page)
            .filter(({ text }) => text.startsWith('row'))
            .map(({ x }) => x),
        ),
      ];
      const tallest = lefts.map((x) => texts(page).filter((mark) => mark.x === x && mark.text.startsWith('row')).length);
      expect(Math.max(...tallest) - Math.min(...tallest)).toBeLessThanOrEqual(1);
    }
  });
  test('a page of bands is opened by its first one', () => {
    const band = (name: string): Band => ({ id: name, title: name, words: '', here, rows: fillRows(30, name) });
    const pages = draw((flow) => flow.bands(columns, ['A', 'B', 'C'].map(band)));
    expect(pages.map(({ codes }) => codes![0]!.card)).toEqual(['A', 'B', 'C']);
  });
});

describe('what is made and agreed', () => {
  test('has a page at the vehicle where there is some, with what waits for it and what can hurt, and its code opens its step', () => {
    const { pages, loom } = of('gearbox');
    const [page] = pages.filter(({ sheet }) => sheet === 'Made and agreed');
    expect(page!.post).toBe('vehicle');
    const lines = rows([page!]).map((line) => line.join(' '));
    const { t1, t2 } = createSkerry().tasks;
    expect(t1!.places.concat(t2!.places).every(({ id }) => Object.hasOwn(loom.segments, id))).toBe(true);
    const said = lines.join(' ');
    for (const words of ['Plate with two', 'the trial fit', 'covering', 'Penhallow', '45', 'every controller unplugged first'])
      expect(said).toContain(words);
    expect(page!.codes?.map(({ card }) => card)).toContain('step task.t1');
    for (const loomId of ['inlet', 'engine', 'chassis'])
      expect(of(loomId).pages.map(({ sheet }) => sheet)).not.toContain('Made and agreed');
  });
});

test('the kit asks for wire in the steps of the shop, never short', () => {
  const job = createSkerry();
  const catalogue = { ...CATALOGUE, standards: { larkhollow: { ...CATALOGUE.standards.larkhollow!, kitStepMm: 2000 } } };
  const whole = plan(job, catalogue);
  const planned = whole.looms.find(({ loomId }) => loomId === 'gearbox')!;
  const build = createBuild(job, planned, catalogue);
  const pages = createSheets({ job, whole, plan: planned, build, findings: [], catalogue }, META).filter(({ sheet }) => sheet === 'Parts');
  const wires = build.parts.filter(({ group }) => group === 'wire');
  expect(wires.length).toBeGreaterThan(0);
  const lines = rows(pages).flat();
  for (const { name, lengthMm } of wires) {
    const asked = Number(lines[lines.indexOf(name) + 2]);
    expect([name, asked % 2, asked >= lengthMm! / 1000 && asked < lengthMm! / 1000 + 2]).toEqual([name, 0, true]);
  }
});
