// What runs beside the application as a process of its own, each in one piece: read from its TypeScript it would take three times as long to begin.
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { root } from './machine.mjs';
import { ensureMade, listSources, lockFile } from './made.mjs';

const PROGRAMS = { worker: 'work/worker', labour: 'work/labour', prepare: 'prepare', letIn: 'letIn' };
const folder = join(root, 'node_modules/.wattograph-programs');

/** packages with parts that are no JavaScript, or that read files beside themselves */
const APART = ['exceljs', 'pdfkit', 'pg', 'pino', 'sharp'];
const isApart = (path) => APART.includes(path.split('/')[0]);

export const toProgram = (name) => join(folder, `${name}.mjs`);

/** The programs. */
export async function ensurePrograms() {
  const sources = [
    ...[lockFile, fileURLToPath(import.meta.url)],
    ...['core/src', 'web/server', 'web/client'].flatMap((one) => listSources(join(root, one))),
  ];
  await ensureMade({ name: 'programs', mark: join(folder, 'made-of'), sources }, async () => {
    const { build } = await import('esbuild');
    await build({
      entryPoints: Object.fromEntries(Object.entries(PROGRAMS).map(([name, path]) => [name, join(root, `web/server/${path}.ts`)])),
      outdir: folder,
      outExtension: { '.js': '.mjs' },
      ...{ bundle: true, platform: 'node', format: 'esm', target: 'node20', keepNames: true },
      // packages that are no modules ask for others as Node.js did before it had modules
      banner: { js: `import { createRequire } from 'node:module';\nconst require = createRequire(import.meta.url);` },
      plugins: [
        {
          name: 'apart',
          setup: ({ onResolve }) => onResolve({ filter: /^[^./]/ }, ({ path }) => (isApart(path) ? { path, external: true } : undefined)),
        },
      ],
      logLevel: 'warning',
    });
  });
}
