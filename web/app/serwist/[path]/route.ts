import { join } from 'node:path';
import { createSerwistRoute } from '@serwist/turbopack';

/** The service worker, bundled at build time. Pages and scripts are kept as they are used; only the offline page is kept beforehand. */
export const { dynamic, dynamicParams, revalidate, generateStaticParams, GET } = createSerwistRoute({
  cwd: join(process.cwd(), 'web'),
  swSrc: 'workers/service.ts',
  globPatterns: [],
  additionalPrecacheEntries: [{ url: `${process.env.WATTOGRAPH_PATH ?? ''}/offline.html`, revision: '1' }],
  useNativeEsbuild: true,
});
