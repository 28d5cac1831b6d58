import { CATALOGUE } from '../../catalogue';
import { createInlet } from '../../demo';
import { createBuild, listFindings } from '../../make';
import { changeDocument, type Job } from '../../model';
import { plan } from '../../plan';
import { isCrewPost } from '../drawing';
import { createSheets } from '../index';
import { comparePages, toPageFingerprint } from './comparePages';

const packOf = (job: Job, revision: string, date = '2026-11-28') => {
  const whole = plan(job, CATALOGUE);
  const [loom] = whole.looms;
  const pack = {
    job,
    whole,
    plan: loom!,
    build: createBuild(job, loom!, CATALOGUE),
    findings: listFindings(job, whole, CATALOGUE, null),
    catalogue: CATALOGUE,
  };
  return createSheets(pack, { paper: 'A4', job: job.name, loom: 'inlet', revision, date });
};
const job = createInlet();
const first = packOf(job, 'revision 1');

test('another revision, day and number of pages alone make no page new', () => {
  const second = packOf(job, 'revision 2', '2027-01-15');
  expect(second[0]!.marks).not.toEqual(first[0]!.marks);
  expect(comparePages(first, second)).toEqual({ print: [], destroy: [] });
});

test('the mark of a page stands in its foot', () => {
  for (const page of first) {
    const foot = page.marks.flatMap((mark) => (mark.kind === 'text' && mark.y > page.heightMm - 14 ? [mark.text] : [])).join('\n');
    expect(foot).toContain(toPageFingerprint(page));
  }
});

test('one fitted run: the sheets that say its length are printed anew, the others hang on (craft D7)', () => {
  const fitted = changeDocument(job, ({ looms }) => {
    const segment = looms.inlet!.segments['s-inj1']!;
    Object.assign(segment, { status: 'fitted', fittedMm: segment.lengthMm + 9 });
  });
  const second = packOf(fitted, 'revision 2');
  const { print, destroy } = comparePages(first, second);
  expect(print.length).toBeGreaterThan(0);
  expect(print.length).toBeLessThan(second.length * 0.4);
  const sheets = new Set(print.map((number) => second[number - 1]!.sheet));
  expect([...sheets]).toContain('Cut list');
  // of what the crew has, five pages of this one: a kit with a decimetre more of one tube, and what is cut, covered, rung out and clipped otherwise
  expect(print.map((number) => second[number - 1]!).flatMap(({ sheet, post }) => (isCrewPost(post!) ? [sheet] : []))).toEqual([
    ...['Parts', 'Cut list', 'Sleeves', 'Continuity', 'Clips'],
  ]);
  // nothing is crimped otherwise for a leg that is longer
  expect([...sheets]).not.toContain('Ends');
  // what goes is named by its sheet and the number that stands on it; each sheet that is printed anew, but for new ones, goes
  for (const { sheet, number } of destroy) expect(first[number - 1]!.sheet).toBe(sheet);
  for (const sheet of sheets) if (first.some((page) => page.sheet === sheet)) expect(destroy.map((one) => one.sheet)).toContain(sheet);
  // with those put in place of these the old pack says what the new one does
  const kept = first
    .filter((_, index) => !destroy.some(({ number }) => number === index + 1))
    .map((page) => `${page.sheet} ${toPageFingerprint(page)}`);
  const added = print.map((number) => `${second[number - 1]!.sheet} ${toPageFingerprint(second[number - 1]!)}`);
  expect([...kept, ...added].sort()).toEqual(second.map((page) => `${page.sheet} ${toPageFingerprint(page)}`).sort());
});

test('a leg fitted 6 mm longer: the crew prints 4 pages anew in the median, whichever leg it is (craft D7)', () => {
  const legs = Object.keys(job.looms.inlet!.segments).filter((id) => id.startsWith('s-'));
  const counts = legs.map((id) => {
    const fitted = changeDocument(job, ({ looms }) => {
      const segment = looms.inlet!.segments[id]!;
      Object.assign(segment, { status: 'fitted', fittedMm: segment.lengthMm + 6 });
    });
    const second = packOf(fitted, 'revision 2');
    return comparePages(first, second).print.filter((number) => isCrewPost(second[number - 1]!.post!)).length;
  });
  const sorted = counts.sort((a, b) => a - b);
  expect([sorted[Math.floor((legs.length - 1) / 2)], sorted[Math.floor(legs.length / 2)]]).toEqual([4, 4]);
  expect(sorted.at(-1)).toBeLessThanOrEqual(6);
});
