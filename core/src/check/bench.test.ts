import { CATALOGUE, createDemoShop } from '../catalogue';
import { createSkerry } from '../demo';
import { createBuild, listFindings, listUses, toCostWords } from '../make';
import { findTool, type Shop } from '../model';
import { plan } from '../plan';
import { toPartsCsv } from '../exchange';
import { createBench } from '../testing/createBench';
import { runs } from '../testing/runs';

const shopWith = (change: (shop: Shop) => void): Shop => {
  const shop = createDemoShop();
  change(shop);
  return shop;
};
const RETIRED = { retired: true, price: null, packOf: null, orderAs: '' };
const sentences = (shop: Shop, code: string, today: string | null = '2026-11-26') => {
  const job = createBench();
  return listFindings(job, plan(job, shop), shop, today).flatMap((one) => (one.code === code ? [one.sentence] : []));
};

describe('EN7, tools', () => {
  const due = (calibratedOn: string | null, everyDays: number | null) =>
    shopWith(({ tools }) =>
      Object.assign(
        tools.find(({ id }) => id === 'barrel')!,
        { calibratedOn, everyDays },
      ),
    );
  test.each<[string, Shop, string | null, string[]]>([
    ['on its last day', due('2026-11-16', 10), '2026-11-26', []],
    [
      'a day later',
      due('2026-11-15', 10),
      '2026-11-26',
      ['The barrel crimper was due for calibration on 2026-11-25: have it calibrated before this loom is crimped.'],
    ],
    [
      'never calibrated',
      due(null, 10),
      '2026-11-26',
      ['The barrel crimper has no calibration on record: have it calibrated before this loom is crimped.'],
    ],
    ['one that needs none', due(null, null), '2026-11-26', []],
    ['with no day known', due('2020-01-01', 10), null, []],
    [
      'one that the shop has not',
      shopWith((shop) => (shop.tools = shop.tools.filter(({ id }) => id !== 'barrel'))),
      null,
      ['The shop has no barrel crimper, nest 1 among its tools, and this loom needs one.'],
    ],
    ['a shop that lists no tools', shopWith((shop) => (shop.tools = [])), '2026-11-26', []],
  ])('%s', (_, shop, today, expected) => expect(sentences(shop, 'EN7', today)).toEqual(expected));

  test('a die after a comma is of the tool before it; the longer name counts first', () => {
    const tools = [{ name: 'press' }, { name: 'press, large' }].map((one, at) => ({ ...CATALOGUE.tools[0]!, ...one, id: String(at) }));
    expect([findTool(tools, 'press, die 2')?.id, findTool(tools, 'press, large')?.id, findTool(tools, 'pressing')]).toEqual([
      '0',
      '1',
      undefined,
    ]);
  });
});

describe('what is retired', () => {
  const job = createSkerry();
  const planned = plan(job, CATALOGUE);
  const used = listUses(job, planned, CATALOGUE);

  test('is not chosen by any plan any more: each part of the demo that a plan chose, one after another', () => {
    const parts = used.filter((one) => /^(contacts|seals|rings|barrels|coverings|labels)\//.test(one));
    for (const key of parts.filter((_, at) => at % runs(4, 1) === 0)) {
      const shop = shopWith(({ buying }) => (buying[key] = RETIRED));
      expect([key, listUses(job, plan(job, shop), shop).includes(key)]).toEqual([key, false]);
    }
  });

  test('a covering that was chosen by hand stays', () => {
    const pinned = createSkerry();
    pinned.looms.inlet!.segments.t4!.coveringPin = { kind: 'braid', itemId: 'braid-13', reason: 'in the drawer' };
    const shop = shopWith(({ buying }) => (buying['coverings/braid-13'] = RETIRED));
    const sleeve = plan(pinned, shop)
      .looms.find(({ loomId }) => loomId === 'inlet')!
      .coverings.find(({ segmentId }) => segmentId === 't4')!;
    expect(sleeve.itemId).toBe('braid-13');
  });

  test('EN8: a housing or cable that a job names stays in it, and is told', () => {
    const bench = createBench();
    const familyId = bench.looms.bench!.ends.L!.familyId!;
    const shop = shopWith(({ buying }) => (buying[`families/${familyId}`] = RETIRED));
    expect(sentences(shop, 'EN8')).toEqual([
      `${shop.families[familyId]!.name} is retired by the shop: choose another housing, or make sure of the stock.`,
    ]);
    expect(plan(bench, shop).looms[0]!.terminations).toEqual(plan(bench, CATALOGUE).looms[0]!.terminations);
    // one of the job's own is none of the shop's
    bench.families[familyId] = shop.families[familyId]!;
    expect(listFindings(bench, plan(bench, shop), shop, null).filter(({ code }) => code === 'EN8')).toEqual([]);
  });

  test('uses name the style, what the job names and what its plan chose, each once', () => {
    expect(used).toContain('standards/larkhollow');
    expect(used).toContain('families/hollin-10m');
    expect(used).toContain('wires/etfe 22');
    expect(new Set(used).size).toBe(used.length);
    expect(used).toEqual([...used].sort());
  });
});

describe('what parts cost', () => {
  const job = createBench();
  const build = (shop: Shop) => createBuild(job, plan(job, shop).looms[0]!, shop);
  const line = (shop: Shop, id: string) => build(shop).parts.find((one) => one.id === id)!;
  const contactId = build(createDemoShop()).parts.find(({ group }) => group === 'contact')!.id;
  const key = `contacts/${contactId}`;

  test('pieces by the piece, packs whole; a length by the metre', () => {
    const { pieces } = line(createDemoShop(), contactId);
    const priced = (price: number | null, packOf: number | null) =>
      line(
        shopWith(({ buying }) => (buying[key] = { retired: false, price, packOf, orderAs: '' })),
        contactId,
      );
    expect(priced(0.35, pieces)).toMatchObject({ packs: 1, cost: Math.round(35 * pieces) / 100 });
    expect(priced(0, pieces - 1)).toMatchObject({ packs: 2, cost: 0 });
    expect(priced(null, null)).toMatchObject({ packs: null, cost: null });
    const shop = shopWith(({ buying }) => {
      for (const one of Object.keys(buying)) if (one.startsWith('wires/')) buying[one]!.price = 2;
    });
    for (const { lengthMm, cost } of build(shop).parts.filter(({ group }) => group === 'wire'))
      expect(cost).toBe(Math.round((lengthMm! / 1000) * 200) / 100);
  });

  test('the sum says what has no price; without prices it says that', () => {
    const parts = build(createDemoShop()).parts;
    const open = parts.filter(({ cost }) => cost === null).length;
    const sum = parts.reduce((total, { cost }) => total + (cost ?? 0), 0).toFixed(2);
    expect(toCostWords(parts, 'EUR').short).toBe(`parts from ${sum} EUR`);
    expect(toCostWords(parts, 'EUR').whole).toContain(`${open} of ${parts.length} lines of the parts list have no price.`);
    expect(toCostWords([{ cost: 2 }], null).short).toBe('parts 2.00');
    expect(toCostWords(build(shopWith((shop) => (shop.buying = {}))).parts, 'EUR')).toEqual({
      short: '',
      whole: 'The shop states no prices.',
    });
  });

  test('as a list to order, an empty cell for what nobody stated', () => {
    const csv = toPartsCsv(build(createDemoShop()), 'EUR').trim().split('\r\n');
    expect(csv[0]).toBe('group,part,name,pieces,metres,packs,cost EUR');
    expect(csv).toHaveLength(build(createDemoShop()).parts.length + 1);
    expect(csv.find((row) => row.startsWith('splice,sleeve-'))).toMatch(
      /^splice,sleeve-[^,]+,"?adhesive splice sleeve[^"]+"?,\d+,[\d.]+,,$/,
    );
  });
});
