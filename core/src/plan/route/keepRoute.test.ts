import { CATALOGUE } from '../../catalogue';
import { createInlet } from '../../demo';
import { editDocument, type Job } from '../../model';
import { findStandard } from '../findStandard';
import { keepRoute, keepRoutes, type KeptRoute } from './keepRoute';
import { routeLoom } from './routeLoom';

const route = (job: Job) => routeLoom(job, 'inlet', CATALOGUE, findStandard(job, CATALOGUE));

/** The inlet before and after an edit, and the route after it as it is kept. */
function keep(change: (loom: Job['looms'][string]) => void) {
  const job = createInlet();
  const loom = job.looms.inlet!;
  const before = { loom, route: route(job) };
  const { next } = editDocument(job, (draft) => change(draft.looms.inlet!));
  return { before: before.route, fresh: route(next), kept: keepRoute(route(next), next.looms.inlet!, before) };
}

const firstRun = Object.keys(createInlet().looms.inlet!.segments).sort()[0]!;

describe('what stays the same object in a route', () => {
  it('keeps everything where nothing changed', () => {
    const { before, kept } = keep(() => undefined);
    expect(kept.shape).toBe(before.shape);
    expect([...kept.wiresBySection.values()].every((one, at) => one === [...before.wiresBySection.values()][at])).toBe(true);
  });

  it('keeps the other runs when one gets longer, and what lies in it is new', () => {
    const { before, kept, fresh } = keep((loom) => {
      loom.segments[firstRun]!.lengthMm = loom.segments[firstRun]!.lengthMm! + 1;
    });
    expect(kept.wiresBySection.get(firstRun)).not.toBe(before.wiresBySection.get(firstRun));
    expect(kept.wiresBySection.get(firstRun)!.lengthMm).toBe(fresh.wiresBySection.get(firstRun)!.lengthMm);
    expect([...kept.wiresBySection.values()].filter((one, at) => one !== [...before.wiresBySection.values()][at])).toHaveLength(1);
    expect(kept.wiresBySection).toEqual(fresh.wiresBySection);
  });

  it('has the same shape where a run that splices part gets longer, and another where they change places', () => {
    const job = createInlet();
    const loom = job.looms.inlet!;
    const before = { loom, route: route(job) };
    const parted = [...before.route.wiresBySection].filter(([, { pieces, lengthMm }]) =>
      pieces.some(({ fromMm, toMm }) => fromMm > 0 || toMm < lengthMm),
    );
    expect(parted.length).toBeGreaterThan(0);
    for (const [id] of parted) {
      const { next } = editDocument(job, (draft) => {
        draft.looms.inlet!.segments[id]!.lengthMm += 7;
      });
      const fresh = route(next);
      const kept = keepRoute(fresh, next.looms.inlet!, before);
      expect(kept.shape).toBe(before.route.shape);
      expect(kept.wiresBySection).toEqual(fresh.wiresBySection);
    }
    const [id, lying] = parted[0]!;
    const turned = {
      ...lying,
      pieces: lying.pieces.map((piece) => ({ ...piece, fromMm: lying.lengthMm - piece.toMm, toMm: lying.lengthMm - piece.fromMm })),
    };
    const other = { ...before.route, shape: {}, wiresBySection: new Map(before.route.wiresBySection).set(id, turned) };
    expect(keepRoute(other, loom, before).shape).toBe(other.shape);
  });

  it.each<[string, (loom: Job['looms'][string]) => void]>([
    ['another zone', (loom) => (loom.segments[firstRun]!.zoneId = null)],
    ['a closed sleeve', (loom) => (loom.segments[firstRun]!.slideOn = 'after-ends')],
    ['a wire less', (loom) => delete loom.circuits[Object.keys(loom.circuits)[0]!]],
  ])('has another shape with %s', (_, change) => {
    const { before, kept, fresh } = keep(change);
    expect(kept.shape).not.toBe(before.shape);
    expect(kept.wiresBySection).toEqual(fresh.wiresBySection);
  });
});

test('a shape that was there before is known again', () => {
  const job = createInlet();
  const other = editDocument(job, (draft) => {
    draft.looms.inlet!.segments[firstRun]!.zoneId = null;
  }).next;
  let kept: readonly KeptRoute[] = [];
  const shapes = [job, other, job, other].map((one) => {
    const found = keepRoutes(route(one), one.looms.inlet!, kept);
    kept = found.kept;
    expect(found.route.wiresBySection).toEqual(route(one).wiresBySection);
    return found.route.shape;
  });
  expect(shapes[1]).not.toBe(shapes[0]);
  expect([shapes[2], shapes[3]]).toEqual([shapes[0], shapes[1]]);
  expect(shapes[2]).toBe(shapes[0]);
  expect(kept).toHaveLength(2);
});
