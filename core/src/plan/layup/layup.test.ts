import fc from 'fast-check';
import { createRandom } from '../../units/createRandom';
import { arrangeLayer, measureApart } from './arrangeLayer';
import { chooseAtOnce } from './chooseStretches';
import { createTestStrip, LAYUP_RULES } from '../../testing/createTestStrip';
import { layOutStretch } from './layOutStretch';
import type { LaidStretch, LayupDecision, LayupRules, LayupStrip } from './layupTypes';
import { listCrossings } from './listCrossings';
import { listPresent } from './listPresent';
import { measureLay, measureLean, measureRoom, measureTurn } from './measureLayer';
import { takeDecision, toKept } from './takeDecision';
import { searchLayup } from './searchLayup';

const NO_PINS: ReadonlyMap<string, number> = new Map();
const quick = (strip: LayupStrip, rules: LayupRules = LAYUP_RULES) =>
  chooseAtOnce(strip, rules, { beam: 6, pins: NO_PINS, packings: new Map() }).decision;
const search = (strip: LayupStrip, tries = 60, seed = 1, pins = NO_PINS) =>
  searchLayup(strip, LAYUP_RULES, { beam: 6, pins, packings: new Map(), seed, tries });
const lay = (strip: LayupStrip, { stretches }: LayupDecision): LaidStretch[] =>
  stretches.map((one) => layOutStretch(strip, one, LAYUP_RULES, new Map()));
/** "1 + 6 + 12", each layer's threads and its dead wire after a slash */
const toWords = ({ layers }: LaidStretch) =>
  layers
    .map(({ slots }) => {
      const dead = slots.filter(({ threadId }) => threadId === null).length;
      return `${slots.length - dead}${dead ? `/${dead}` : ''}`;
    })
    .join(' + ');

describe('figures of calculations 6', () => {
  const count = (core: number, layers: number) => {
    // enclosing diameter of 1, 3, 4, 5 equal ones
    let radiusMm = { 1: 1, 3: 2.1547, 4: 2.4142, 5: 2.7013 }[core]! / 2;
    return Array.from({ length: layers }, () => {
      const room = measureRoom(1, radiusMm, measureLay(2 * (radiusMm + 1), LAYUP_RULES));
      radiusMm += 1;
      return Math.floor(measureTurn(false, LAYUP_RULES) / room + 1e-9);
    });
  };
  test('▸ capacities outward of equal elements: core 1 → 6, 12, 18, 24, 31; core 3 → 9, 16, 22; core 4 → 10, 16, 23; core 5 → 11, 17, 23', () => {
    expect(count(1, 5)).toEqual([6, 12, 18, 24, 31]);
    expect(count(3, 3)).toEqual([9, 16, 22]);
    expect(count(4, 3)).toEqual([10, 16, 23]);
    expect(count(5, 3)).toEqual([11, 17, 23]);
  });
  test('a core of two counts eight in its first layer: a pair is not round', () => {
    const room = measureRoom(1, 1, measureLay(4, LAYUP_RULES));
    expect([Math.floor(measureTurn(true, LAYUP_RULES) / room), Math.floor(measureTurn(false, LAYUP_RULES) / room)]).toEqual([8, 9]);
  });
  test('▸ take-up round a single core of equal wires at ratio 10, layers 1, 2, 3 → 1.0217, 1.0311, 1.0356', () => {
    expect([1, 2, 3].map((pitch) => measureLean(pitch, 10 * (2 * pitch + 1)).toFixed(4))).toEqual(['1.0217', '1.0311', '1.0356']);
  });
  test.each([
    [7, '1 + 6', 3],
    [11, '3 + 8/1', 4.1547],
    [16, '5 + 11', 4.7013],
    [19, '1 + 6 + 12', 5],
    [30, '4 + 10 + 16', 6.4142],
    [37, '1 + 6 + 12 + 18', 7],
  ])('▸ least fillers, then least diameter: %i → %s, %f d', (wires, words, diameter) => {
    const strip = createTestStrip({ through: wires });
    const [laid] = lay(strip, quick(strip)) as [LaidStretch];
    expect(toWords(laid)).toBe(words);
    expect(laid.layers.at(-1)!.outerOdMm).toBeCloseTo(diameter, 4);
  });
  // best known packings of as many equal circles in a circle
  test.each([
    [19, 4.863],
    [37, 6.759],
    [61, 8.661],
  ])('%i equal wires come within 1.06 of the best known packing, %f d', (wires, best) => {
    const strip = createTestStrip({ through: wires });
    expect(lay(strip, search(strip).decision)[0]!.layers.at(-1)!.outerOdMm / best).toBeLessThanOrEqual(1.06);
  });
  test('7 to 91 equal wires: no layer takes more than it has room for, and none that there is room for is missing', () => {
    for (let wires = 7; wires <= 91; wires += 1) {
      const strip = createTestStrip({ through: wires });
      const [laid] = lay(strip, quick(strip)) as [LaidStretch];
      expect(laid.layers.flatMap(({ slots }) => slots.filter(({ threadId }) => threadId !== null))).toHaveLength(wires);
      laid.layers.slice(1).forEach(({ slots, innerOdMm, layMm }, index) => {
        const isOnPair = index === 0 && laid.layers[0]!.slots.length === 2;
        const room = measureRoom(1, innerOdMm / 2, layMm!);
        expect(slots.length).toBe(Math.floor(measureTurn(isOnPair, LAYUP_RULES) / room + 1e-9));
      });
    }
  });
});

describe('accept of craft A1: 1 + 6 + 12 of 1.09 mm', () => {
  const strip = createTestStrip({ through: 13, odMm: 1.09, leaving: [{ count: 6, atMm: 417, sideDeg: 90 }] });
  const stretch = quick(createTestStrip({ through: 13, odMm: 1.09, leaving: [{ count: 6, atMm: 417, sideDeg: 90 }] })).stretches[0]!;
  const [laid] = lay(strip, { stretches: [stretch] }) as [LaidStretch];
  test('lays of 32.7 and 54.5 mm, 3.06 and 1.83 turns per 100 mm, five turns of the outer layer measure 273 mm; hands alternate', () => {
    expect(toWords(laid)).toBe('1 + 6 + 12');
    const [core, inner, outer] = laid.layers;
    expect([core!.hand, inner!.hand, outer!.hand]).toEqual([null, 'left', 'right']);
    expect([inner!.layMm!.toFixed(1), outer!.layMm!.toFixed(1)]).toEqual(['32.7', '54.5']);
    expect([(100 / inner!.layMm!).toFixed(2), (100 / outer!.layMm!).toFixed(2)]).toEqual(['3.06', '1.83']);
    expect(Math.ceil(5 * outer!.layMm!)).toBe(273);
  });
  test('a wire that leaves at 417 mm on the 90° side starts at 215.5° (7.651 turns)', () => {
    expect(417 / 54.5).toBeCloseTo(7.651, 3);
    const one = createTestStrip({ through: 18, odMm: 1.09, leaving: [{ count: 1, atMm: 417, sideDeg: 90 }] });
    const [only] = lay(one, quick(one)) as [LaidStretch];
    const slot = only.layers.at(-1)!.slots.find(({ threadId }) => threadId === 'l0.0')!;
    expect(slot.startDeg).toBeCloseTo(215.5, 1);
    expect(slot.offSideDeg).toBeCloseTo(0, 6);
  });
  test('six of the twelve leave: filled on with 6 fillers at 5.45 mm, or 13 laid anew as 4 + 9 with one filler at 4.81 mm, 11.7 % thinner: laid anew', () => {
    const dead = laid.layers.at(-1)!.slots.flatMap(({ fillers }) => fillers);
    expect([dead.length, laid.layers.at(-1)!.outerOdMm.toFixed(2)]).toEqual([6, '5.45']);
    const { decision } = search(strip);
    expect(decision.stretches.map(({ fromMark }) => strip.marks[fromMark]!.mm)).toEqual([0, 417]);
    const [, after] = lay(strip, decision) as [LaidStretch, LaidStretch];
    expect([toWords(after), after.layers.at(-1)!.outerOdMm.toFixed(2)]).toEqual(['4 + 9/1', '4.81']);
  });
});

describe('crossed breakouts', () => {
  /** least crossings of all ways to put threads into layers, laid anew at any breakout or at none */
  function countByForce(strip: LayupStrip): number {
    const cuts = strip.marks.map((_, mark) => mark);
    const least = new Map<number, number>([[0, 0]]);
    const most = (layers: string[][], from: number, to: number) =>
      listCrossings(strip, { fromMark: from, toMark: to, layers, coreFillers: 0 }).length;
    for (const to of cuts.slice(1))
      for (const from of cuts.filter((mark) => mark < to)) {
        const ids = listPresent(strip, from, to).map(({ thread }) => thread.id);
        let best = Infinity;
        // each thread in one of three layers
        for (let code = 0; code < 3 ** ids.length; code += 1) {
          const layers: string[][] = [[], [], []];
          ids.forEach((id, index) => layers[Math.floor(code / 3 ** index) % 3]!.push(id));
          best = Math.min(best, most(layers, from, to));
        }
        least.set(to, Math.min(least.get(to) ?? Infinity, least.get(from)! + best));
      }
    return least.get(cuts.at(-1)!)!;
  }
  test('are none wherever an order without one exists, and as few as there can be: against all ways on small strips', () => {
    const random = createRandom(5);
    for (let round = 0; round < 60; round += 1) {
      const count = 2 + Math.floor(random() * 4);
      const spans = Array.from({ length: count }, (_, at) => {
        const [a, b] = [Math.floor(random() * 4), Math.floor(random() * 4)];
        // one lies there all along: a strip is never empty
        return at === 0 ? { fromMm: 0, toMm: 800 } : { fromMm: 200 * Math.min(a, b), toMm: 200 * (Math.max(a, b) + 1) };
      });
      const strip = createTestStrip({ through: 0, spans, lengthMm: 800 });
      const { decision, cost } = search(strip, 40);
      const crossings = decision.stretches.flatMap((one) => listCrossings(strip, one));
      expect([round, crossings.length, cost.crossings]).toEqual([round, countByForce(strip), countByForce(strip)]);
    }
  });
});

describe('a simulator that walks the trunk', () => {
  /** where a slot lies at mm from the start of its stretch; the axis is z */
  const toPoint = (hand: string | null, layMm: number | null, pitch: number, startDeg: number, z: number): [number, number, number] => {
    const deg = startDeg + (layMm === null ? 0 : ((hand === 'right' ? 1 : -1) * 360 * z) / layMm);
    return [pitch * Math.sin((deg * Math.PI) / 180), -pitch * Math.cos((deg * Math.PI) / 180), z];
  };
  const random = createRandom(77);
  const strips = Array.from({ length: 12 }, (_, index) => {
    const leaving = Array.from({ length: 1 + Math.floor(random() * 5) }, (_, at) => ({
      count: 1 + Math.floor(random() * 9),
      atMm: 120 + at * 130 + Math.floor(random() * 60),
      sideDeg: Math.floor(random() * 360),
      odMm: [1.09, 1.27, 1.6, 2.18][Math.floor(random() * 4)]!,
    }));
    return createTestStrip({ through: 2 + Math.floor(random() * 20), odMm: 1.09, leaving, lengthMm: 950 + index });
  });
  test('finds no two elements nearer than the squeeze allows, in space, all along', () => {
    for (const strip of strips)
      for (const stretch of lay(strip, search(strip, 16).decision)) {
        const lengthMm = strip.marks[stretch.toMark]!.mm - strip.marks[stretch.fromMark]!.mm;
        stretch.layers.forEach(({ hand, layMm, slots }, layer) => {
          for (let z = 0; z <= lengthMm; z += 83) {
            const here = slots.map(({ pitchRadiusMm, startDeg }) => toPoint(hand, layMm, pitchRadiusMm, startDeg, z));
            slots.forEach((one, index) => {
              const other = slots[(index + 1) % slots.length]!;
              if (layer === 0 || slots.length < 2) return;
              // the other may come nearest a little further along
              let near = Infinity;
              for (let dz = -one.odMm * 1.5; dz <= one.odMm * 1.5; dz += 0.02) {
                const at = toPoint(hand, layMm, other.pitchRadiusMm, other.startDeg, z + dz);
                near = Math.min(near, Math.hypot(...at.map((value, axis) => value - here[index]![axis]!)));
              }
              expect(near).toBeGreaterThanOrEqual(((one.odMm + other.odMm) / 2) * (1 - LAYUP_RULES.squeeze) - 0.012);
            });
          }
          // nothing lies in the layer beneath
          const beneath = layer === 0 ? 0 : stretch.layers[layer - 1]!.outerOdMm / 2;
          if (layer > 0)
            for (const { pitchRadiusMm, odMm } of slots) expect(pitchRadiusMm - odMm / 2).toBeGreaterThanOrEqual(beneath - 1e-9);
        });
      }
  });
  test('finds every element on its branch’s side when it leaves, as far as as many fit there, and no layer without what it lies on', () => {
    for (const strip of strips)
      for (const [at, stretch] of lay(strip, search(strip, 16).decision).entries()) {
        for (const { slots, hand, layMm } of stretch.layers.slice(1))
          for (const { threadId, startDeg, offSideDeg } of slots) {
            const thread = strip.threads.find(({ id }) => id === threadId);
            if (!thread || thread.to.sideDeg === null || thread.to.mark > stretch.toMark) continue;
            const along = strip.marks[thread.to.mark]!.mm - strip.marks[stretch.fromMark]!.mm;
            const comesUp = startDeg + ((hand === 'right' ? 1 : -1) * 360 * along) / layMm!;
            expect(measureApart(comesUp, thread.to.sideDeg)).toBeCloseTo(offSideDeg!, 6);
          }
        const lives = stretch.layers.map(({ fromMark, toMark }) => [fromMark, toMark] as const);
        lives.slice(1).forEach(([from, to], index) => {
          expect([at, lives[index]![0] <= from, lives[index]![1] >= to]).toEqual([at, true, true]);
        });
      }
  });
});

describe('an order round a layer', () => {
  const force = (targets: readonly number[]): number => {
    const count = targets.length;
    let best = Infinity;
    const permute = (left: number[], order: number[]) => {
      if (left.length === 0)
        for (let turn = 0; turn < 360; turn += 2)
          best = Math.min(
            best,
            order.reduce((sum, item, at) => sum + measureApart(targets[item]!, turn + (at * 360) / count) ** 2, 0),
          );
      left.forEach((item, at) => permute([...left.slice(0, at), ...left.slice(at + 1)], [...order, item]));
    };
    permute(
      targets.map((_, index) => index),
      [],
    );
    return best;
  };
  test('is off its targets no more than the best of all orders, within a tenth', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 359 }), { minLength: 2, maxLength: 5 }), (targets) => {
        const { offDeg } = arrangeLayer(
          targets.map((targetDeg) => ({ odMm: 1, targetDeg })),
          () => 1,
        );
        const cost = offDeg.reduce((sum: number, off) => sum + off! ** 2, 0);
        expect(cost).toBeLessThanOrEqual(force(targets) * 1.1 + 60);
      }),
      { numRuns: 60, seed: 3 },
    );
  });
});

describe('a search', () => {
  const strip = createTestStrip({
    through: 9,
    odMm: 1.09,
    lengthMm: 1400,
    leaving: Array.from({ length: 8 }, (_, at) => ({
      count: 6,
      atMm: 150 * (at + 1),
      sideDeg: (at * 100) % 360,
      odMm: at % 2 ? 1.27 : 1.09,
    })),
  });
  test('with the same seed comes to the same, byte for byte', () => {
    expect(JSON.stringify(search(strip, 30, 9))).toBe(JSON.stringify(search(strip, 30, 9)));
  });
  test('stopped at once gives the quick answer, stopped on the way the best so far', () => {
    const stop = (after: number) => {
      let calls = 0;
      const shares: number[] = [];
      const found = searchLayup(strip, LAYUP_RULES, {
        ...{ beam: 6, pins: NO_PINS, packings: new Map(), seed: 1, tries: 60 },
        progress: (done) => {
          shares.push(done);
          calls += 1;
          return calls >= after;
        },
      });
      expect(shares).toEqual([...shares].sort((a, b) => a - b));
      return found;
    };
    expect(stop(1).decision.stretches).toHaveLength(1);
    const whole = search(strip, 60);
    const part = stop(80);
    expect([part.cost.crossings, part.cost.money >= whole.cost.money - 1e-9]).toEqual([0, true]);
  });
  test('what is told on the way is a lay-up of the whole strip', () => {
    const told: number[] = [];
    const rules = LAYUP_RULES;
    searchLayup(strip, rules, {
      ...{ beam: 6, pins: NO_PINS, packings: new Map(), seed: 1, tries: 40 },
      progress: (_, best) => {
        if (!best) return false;
        const { stretches } = best;
        const kept = takeDecision(strip, toKept(strip, best, NO_PINS), NO_PINS);
        expect(kept).not.toBeNull();
        expect([stretches[0]!.fromMark, stretches.at(-1)!.toMark]).toEqual([0, strip.marks.length - 1]);
        told.push(stretches.length);
        return false;
      },
    });
    expect(told.length).toBeGreaterThan(20);
    expect(new Set(told).size).toBe(1);
  });
  test('what is pinned to a layer lies there, whatever it costs; what cannot be there is said', () => {
    const free = search(strip, 20);
    const pinned = search(strip, 20, 1, new Map([['l0.0', 0]]));
    expect(pinned.decision.stretches[0]!.layers[0]).toContain('l0.0');
    expect([pinned.cost.unpinned, pinned.cost.crossings]).toEqual([0, 1]);
    expect(free.cost.crossings).toBe(0);
    const six = search(strip, 20, 1, new Map(Array.from({ length: 6 }, (_, at) => [`l0.${at}`, 0])));
    expect(six.cost.unpinned).toBe(6);
  });
});
