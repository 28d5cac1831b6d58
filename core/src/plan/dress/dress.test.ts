import fc from 'fast-check';
import { CATALOGUE } from '../../catalogue';
import { createBuild } from '../../make';
import { isFromTheSide, isShrink, type Job, type Loom, type Shrink, type Tick } from '../../model';
import { createBench } from '../../testing/createBench';
import { isCoveringFit } from '../cover/measureCovering';
import { findStandard, plan } from '../index';
import { buildUp, isGripping } from './buildUp';
import { planParking } from './planParking';

const only = (job: Job) => plan(job, CATALOGUE).looms[0]!;
const lined = CATALOGUE.coverings.filter(isShrink).filter(({ kind }) => kind === 'adhesive-shrink');
const dressed = (change: (loom: Loom) => void = () => undefined) =>
  only(
    createBench((loom) => {
      loom.dressing = 'boots';
      loom.ends.L = { ...loom.ends.L!, familyId: 'hollin-13', key: 'A' };
      change(loom);
    }),
  );
const left = (planned: ReturnType<typeof only>) => planned.endDress.find(({ endId }) => endId === 'L')!;

describe('build-up (craft A3)', () => {
  test('▸ body 15, lead 3.2, adhesive 19/6: recovers to 6.0 > 2.88; 6.4/2.0 → 5.23, then 9.5/3.0 → 7.54 ≥ 6.67: two pieces', () => {
    const wide = lined.find(({ suppliedBoreMm }) => suppliedBoreMm === 19)!;
    expect(isGripping(wide.suppliedBoreMm, wide.recoveredBoreMm, 15)).toBe(true);
    expect(wide.recoveredBoreMm).toBeGreaterThan(0.9 * 3.2);
    const built = buildUp(lined, 3.2, wide.recoveredBoreMm / 0.9)!;
    expect(built.map(({ sleeve, overMm }) => [sleeve.suppliedBoreMm, Number(overMm.toFixed(2))])).toEqual([
      [6.4, 5.23],
      [9.5, 7.54],
    ]);
  });
  /** Fewest sleeves by trying every row of them, also the same one twice. */
  const fewest = (sleeves: readonly Shrink[], odMm: number, target: number, most: number, left = 4): number => {
    if (odMm >= target) return 0;
    if (left === 0) return Infinity;
    const over = sleeves
      .filter((one) => one.suppliedBoreMm >= 1.1 * odMm && one.recoveredBoreMm <= 0.9 * odMm)
      .map((one) => Math.sqrt(odMm ** 2 + 4 * one.wallMm * (one.recoveredBoreMm + one.wallMm)))
      .filter((mm) => mm <= most);
    return 1 + Math.min(Infinity, ...over.map((mm) => fewest(sleeves, mm, target, most, left - 1)));
  };
  test('it grips piece by piece, reaches what it has to, and takes as few as any row of ever wider sleeves', () => {
    fc.assert(
      fc.property(fc.double({ min: 1.5, max: 12, noNaN: true }), fc.double({ min: 1, max: 2.2, noNaN: true }), (odMm, times) => {
        const target = odMm * times;
        const built = buildUp(lined, odMm, target);
        if (!built) return;
        let under = odMm;
        for (const { sleeve, underMm, overMm } of built) {
          expect(underMm).toBeCloseTo(under, 9);
          expect(isGripping(sleeve.suppliedBoreMm, sleeve.recoveredBoreMm, underMm)).toBe(true);
          under = overMm;
        }
        expect(under).toBeGreaterThanOrEqual(target - 1e-6);
        // with the same sleeve twice there may be one fewer, never two
        expect(built.length - fewest(lined, odMm, target, Infinity)).toBeLessThanOrEqual(1);
      }),
      { numRuns: 200 },
    );
  });
  test('a leg that is thick enough needs none; one that nothing grips gets none', () => {
    expect(buildUp(lined, 7, 6.67)).toEqual([]);
    expect(buildUp(lined, 0.4, 6.67)).toBeNull();
  });
});

describe('room to stand back', () => {
  const leg = { legMm: 90, looseMm: 0, stripRoomMm: 60 };
  test('▸ leg of 90 mm with 45 of sleeve, 30 of boot, 25 of marker: 100 + 60 > 90', () => {
    const pieces = [
      { name: 'boot', lengthMm: 30 },
      { name: 'marker', lengthMm: 25 },
    ];
    const parked = planParking({ ...leg, sleeve: { name: 'sleeve', pushedMm: 45, isOverEnd: false }, pieces });
    // covered first there is still no room for boot and marker: 55 + 60 > 90
    expect(parked).toMatchObject({ order: 'cover-first', fits: false, needMm: 115, roomMm: 90 });
    expect(parked.because).toContain('160 of 90 mm');
    expect(planParking({ ...leg, legMm: 115, sleeve: { name: 'sleeve', pushedMm: 45, isOverEnd: false }, pieces })).toMatchObject({
      order: 'cover-first',
      fits: true,
    });
    expect(planParking({ ...leg, legMm: 160, sleeve: { name: 'sleeve', pushedMm: 45, isOverEnd: false }, pieces })).toMatchObject({
      order: 'push-back',
      fits: true,
      needMm: 160,
    });
  });
  test('loose wire behind the leg counts, wire that is twisted in layers does not', () => {
    const straight = dressed();
    expect(left(straight).parking.roomMm).toBe(400);
    const laid = dressed((loom) => (loom.bundling = 'concentric'));
    expect(laid.layups.flatMap(({ segmentIds }) => segmentIds)).toContain('s1');
    expect(left(laid).parking.roomMm).toBe(100);
  });
  test('a sleeve that goes on afterwards, or from the side, does not stand back', () => {
    const wrapped = dressed((loom) => (loom.segments.s2!.coveringPin = { kind: 'wrap', itemId: null, reason: 'x' }));
    expect(left(wrapped).parking.pieces.some(({ name }) => name.includes('wrap'))).toBe(false);
    expect(left(dressed((loom) => (loom.segments.s2!.slideOn = 'after-ends'))).parking.order).toBe('after-end');
  });
});

describe('ends and breakouts', () => {
  const grips = (planned: ReturnType<typeof only>) => {
    for (const { leadMm, bodyMm, pieces } of planned.endDress) {
      const over = pieces.at(-1);
      if (!over) continue;
      const boot = CATALOGUE.boots.find(({ id }) => id === over.itemId);
      if (!boot) continue;
      const under = pieces.at(-2)?.overMm ?? leadMm;
      expect(isGripping(boot.bodySuppliedMm, boot.bodyRecoveredMm, bodyMm!)).toBe(true);
      expect(isGripping(boot.leadSuppliedMm, boot.leadRecoveredMm, under)).toBe(true);
    }
  };
  test('a boot grips the rear of its housing and the leg, whatever is built up under it; each piece 10 mm longer than the one over it', () => {
    for (const familyId of ['hollin-3', 'hollin-6', 'hollin-13'] as const) {
      const planned = dressed((loom) => (loom.ends.L = { ...loom.ends.L!, familyId, key: 'A' }));
      grips(planned);
      const { pieces, problem } = left(planned);
      expect([problem, pieces.at(-1)!.role]).toEqual([null, 'boot']);
      const built = pieces.filter(({ role }) => role === 'build-up').map(({ fromMm, toMm }) => toMm - fromMm);
      expect(built).toEqual(built.map((_, at) => 15 + 10 * (built.length - at)));
    }
  });
  test('a housing with nothing at its rear gets none and says so', () =>
    expect(only(createBench((loom) => (loom.dressing = 'boots'))).endDress.find(({ endId }) => endId === 'L')).toMatchObject({
      pieces: [],
      because: 'nothing at its rear holds a boot',
    }));
  test.each<[Tick[], boolean]>([
    [[], false],
    [['wet'], true],
  ])('ticked %j: lined %s, at ends and breakouts', (ticks, isLined) => {
    const planned = dressed((loom) => {
      for (const id of ['s1', 's2', 's3']) loom.segments[id]!.ticks = ticks;
    });
    const pieces = [...planned.endDress, ...planned.breakoutDress].flatMap((one) => one.pieces);
    expect(pieces.length).toBeGreaterThan(1);
    expect([...new Set(pieces.map((one) => one.isLined))]).toEqual([isLined]);
  });
  const opening = (change: (catalogue: typeof CATALOGUE) => typeof CATALOGUE = (one) => one) => {
    const job = createBench((loom, all) => {
      loom.dressing = 'boots';
      loom.ends.L = { ...loom.ends.L!, familyId: 'hollin-13', key: 'A' };
      all.zones.own = { ...all.zones.cabin!, name: 'own', ambientC: 60, reopen: true };
      for (const id of ['s1', 's2', 's3']) loom.segments[id]!.zoneId = 'own';
    });
    const catalogue = change(CATALOGUE);
    const planned = plan(job, catalogue).looms[0]!;
    return { planned, steps: createBuild(job, planned, catalogue).steps };
  };
  test('what must open is wrapped from the side: it holds both sides of the joint, nothing slides and nothing stands back', () => {
    const { planned, steps } = opening();
    const [fork] = planned.breakoutDress;
    const [piece] = fork!.pieces;
    const item = CATALOGUE.coverings.find(({ id }) => id === piece!.itemId)!;
    expect([piece!.role, item.opens, isFromTheSide(item), piece!.fromMm, piece!.toMm]).toEqual(['wrap', true, true, -15, 15]);
    const standard = findStandard(createBench(), CATALOGUE);
    for (const mm of [fork!.trunkMm, fork!.togetherMm]) expect(isCoveringFit(item, mm, 0, standard).grips).toBe(true);
    expect(fork).toMatchObject({ ruledBy: 'zone', parking: null, problem: null });
    expect(left(planned).pieces.map(({ role }) => role)).toEqual(['wrap']);
    expect(left(planned).parking.pieces.some(({ name }) => name === piece!.itemName)).toBe(false);
    const ids = steps.map(({ id }) => id);
    expect(ids).toEqual(expect.arrayContaining(['forkclose.b1', 'close.L']));
    expect(ids.filter((id) => id === 'fork.b1' || id === 'boot.L')).toEqual([]);
    expect(steps.find(({ id }) => id === 'forkclose.b1')).toMatchObject({
      tool: 'by hand',
      items: [
        { words: expect.stringMatching(/^wrap that opens: \d+ mm of .*, laid round from -15 to 15 mm of the middle of the breakout$/) },
      ],
    });
  });
  test('of what opens the first in the order of the shop is taken; a shop that has none leaves the joint and says so', () => {
    const kindOf = (planned: ReturnType<typeof only>) =>
      CATALOGUE.coverings.find(({ id }) => id === planned.breakoutDress[0]!.pieces[0]!.itemId)!.kind;
    const usual = kindOf(opening().planned);
    const house = CATALOGUE.standards.larkhollow!;
    const turned = opening((catalogue) => ({
      ...catalogue,
      standards: { larkhollow: { ...house, coveringOrder: [...house.coveringOrder].filter((kind) => kind !== usual) } },
    }));
    expect(kindOf(turned.planned)).not.toBe(usual);
    const none = opening((catalogue) => ({ ...catalogue, coverings: catalogue.coverings.filter(({ opens }) => !opens) }));
    expect(none.planned.breakoutDress[0]).toMatchObject({
      pieces: [],
      ruledBy: 'zone',
      because: 'must be opened later: nothing that shrinks goes over it, and nothing of the shop that opens fits',
    });
  });
  test('a leg that goes straight on has a bore of its own: a thick trunk with one thin leg gets a moulded part', () => {
    const thin = (transitions: typeof CATALOGUE.transitions) => {
      const job = createBench((loom) => {
        loom.dressing = 'boots';
        for (const id of ['s1', 's2', 's3']) loom.segments[id]!.coveringPin = { kind: 'shrink', itemId: null, reason: 'x' };
        loom.ends.R = { ...loom.ends.R!, familyId: 'hollin-13', key: 'B' };
        for (let at = 4; at <= 13; at += 1)
          loom.circuits[`m${at}`] = {
            ...loom.circuits.c3!,
            number: `m${at}`,
            terminations: ['A', 'R'].map((endId) => ({ endId, cavity: String(at) })),
          };
      });
      return plan(job, { ...CATALOGUE, transitions }).looms[0]!.breakoutDress[0]!;
    };
    const moulded = thin(CATALOGUE.transitions);
    const part = CATALOGUE.transitions.find(({ id }) => id === moulded.pieces[0]!.itemId)!;
    expect(part.onwardSuppliedMm).not.toBeNull();
    const [thickMm, thinMm] = [Math.max(...moulded.legsMm), Math.min(...moulded.legsMm)];
    expect(isGripping(part.onwardSuppliedMm!, part.onwardRecoveredMm!, thickMm)).toBe(true);
    expect(isGripping(part.legSuppliedMm, part.legRecoveredMm, thinMm)).toBe(true);
    // legs of one bore do not: a sleeve goes over all of it
    const like = thin(CATALOGUE.transitions.filter((one) => one.onwardSuppliedMm === null));
    expect(like.pieces.map(({ role }) => role)).not.toContain('transition');
  });
  test('a breakout gets the transition with as many legs where all its bores grip, else a sleeve over all of it, built up where it is thin', () => {
    const [moulded] = dressed((loom) => {
      for (const id of ['s1', 's2', 's3']) loom.segments[id]!.coveringPin = { kind: 'shrink', itemId: null, reason: 'x' };
      for (const at of [4, 5, 6, 7])
        loom.circuits[`m${at}`] = {
          ...loom.circuits.c3!,
          number: `m${at}`,
          terminations: [
            { endId: 'A', cavity: String(at) },
            { endId: 'L', cavity: String(at) },
            { endId: 'R', cavity: String(((at - 1) % 4) + 1) },
          ],
        };
    }).breakoutDress;
    expect(moulded!.pieces.map(({ role }) => role)).toEqual(['transition']);
    const part = CATALOGUE.transitions.find(({ id }) => id === moulded!.pieces[0]!.itemId)!;
    expect(part.legs).toBe(2);
    expect(isGripping(part.trunkSuppliedMm, part.trunkRecoveredMm, moulded!.trunkMm)).toBe(true);
    for (const legMm of moulded!.legsMm) expect(isGripping(part.legSuppliedMm, part.legRecoveredMm, legMm)).toBe(true);
    const bare = { ...CATALOGUE, transitions: [] };
    const job = createBench((loom) => (loom.dressing = 'boots'));
    const [over] = plan(job, bare).looms[0]!.breakoutDress;
    const sleeve = over!.pieces.at(-1)!;
    const bore = CATALOGUE.coverings.filter(isShrink).find(({ id }) => id === sleeve.itemId)!;
    expect([sleeve.role, sleeve.fromMm, sleeve.toMm]).toEqual(['over-sleeve', -15, 15]);
    expect(isGripping(bore.suppliedBoreMm, bore.recoveredBoreMm, Math.max(over!.trunkMm, over!.togetherMm))).toBe(true);
    expect(bore.recoveredBoreMm).toBeLessThanOrEqual(0.9 * sleeve.underMm + 1e-9);
  });
  test('chosen by hand: nothing, a boot, or one that does not fit; the reason is kept', () => {
    const pinned = (itemId: string | null) => left(dressed((loom) => (loom.ends.L!.bootPin = { itemId, reason: 'the customer’s' })));
    expect(pinned(null)).toMatchObject({ pieces: [], ruledBy: 'pinned', because: 'the customer’s', problem: null });
    expect(pinned('boot-16').pieces.at(-1)!.itemId).toBe('boot-16');
    expect(pinned('boot-36')).toMatchObject({ pieces: [], problem: 'none-fits' });
    expect(pinned('adhesive-shrink-25.4').pieces).toEqual([]);
  });
});
