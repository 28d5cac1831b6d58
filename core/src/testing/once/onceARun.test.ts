import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { CATALOGUE } from '../../catalogue';
import { createInlet } from '../../demo';
import { takeFixes as take } from '../../demo/takeFixes';
import { onceARun } from './onceARun';
import { takeFixes } from './takeFixes';

const before = process.env.WATTOGRAPH_TEST_FOLDER;
let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'wattograph-once-'));
  process.env.WATTOGRAPH_TEST_FOLDER = folder;
});
afterEach(() => {
  if (before === undefined) delete process.env.WATTOGRAPH_TEST_FOLDER;
  else process.env.WATTOGRAPH_TEST_FOLDER = before;
  rmSync(folder, { recursive: true, force: true });
});

test('is made once for what it is made of, and given anew each time', () => {
  let made = 0;
  const make = () => ({ made: (made += 1) });
  const [first, second] = [onceARun('a', { of: 1 }, make), onceARun('a', { of: 1 }, make)];
  expect(second).toEqual({ made: 1 });
  expect(second).not.toBe(first);
  expect([onceARun('a', { of: 2 }, make), onceARun('b', { of: 1 }, make)]).toEqual([{ made: 2 }, { made: 3 }]);
  expect(readdirSync(folder).every((name) => name.endsWith('.json'))).toBe(true);
  delete process.env.WATTOGRAPH_TEST_FOLDER;
  expect(onceARun('a', { of: 1 }, make)).toEqual({ made: 4 });
});

test('the demo comes out the same', () => {
  const of = { ...createInlet(), standardId: 'plain' };
  const kept = readdirSync(folder).length;
  expect(takeFixes(of, CATALOGUE, ['PO16', 'CI18'])).toEqual(take(of, CATALOGUE, ['PO16', 'CI18']));
  expect(readdirSync(folder)).toHaveLength(kept + 1);
});
