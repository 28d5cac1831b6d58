import { CATALOGUE } from '../catalogue';
import { createInlet } from '../demo';
import { editDocument, type Job } from '../model';
import { findStandard } from './findStandard';
import { keepRoute } from './keepRoute';
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
    expect([...kept.strands.values()].every((one, at) => one === [...before.strands.values()][at])).toBe(true);
  });

  it('keeps the other runs when one gets longer, and what lies in it is new', () => {
    const { before, kept, fresh } = keep((loom) => {
      loom.segments[firstRun]!.lengthMm = loom.segments[firstRun]!.lengthMm! + 1;
    });
    expect(kept.strands.get(firstRun)).not.toBe(before.strands.get(firstRun));
    expect(kept.strands.get(firstRun)!.lengthMm).toBe(fresh.strands.get(firstRun)!.lengthMm);
    expect([...kept.strands.values()].filter((one, at) => one !== [...before.strands.values()][at])).toHaveLength(1);
    expect(kept.strands).toEqual(fresh.strands);
  });

  it.each<[string, (loom: Job['looms'][string]) => void]>([
    ['another zone', (loom) => (loom.segments[firstRun]!.zoneId = null)],
    ['a closed sleeve', (loom) => (loom.segments[firstRun]!.slideOn = 'after-ends')],
    ['a wire less', (loom) => delete loom.circuits[Object.keys(loom.circuits)[0]!]],
  ])('has another shape with %s', (_, change) => {
    const { before, kept, fresh } = keep(change);
    expect(kept.shape).not.toBe(before.shape);
    expect(kept.strands).toEqual(fresh.strands);
  });
});
