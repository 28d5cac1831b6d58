import { readFileSync } from 'node:fs';
import { CATALOGUE } from '../catalogue';
import { createFenRanger, createSkerry } from '../demo';
import { listFindings } from '../make';
import { plan } from '../plan';
import { REGISTER, RULES, type RuleCode } from './index';

const WEIGHT = { stop: 0, check: 1, note: 2 };

test('docs/findings.md lists the register: every rule in its order, with its grade and what it means', () => {
  const text = readFileSync(new URL('../../../docs/findings.md', import.meta.url), 'utf8');
  const rows = [...text.matchAll(/^\| ([A-Z]+\d+) \| (stop|check|note) \| (.*?) \| .*\|$/gm)].map(([, code, grade, means]) => [
    code,
    { grade, means },
  ]);
  expect(rows).toEqual(Object.entries(REGISTER).map(([code, { grade, means }]) => [code, { grade, means }]));
});

test('every rule that looks at a loom is registered', () => {
  expect(Object.keys(RULES).filter((code) => !Object.hasOwn(REGISTER, code))).toEqual([]);
});

test.each([
  ['Skerry', createSkerry()],
  ['Fen Ranger', createFenRanger()],
])('%s: no finding is graver than its rule', (_, job) => {
  const found = listFindings(job, plan(job, CATALOGUE), CATALOGUE, '2026-11-26');
  expect(found.length).toBeGreaterThan(5);
  for (const { code, grade } of found) expect(WEIGHT[grade]).toBeGreaterThanOrEqual(WEIGHT[REGISTER[code as RuleCode].grade]);
});
