import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter((name) => /\.ts$/.test(name) && !/\.test\.ts$/.test(name));
const countLines = (name: string) => readFileSync(join(root, name), 'utf8').split('\n').length - 1;

describe('the order of core', () => {
  test('half of its files have at most 60 lines, none more than 400', () => {
    const lines = files.map(countLines).sort((a, b) => a - b);
    expect(lines[lines.length >> 1]).toBeLessThanOrEqual(60);
    expect(lines.at(-1)).toBeLessThanOrEqual(400);
    expect(countLines('plan/plan.ts')).toBeLessThan(80);
  });
  test('no folder has more than 25 files flat', () => {
    const counts = new Map<string, number>();
    for (const name of files) counts.set(dirname(name), (counts.get(dirname(name)) ?? 0) + 1);
    expect([...counts].filter(([, count]) => count > 25)).toEqual([]);
  });
});
