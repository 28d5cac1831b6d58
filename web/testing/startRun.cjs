const { mkdirSync, mkdtempSync } = require('node:fs');
const { tmpdir } = require('node:os');
const { dirname, join } = require('node:path');
const { build } = require('esbuild');

const ENTRIES = { index: 'index.ts', pdf: 'draw/toPdf.ts', dxf: 'draw/toDxf.ts', xlsx: 'exchange/xlsx.ts', demo: 'demo/index.ts' };
const core = join(__dirname, '../../core/src');

/** What the demo is made with plans it: once for all tests of a run (core/src/testing/once/onceARun.ts). */
const demoOnce = {
  name: 'demo once',
  setup({ onResolve }) {
    onResolve({ filter: /^\.\/(takeFixes|sayStates)$/ }, ({ path, importer }) =>
      importer.startsWith(join(core, 'demo/')) ? { path: join(core, 'testing/once', `${path}.ts`) } : undefined,
    );
  },
};

/** A folder for what the tests of a run make once, and the core in one piece for the tests of screens (environments.cjs). */
module.exports = async () => {
  process.env.WATTOGRAPH_TEST_FOLDER = mkdtempSync(join(tmpdir(), 'wattograph-run-'));
  process.env.WATTOGRAPH_TEST_CORE = join(__dirname, `../../node_modules/.wattograph-core/${process.pid}.cjs`);
  mkdirSync(dirname(process.env.WATTOGRAPH_TEST_CORE), { recursive: true });
  await build({
    stdin: {
      contents: Object.entries(ENTRIES)
        .map(([name, file]) => `export * as ${name} from './${file}';`)
        .join('\n'),
      resolveDir: core,
      loader: 'ts',
    },
    outfile: process.env.WATTOGRAPH_TEST_CORE,
    bundle: true,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    external: ['pdfkit', 'exceljs'],
    plugins: [demoOnce],
    sourcemap: 'inline',
    logLevel: 'error',
  });
};
