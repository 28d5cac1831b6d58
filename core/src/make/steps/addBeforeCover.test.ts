import { CATALOGUE, type Catalogue } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { createRandomVehicle } from '../../demo/createRandomVehicle';
import type { Job, ShopStandard } from '../../model';
import { plan } from '../../plan';
import { runs } from '../../testing/runs';
import { createBuild } from '../createBuild';
import { WIGGLE, type Step } from '../step';
import { listMinutes } from '../times';

const asking = (rest: Partial<ShopStandard>): Catalogue => ({
  ...CATALOGUE,
  standards: Object.fromEntries(Object.entries(CATALOGUE.standards).map(([id, one]) => [id, { ...one, ...rest }])),
});
const ALL = asking({ tieSteps: true, photoBeforeCover: true, wiggleS: 10 });
const build = (job: Job, catalogue: Catalogue) =>
  plan(job, catalogue).looms.map((loom) => ({ loom, ...createBuild(job, loom, catalogue) }));
const skerry = createCleanSkerry();
const built = build(skerry, ALL);
const inlet = built.find(({ loomId }) => loomId === 'inlet')!;
const of = (steps: readonly Step[], operation: Step['operation']) => steps.filter((step) => step.operation === operation);

describe('what a shop does before anything is covered (craft D5)', () => {
  test.each([
    ...built.map((one) => [one.loomId, one] as const),
    ...Array.from({ length: runs(3, 60) }, (_, seed) => createRandomVehicle(seed, 40))
      .flatMap((job) => build(job, ALL))
      .map((one, at) => [`made-up loom ${at + 1}`, one] as const),
  ])('%s: runs are tied before anything goes over them, and nothing is covered before it is photographed', (_, { steps, loom }) => {
    if (loom.wires.length === 0) return;
    // there is an order that keeps all of it
    expect(steps.length).toBeGreaterThan(0);
    const at = new Map(steps.map(({ id }, index) => [id, index]));
    const bundled = loom.bundles.filter(({ sections }) => sections.some(({ elements }) => elements.flat().length > 1));
    expect(
      of(steps, 'tie')
        .map(({ segmentId }) => segmentId)
        .sort(),
    ).toEqual(bundled.map(({ segmentId }) => segmentId).sort());
    for (const { segmentId } of bundled)
      for (const over of [`slide.${segmentId}`, `cover.${segmentId}`])
        if (at.has(over)) expect(at.get(`tie.${segmentId}`)!).toBeLessThan(at.get(over)!);
    const photo = at.get('photo')!;
    for (const step of steps) {
      if (step.operation === 'cover') expect(photo).toBeLessThan(at.get(step.id)!);
      if (step.operation === 'splice' || step.operation === 'tie') expect(photo).toBeGreaterThan(at.get(step.id)!);
    }
    expect(steps[photo]!.items.map(({ id }) => id)).toEqual(['whole', ...loom.splices.map(({ id }) => id)]);
  });

  test('ties are those of the parts list; tape where a run forks', () => {
    const ties = of(inlet.steps, 'tie').flatMap(({ items }) => items.flatMap(({ asks }) => asks.filter(({ what }) => what === 'ties')));
    const sum = ties.reduce((total, { value }) => total + Number(value), 0);
    const [line] = inlet.parts.filter(({ group, id }) => group === 'tie' && id === 'tie');
    expect(sum).toBe(line!.pieces);
    const { nodes } = skerry.looms.inlet!;
    for (const { segmentId, items } of of(inlet.steps, 'tie')) {
      const isFork = nodes[inlet.loom.tree.segments[segmentId!]!.farNodeId]!.kind === 'breakout';
      expect(items.map(({ id }) => id)).toEqual(isFork ? ['tied', 'taped'] : ['tied']);
    }
  });

  test('each leg is moved at the test, by its name, which takes its time; what is read there stays as it was', () => {
    const before = build(skerry, CATALOGUE).find(({ loomId }) => loomId === 'inlet')!;
    const [test, old] = [inlet, before].map(({ steps }) => steps.find(({ id }) => id === 'test')!);
    expect(old!.items.map(({ id }) => id)).toEqual(['pairs', 'isolation']);
    expect(test!.items.map(({ id }) => id)).toEqual(['pairs', 'isolation', WIGGLE]);
    expect(test!.items.slice(0, 2).map(({ reads }) => reads.length)).toEqual(old!.items.map(({ reads }) => reads.length));
    const wiggle = test!.items[2]!;
    expect(wiggle.words).toMatch(/^each leg moved for 10 s .* no drop-out over 1 ms: /);
    const ends = Object.values(skerry.looms.inlet!.ends).filter(({ name }) => wiggle.words.includes(name));
    const minutes = listMinutes(inlet.steps, inlet.loom, ALL.standards.larkhollow!.minutes);
    expect(minutes.get(`test ${WIGGLE}`)).toBeCloseTo(ends.length / 6);
    // and the rest of the test is timed as before
    const usual = listMinutes(before.steps, before.loom, CATALOGUE.standards.larkhollow!.minutes);
    for (const id of ['test pairs', 'test isolation']) expect(minutes.get(id)).toBe(usual.get(id));
  });
});
