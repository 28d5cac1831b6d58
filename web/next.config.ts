import { fileURLToPath } from 'node:url';
import type { NextConfig } from 'next';

const root = fileURLToPath(new URL('..', import.meta.url));

const config: NextConfig = {
  transpilePackages: ['wattograph-core'],
  turbopack: { root },
  outputFileTracingRoot: root,
  serverExternalPackages: ['pdfkit', 'pg', 'pino', 'exceljs', 'sharp', 'esbuild'],
  poweredByHeader: false,
  reactStrictMode: true,
  typescript: { ignoreBuildErrors: true },
  experimental: { optimizePackageImports: ['@mantine/core', '@mantine/hooks', '@tabler/icons-react'] },
};

export default config;
