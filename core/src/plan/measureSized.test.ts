import { CATALOGUE } from '../catalogue';
import { createSkerry } from '../demo';
import { createRandomVehicle } from '../demo/createRandomVehicle';
import { changeDocument, type Job } from '../model';
import { compareIds, createRandom } from '../units';
import { findStandard } from './findStandard';
import { keepWiring } from './joinLooms';
import { buildLoom, type LoomContext } from './planLoom';
import { createPlanStore } from './planStore';
import { toUnfitted } from './route/routeLoom';
import type { MinimumSize } from './size/chooseConductors';
import { JOIN, measureSized, ROUTE } from './stages';

/** The looms of a job before they have sizes, as a plan has them. */
function listContexts(job: Job): LoomContext[] {
  const store = createPlanStore();
  const standard = findStandard(job, CATALOGUE);
  const loomIds = Object.keys(job.looms).sort(compareIds);
  const shared = { job, loomIds, catalogue: CATALOGUE, standard, store };
  const routes = loomIds.map((loomId) => store.memo(ROUTE, loomId, { ...shared, loomId }));
  const { flows, ofLooms } = store.memo(JOIN, '', { ...shared, routes, wirings: routes.map((route) => keepWiring(store, route)) });
  return routes.map((routed) => ({ ...shared, routed, flows: ofLooms.get(routed.loomId)!, modeIds: flows.modeIds }));
}

/** Sizes that a sum of the vehicle could ask for: of every third wire any that it may have. */
function createMinimums({ routed }: LoomContext, seed: number): Map<string, MinimumSize> {
  const random = createRandom(seed);
  return new Map(
    routed.wires.flatMap(({ id }, place): [string, MinimumSize][] => {
      const { conductors } = routed.ranges[place]!;
      const conductor = conductors[Math.floor(random() * conductors.length)]!;
      return random() < 1 / 3 ? [[id, { conductor, ruledBy: 'drop', because: 'asked for' }]] : [];
    }),
  );
}

/** Some runs of every loom in layers, in pairs only and fitted otherwise than they were read. */
const vary = (job: Job, seed: number): Job =>
  changeDocument(job, (draft) => {
    const random = createRandom(seed);
    for (const loom of Object.values(draft.looms))
      for (const segment of Object.values(loom.segments)) {
        segment.bundling = ([null, 'straight', 'pairs-only', 'concentric'] as const)[Math.floor(random() * 4)]!;
        if (random() < 0.3) Object.assign(segment, { fittedMm: Math.round(segment.lengthMm * (0.9 + 0.2 * random())), status: 'fitted' });
      }
  });

describe('the length of a wire with its size, before the loom is built', () => {
  const jobs: [string, Job][] = [
    ['the demo', createSkerry()],
    ['the demo, laid and fitted otherwise', vary(createSkerry(), 4711)],
    ['a made-up vehicle, laid and fitted otherwise', vary(createRandomVehicle(23, 120), 23)],
  ];

  test.each(jobs)('%s: is the one that it is built with, as read and as fitted', (_, job) => {
    let laid = 0;
    for (const context of listContexts(job)) {
      const { loomId, first } = context.routed;
      const minimums = createMinimums(context, 7);
      const looms = first ? [context, { ...context, job: toUnfitted(job, loomId), routed: first }] : [context];
      for (const one of looms) {
        const built = buildLoom(one, minimums);
        const lengthsMm = measureSized(`${loomId} ${one === context ? '' : 'first'}`, { context: one, minimums });
        expect(lengthsMm).toHaveLength(built.lengthsMm.length);
        lengthsMm.forEach((mm, place) => expect(mm).toBeCloseTo(built.lengthsMm[place]!, 6));
        laid += built.layups.length;
      }
    }
    expect(laid > 0).toBe(job !== jobs[0]![1]);
  });

  test('a wire that is asked for thicker is stripped longer, and is longer by that', () => {
    const [context] = listContexts(createSkerry()).filter(({ routed }) => routed.loomId === 'chassis');
    const thin = measureSized('chassis', { context: context!, minimums: new Map() });
    const minimums = new Map(
      context!.routed.wires.map(({ id }, place): [string, MinimumSize] => {
        const conductor = context!.routed.ranges[place]!.conductors.at(-1)!;
        return [id, { conductor, ruledBy: 'drop', because: 'asked for' }];
      }),
    );
    const thick = measureSized('chassis', { context: context!, minimums });
    expect(thick.some((mm, place) => mm > thin[place]! + 1)).toBe(true);
    expect(thick.every((mm, place) => mm >= thin[place]! - 1e-6)).toBe(true);
  });
});
