import { CATALOGUE, findSide, HOUSE_STYLE } from '../catalogue';
import { createSkerry } from '../demo';
import { assignPins } from '../edit';
import { createBuild } from '../make';
import { editDocument, type Job } from '../model';
import { findStandard, plan } from './index';

const departing = (id: string, side: number): Job => {
  const job = createSkerry();
  job.brief.departures = { [id]: { side, reason: 'to see' } };
  return job;
};
/** All that is planned and built of a job. */
const toPlan = (job: Job) => {
  const planned = plan(job, CATALOGUE);
  return JSON.stringify([planned, planned.looms.map((loom) => createBuild(job, loom, CATALOGUE))]);
};
/** What assigning gives where nothing is wired yet. */
const toAssignment = (job: Job) => {
  const bare = structuredClone(job);
  for (const loom of Object.values(bare.looms)) Object.assign(loom, { circuits: {}, splicePins: {} });
  const { assigned, next } = assignPins(bare, CATALOGUE, findStandard(bare, CATALOGUE));
  return JSON.stringify([assigned, next.looms]);
};
const usual = createSkerry();
const planned = toPlan(usual);
const assigned = toAssignment(usual);
const standard = CATALOGUE.standards.larkhollow!;
const turned = HOUSE_STYLE.flatMap((question) =>
  question.sides.flatMap(({ words }, side) =>
    side === findSide(question, standard) ? [] : [[question.id, words, side] as [string, string, number]],
  ),
);

describe('house style (craft G8)', () => {
  test.each(turned)('%s, %s: plan, build or assignment is another', (id, _, side) => {
    const job = departing(id, side);
    const isSame = toPlan(job) === planned && toAssignment(job) === assigned;
    expect(isSame).toBe(false);
  });

  test('the side that the house takes changes nothing', () => {
    for (const question of HOUSE_STYLE) {
      const side = findSide(question, standard);
      expect([question.id, side]).toEqual([question.id, expect.any(Number)]);
      expect(findStandard(departing(question.id, side!), CATALOGUE)).toEqual(standard);
    }
  });

  test('a departure on a question that is none, or to a side that is none, is passed over', () => {
    expect(findStandard(departing('colour', 1), CATALOGUE)).toBe(standard);
    expect(findStandard(departing('barrels', 7), CATALOGUE)).toBe(standard);
  });

  test('a standard with figures of its own takes no side', () => {
    expect(
      findSide(
        HOUSE_STYLE.find(({ id }) => id === 'rounding')!,
        { ...standard, cutIncrementMm: 3 },
      ),
    ).toBeNull();
  });

  test('with a departure an edit still finds what was planned: the standard stays the same object', () => {
    const job = departing('barrels', 1);
    expect(findStandard(editDocument(job, (draft) => void (draft.name = 'another')).next, CATALOGUE)).toBe(findStandard(job, CATALOGUE));
  });
});
