import { CATALOGUE, createLookup } from '../catalogue';
import { createSkerry } from '../demo';
import { applyEdit, changeDocument, checkJob, type EditOperation, type Job } from '.';
import { createPassed } from './passed';

const LOOKUP = createLookup(CATALOGUE);
const LOOM = 'engine';
const frozen = (): Job => changeDocument(createSkerry(), (draft) => void (draft.notes = 'frozen'));
const edit = (job: Job, ...patch: EditOperation[]): Job => {
  const applied = applyEdit(job, patch);
  if (!applied.ok) throw new Error(applied.problems[0]!.message);
  return applied.value;
};
const check = (job: Job, lookup = LOOKUP) => {
  const checked = checkJob(job, lookup);
  return checked.ok ? [] : checked.problems;
};

test('what is frozen through and through passes once, as the same thing beside the same things, and what is not never does', () => {
  const passed = createPassed();
  const inner = Object.freeze({ a: Object.freeze([1]) });
  const beside = {};
  passed.add(inner, 'x', [beside]);
  expect(passed.has(inner, 'x', [beside])).toBe(true);
  expect(passed.has(inner, 'y', [beside])).toBe(false);
  expect(passed.has(inner, 'x', [{}])).toBe(false);
  expect(passed.has(inner, 'x')).toBe(false);
  expect(passed.has({ ...inner }, 'x', [beside])).toBe(false);
  const open = Object.freeze({ a: [1] });
  passed.add(open, 'x');
  passed.add(7, 'x');
  expect(passed.has(open, 'x')).toBe(false);
  expect(passed.has(7, 'x')).toBe(false);
});

test('a job that passed is looked at as closely after every edit: what an edit spoils is found, as in one that was never seen', () => {
  const job = frozen();
  expect(check(job)).toEqual([]);
  const { ends, segments, circuits, nodes } = job.looms[LOOM]!;
  const [endId, segmentId, circuitId, nodeId] = [ends, segments, circuits, nodes].map((one) => Object.keys(one)[0]!) as [
    string,
    string,
    string,
    string,
  ];
  const at = `/looms/${LOOM}`;
  const spoils: [EditOperation, string][] = [
    [{ op: 'replace', path: `${at}/segments/${segmentId}/lengthMm`, value: 'long' }, `${at}/segments/${segmentId}/lengthMm`],
    [{ op: 'replace', path: `${at}/segments/${segmentId}/toNodeId`, value: 'nowhere' }, `${at}/segments/${segmentId}/toNodeId`],
    [{ op: 'remove', path: `${at}/ends/${endId}/name` }, `${at}/ends/${endId}/name`],
    [{ op: 'replace', path: `${at}/ends/${endId}/nodeId`, value: 'nowhere' }, `${at}/ends/${endId}/nodeId`],
    [{ op: 'replace', path: `${at}/circuits/${circuitId}/wireTable`, value: 'tape' }, `${at}/circuits/${circuitId}/wireTable`],
    [{ op: 'add', path: `${at}/nodes/${nodeId}/more`, value: 1 }, `${at}/nodes/${nodeId}/more`],
    [{ op: 'add', path: `${at}/more`, value: 1 }, `${at}/more`],
    [{ op: 'copy', from: `${at}/circuits/${circuitId}`, path: `${at}/circuits/no id` }, `${at}/circuits/no id`],
    [{ op: 'replace', path: '/zones', value: {} }, '/zoneId'],
  ];
  for (const [operation, place] of spoils) {
    const spoilt = edit(job, operation);
    const problems = check(spoilt);
    expect([place, problems.some(({ path }) => path.endsWith(place))]).toEqual([place, true]);
    expect(problems).toEqual(check(structuredClone(spoilt)));
    // and it is not remembered as one that passed
    expect(check(spoilt)).toEqual(problems);
  }
  expect(check(job)).toEqual([]);
});

test('a loom that passed with one shop is looked at again with another', () => {
  const job = frozen();
  expect(check(job)).toEqual([]);
  const bare = createLookup({ ...CATALOGUE, families: {} });
  expect(check(job, bare).length).toBeGreaterThan(0);
  expect(check(job, bare)).toEqual(check(structuredClone(job), bare));
});

test('a job that may still be written to is looked at every time', () => {
  const job = createSkerry();
  expect(check(job)).toEqual([]);
  const [segment] = Object.values(job.looms[LOOM]!.segments);
  segment!.toNodeId = 'nowhere';
  expect(check(job).length).toBeGreaterThan(0);
});
