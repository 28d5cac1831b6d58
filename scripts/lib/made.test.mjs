import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { ensureMade, listSources } from './made.mjs';

let folder;
let made;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'made-'));
  writeFileSync(join(folder, 'one.ts'), '1');
  made = 0;
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const ensure = (make = async () => void (made += 1)) =>
  ensureMade({ name: basename(folder), mark: join(folder, 'made-of.tsbuildinfo'), sources: listSources(folder) }, make);

describe('what is made of sources', () => {
  test('is made once, and anew where a source changes, comes or goes', async () => {
    await ensure();
    await ensure();
    expect(made).toBe(1);
    writeFileSync(join(folder, 'one.ts'), '2');
    await ensure();
    expect(made).toBe(2);
    writeFileSync(join(folder, 'two.ts'), '2');
    await ensure();
    expect(made).toBe(3);
    rmSync(join(folder, 'one.ts'));
    await ensure();
    await ensure();
    expect(made).toBe(4);
  });

  test('hangs neither on tests nor on what was made itself', async () => {
    await ensure();
    writeFileSync(join(folder, 'one.test.ts'), '2');
    writeFileSync(join(folder, 'next-env.d.ts'), '2');
    await ensure();
    expect(made).toBe(1);
  });

  test('is not there where making it fails: the next one makes it, and the lock is given back', async () => {
    await expect(ensure(() => Promise.reject(new Error('no room')))).rejects.toThrow('no room');
    expect(existsSync(join(folder, 'made-of.tsbuildinfo'))).toBe(false);
    await ensure();
    expect(made).toBe(1);
  });

  test('is made by one of two commands beside each other; the other waits for it', async () => {
    let isThere = false;
    const slowly = async () => {
      await new Promise((resolve) => setTimeout(resolve, 50));
      made += 1;
      isThere = true;
    };
    await Promise.all([ensure(slowly), ensure(slowly)].map((one) => one.then(() => expect(isThere).toBe(true))));
    expect(made).toBe(1);
  });
});
