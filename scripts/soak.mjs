// The tests whose worth grows with their runs, at their full length: hundreds of seeded vehicles, revisions and edits, a thousand kills under open pages,
// ten thousand hostile requests, upgrades from every table there was, a disk that fills up, a build under a path.
import { ensurePackages, run } from './lib/machine.mjs';
import { ensureModules } from './lib/made.mjs';

ensurePackages(['postgresql', 'chromium-headless-shell']);
await ensureModules();
const env = { ...process.env, WATTOGRAPH_SOAK: '1' };
// every test whose runs are few in a session and many here
await run('node', ['node_modules/jest/bin/jest.js', '--findRelatedTests', 'core/src/testing/runs.ts'], { env });
await run(
  'node',
  [
    'scripts/browserTests.mjs',
    'crash.spec.ts',
    'hostile.spec.ts',
    'load.spec.ts',
    'kills.spec.ts',
    'diskFull.spec.ts',
    'upgrade.spec.ts',
    'subPath.spec.ts',
  ],
  { env },
);
