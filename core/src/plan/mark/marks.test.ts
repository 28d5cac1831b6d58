import fc from 'fast-check';
import { CATALOGUE, createDemoShop } from '../../catalogue';
import { createCleanSkerry, createInlet } from '../../demo';
import { listFindings } from '../../make';
import { changeDocument, type Job, type Shop } from '../../model';
import { createBench } from '../../testing/createBench';
import { layoutLegend, LETTER_SHARE, LINE_SHARE, listMarks, listNearNames, listTwoMeanings, plan } from '../index';

const READ = { legendMm: 2.5, legendLeastMm: 1.6 };

describe('a legend on its sleeve', () => {
  test('letters × 0.62 × their height within what can be printed: 10 letters of 1.6 mm take 9.92 mm', () => {
    expect(layoutLegend('abcdefghij', { printableMm: 9.92, suppliedBoreMm: 3 }, READ)).toEqual({
      lines: ['abcdefghij'],
      capMm: 1.6,
      fits: true,
    });
    expect(layoutLegend('abcdefghij', { printableMm: 9.9, suppliedBoreMm: 3 }, READ)).toMatchObject({ capMm: 1.5, fits: false });
  });
  test('more lines where letters get larger by it, and not across a narrow sleeve', () => {
    expect(layoutLegend('oil pressure and temperature', { printableMm: 25, suppliedBoreMm: 4.8 }, READ)).toEqual({
      lines: ['oil pressure', 'and temperature'],
      capMm: 2.5,
      fits: true,
    });
    // flat it is 2.5 mm wide, two lines of 1.6 mm are 3.8
    expect(layoutLegend('oil pressure and temperature', { printableMm: 36, suppliedBoreMm: 1.6 }, READ)).toMatchObject({
      lines: [expect.any(String)],
    });
  });
  test('whatever the words: nothing is lost, nothing is outside, and no other number of lines has larger letters', () => {
    const name = fc.array(fc.stringMatching(/^[a-z0-9]{1,9}$/), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(name, fc.integer({ min: 10, max: 60 }), fc.integer({ min: 8, max: 200 }), (words, printableMm, tenths) => {
        const suppliedBoreMm = tenths / 10;
        const flatMm = (Math.PI * suppliedBoreMm) / 2;
        const { lines, capMm, fits } = layoutLegend(words.join(' '), { printableMm, suppliedBoreMm }, READ);
        expect(lines.join(' ')).toBe(words.join(' '));
        expect(capMm * LETTER_SHARE * Math.max(...lines.map(({ length }) => length))).toBeLessThanOrEqual(printableMm + 1e-6);
        expect(capMm * (1 + LINE_SHARE * (lines.length - 1))).toBeLessThanOrEqual(flatMm + 1e-6);
        expect(capMm).toBeLessThanOrEqual(READ.legendMm);
        expect(fits).toBe(capMm >= READ.legendLeastMm);
        for (const other of listBreaks(words)) {
          const along = printableMm / (LETTER_SHARE * Math.max(...other.map(({ length }) => length)));
          const across = flatMm / (1 + LINE_SHARE * (other.length - 1));
          expect(Math.min(READ.legendMm, along, across)).toBeLessThan(capMm + 0.1 + 1e-6);
        }
      }),
    );
  });
});

/** All ways to break words into up to three lines. */
function listBreaks(words: readonly string[], most = 3): string[][] {
  if (words.length === 0) return [[]];
  if (most === 0) return [];
  return words.flatMap((_, at) => listBreaks(words.slice(at + 1), most - 1).map((rest) => [words.slice(0, at + 1).join(' '), ...rest]));
}

describe('marks of a loom', () => {
  const job = createCleanSkerry();
  const planned = plan(job, CATALOGUE);
  test('every wire twice, every end once; each on a sleeve that passes over what it marks and grips it', () => {
    for (const loom of planned.looms) {
      const marks = listMarks(job, loom, CATALOGUE);
      expect(marks.filter(({ kind }) => kind === 'wire').map(({ id, pieces }) => [id, pieces])).toEqual(
        loom.wires.map(({ id }) => [id, 2]),
      );
      expect(marks.filter(({ kind }) => kind === 'end')).toHaveLength(Object.keys(job.looms[loom.loomId]!.ends).length);
      for (const { stockId, odMm, legend } of marks) {
        const stock = CATALOGUE.labels.find(({ id }) => id === stockId)!;
        expect(stock.suppliedBoreMm).toBeGreaterThanOrEqual(odMm! * 1.1 - 1e-9);
        expect(stock.recoveredBoreMm).toBeLessThanOrEqual(odMm! + 1e-9);
        expect(legend!.capMm).toBeGreaterThanOrEqual(1.6);
      }
    }
  });
  const inlet = createInlet();
  const marksWith = (change: (shop: Shop) => void, of: Job = inlet) => {
    const shop = createDemoShop();
    change(shop);
    const plans = plan(of, shop);
    return {
      marks: listMarks(of, plans.looms[0]!, shop),
      sentences: listFindings(of, plans, shop, null).flatMap(({ code, sentence }) => (code === 'MA2' ? [sentence] : [])),
    };
  };
  test('a longer sleeve is taken where the legend needs it; a retired one is not', () => {
    const short = (shop: Shop) => {
      const at = shop.labels.findIndex(({ id }) => id === 'label-2.4');
      shop.labels.splice(at, 0, { ...shop.labels[at]!, id: 'short', name: 'short sleeve', lengthMm: 8, printableMm: 6 });
    };
    const of = (marks: ReturnType<typeof marksWith>['marks'], text: string) => marks.find((one) => one.text === text)!.stockId;
    const wire = marksWith(() => undefined).marks.find(({ stockId }) => stockId === 'label-1.6')!.text;
    const onlyShort = (shop: Shop) => {
      shop.labels = shop.labels.filter(({ id }) => id !== 'label-1.6');
      short(shop);
    };
    // six letters of 1.6 mm take 5.95 mm: it does on the short one
    expect(of(marksWith(onlyShort).marks, wire)).toBe('short');
    const longer = (shop: Shop) => {
      onlyShort(shop);
      for (const standard of Object.values(shop.standards)) standard.legendLeastMm = 2;
    };
    expect(of(marksWith(longer).marks, wire)).toBe('label-2.4');
    const retired = (shop: Shop) => {
      onlyShort(shop);
      shop.buying['labels/short'] = { retired: true, price: null, packOf: null, orderAs: '' };
    };
    expect(of(marksWith(retired).marks, wire)).toBe('label-2.4');
  });
  test('MA2: letters that are too low, and a leg that no sleeve goes over', () => {
    const long = changeDocument(inlet, ({ looms }) => {
      const first = Object.keys(looms.inlet!.ends).find((id) => looms.inlet!.ends[id]!.name === 'throttle')!;
      looms.inlet!.ends[first]!.name = 'throttleactuatorandpositionsensorfeedbackloop';
    });
    expect(marksWith(() => undefined, long).sentences).toEqual([
      expect.stringMatching(
        /^"throttleactuator.* is too long for marker sleeve .*: its letters would be 1\.[0-5] mm high, and lower than 1.6 mm is not read\.$/,
      ),
    ]);
    const { sentences } = marksWith((shop) => (shop.labels = shop.labels.filter(({ suppliedBoreMm }) => suppliedBoreMm < 9)));
    expect(sentences).toEqual([
      'No marker sleeve of the shop fits inlet bulkhead B1 (9.2 mm).',
      'No marker sleeve of the shop fits hot side (6.3 mm).',
    ]);
  });
});

describe('names that are taken for one another', () => {
  const near = (...names: string[]) =>
    listNearNames(names.map((name, at) => ({ id: String(at), loomId: 'a', name }))).map(({ pair, by }) => [
      ...pair.map(({ name }) => name),
      by,
    ]);
  test.each<[string[], string | null]>([
    [['map', 'maf'], 'letter'],
    [['fuel pump', 'fuel pumps'], 'letter'],
    [['Fuel pump', 'fuel-pump'], 'same'],
    [['rear left lamp', 'left rear lamp'], 'order'],
    [['injector 1', 'injector 2'], null],
    [['injector 1', 'injector 12'], null],
    [['lamp L', 'lamp R'], null],
    [['oil pressure', 'oil temperature'], null],
    [['coil 1 rear', 'rear coil 1'], 'order'],
    [['damper front left', 'damper front right'], null],
  ])('%j: %s', (names, by) => expect(near(...names)).toEqual(by === null ? [] : [[...names, by]]));
  test('finds what comparing every name with every other finds', () => {
    const letter = fc.constantFrom('a', 'b', 'c');
    const word = fc.array(letter, { minLength: 2, maxLength: 4 }).map((letters) => letters.join(''));
    fc.assert(
      fc.property(fc.uniqueArray(word, { maxLength: 7 }), (names) => {
        const expected = names.flatMap((one, at) =>
          names
            .slice(at + 1)
            .filter((other) => near(one, other).length > 0)
            .map((other) => `${one} ${other}`),
        );
        expect(
          near(...names)
            .map(([one, other]) => `${one} ${other}`)
            .sort(),
        ).toEqual(expected.sort());
      }),
    );
  });
  test('5,000 ends of one name are told against the first few, not each against each', () => {
    expect(near(...Array<string>(5000).fill('plug')).length).toBeLessThan(50_000);
  });
  test('an abbreviation that could stand for two things of the job', () => {
    const phrases = ['throttle position sensor', 'tyre pressure sensor', 'oil pressure sensor'];
    expect(listTwoMeanings(['TPS', 'OPS'], phrases)).toEqual([
      { abbreviation: 'tps', name: 'TPS', meanings: ['throttle position sensor', 'tyre pressure sensor'] },
    ]);
    expect(listTwoMeanings(['throttle'], phrases)).toEqual([]);
    // letters that change their number as they become small
    expect(() => listTwoMeanings(['İP', 'i̇p'], ['İa pb', 'i̇c pd'])).not.toThrow();
  });
  test('MA3 and MA4 tell them at the job; the two halves of a connection have one name on purpose', () => {
    const job = createBench();
    const [one, other] = Object.values(job.looms.bench!.ends) as unknown as [{ name: string }, { name: string }];
    Object.assign(one, { name: 'MAP' });
    Object.assign(other, { name: 'MAF' });
    const tell = (of: Job, code: string) =>
      listFindings(of, plan(of, CATALOGUE), CATALOGUE, null).flatMap((finding) => (finding.code === code ? [finding.sentence] : []));
    expect(tell(job, 'MA3')).toEqual(['"MAP" and "MAF" are one letter apart: one is taken for the other.']);
    const [first, second] = Object.values(job.looms.bench!.circuits) as unknown as [{ name: string }, { name: string }];
    Object.assign(first, { name: 'manifold air pressure' });
    Object.assign(second, { name: 'manifold air pressure, main actuator pilot' });
    expect(tell(job, 'MA4')).toEqual([
      '"MAP" on a legend could stand for main actuator pilot or manifold air pressure here: write it out.',
    ]);
    Object.assign(one, { name: 'MAP ECT' });
    Object.assign(first, { name: 'manifold air pressure, engine coolant temperature' });
    Object.assign(second, { name: 'main actuator pilot, exhaust cam timing' });
    const both = listFindings(job, plan(job, CATALOGUE), CATALOGUE, null).filter(({ code }) => code === 'MA4');
    expect([both.length, new Set(both.map(({ key }) => key)).size]).toEqual([2, 2]);
    const clean = createCleanSkerry();
    expect(tell(clean, 'MA3')).toEqual([]);
  });
});
