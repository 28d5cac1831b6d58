import { fileURLToPath } from 'node:url';
import type { NextConfig } from 'next';

/** path that it is served under behind a proxy, as /loom: part of the build */
const path = process.env.WATTOGRAPH_PATH ?? '';
if (!/^(\/[a-z0-9-]+)*$/.test(path)) throw new Error(`WATTOGRAPH_PATH: expected a path as /loom, got ${JSON.stringify(path)}`);
const root = fileURLToPath(new URL('..', import.meta.url));

const config: NextConfig = {
  ...(path ? { basePath: path, distDir: `.next${path.replaceAll('/', '-')}`, env: { WATTOGRAPH_BASE: path } } : {}),
  transpilePackages: ['wattograph-core'],
  turbopack: { root },
  outputFileTracingRoot: root,
  serverExternalPackages: ['pdfkit', 'pg', 'pino', 'exceljs', 'sharp', 'esbuild'],
  poweredByHeader: false,
  reactStrictMode: true,
  // a build fails on a type error; the tests look at the same types in a part of their own, just before
  typescript: { ignoreBuildErrors: process.env.WATTOGRAPH_TYPES === 'checked', ...(path ? { tsconfigPath: '.tsconfig-path.json' } : {}) },
  experimental: { optimizePackageImports: ['@mantine/core', '@mantine/hooks', '@tabler/icons-react'] },
};

export default config;
