import { CATALOGUE, type ShopStandard } from '../catalogue';
import { applyEdit, type Job } from '../model';
import { plan } from '../plan';
import { createBench } from '../testing/createBench';
import { checkPlan } from './index';

test('DR4: where the boot is what has no room, its fix leaves it out and the rest stands back', () => {
  const job = createBench((loom) => {
    loom.dressing = 'boots';
    for (const [id, lengthMm] of [
      ['s1', 20],
      ['s2', 100],
    ] as const)
      loom.segments[id] = { ...loom.segments[id]!, lengthMm };
    loom.ends.L = { ...loom.ends.L!, familyId: 'hollin-13', key: 'B' };
  });
  const dr4 = (one: Job) =>
    checkPlan(one, plan(one, CATALOGUE), CATALOGUE, null).filter(({ code, places }) => code === 'DR4' && places[0]!.id === 'L');
  const [told] = dr4(job);
  expect(told!.fix).toMatchObject({ label: 'Nothing over the rear of left' });
  const mended = applyEdit(job, told!.fix!.patch);
  if (!mended.ok) throw new Error(JSON.stringify(mended.problems));
  expect(dr4(mended.value)).toEqual([]);
  expect(mended.value.looms.bench!.ends.L!.bootPin).toEqual({ itemId: null, reason: 'no room to stand back while ends are made' });
});

describe('limits that are the shop’s to say', () => {
  const told = (job: Job, limits: Partial<ShopStandard>, code: string) => {
    const shop = { ...CATALOGUE, standards: { larkhollow: { ...CATALOGUE.standards.larkhollow!, ...limits } } };
    return checkPlan(job, plan(job, shop), shop, null).filter((one) => one.code === code);
  };
  test('from which size on a conductor is heavy, and how far copper may lie to one side (BU7)', () => {
    const job = createBench((loom) => {
      loom.bundling = 'concentric';
      loom.layerPins = { 'c2.1': { layer: 1, reason: 'x' } };
      loom.circuits.c2 = { ...loom.circuits.c2!, wireTable: 'thinwall', sizePin: { size: '6', reason: 'x' } };
    });
    expect(told(job, {}, 'BU7')).toHaveLength(1);
    expect(told(job, { heavyMm2: 10 }, 'BU7')).toEqual([]);
    expect(told(job, { asideMostShare: 1 }, 'BU7')).toEqual([]);
  });
  test('what contacts carry in a crowded housing (EN5)', () => {
    const job = createBench((loom) => {
      for (const [at, id] of ['c1', 'c2', 'c3'].entries())
        loom.circuits[id] = {
          ...loom.circuits[id]!,
          terminations: [
            { endId: 'A', cavity: String(at + 1) },
            { endId: 'L', cavity: String(at + 1) },
          ],
          currentA: 4.5,
        };
    });
    expect(told(job, { crowdedShare: 1 }, 'EN5')).toEqual([]);
    expect(told(job, { crowdedShare: 0.5 }, 'EN5').length).toBeGreaterThan(0);
  });
});
