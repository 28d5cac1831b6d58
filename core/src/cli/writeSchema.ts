import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { BUILD_FORMAT_VERSION, BuildSchema } from '../exchange';
import { FORMAT_VERSION, JobSchema, SHOP_FORMAT_VERSION, ShopSchema } from '../model';

const folder = fileURLToPath(new URL('../../schema/', import.meta.url));
mkdirSync(folder, { recursive: true });
writeFileSync(`${folder}job-${FORMAT_VERSION}.json`, `${JSON.stringify(JobSchema, null, 2)}\n`);
writeFileSync(`${folder}build-${BUILD_FORMAT_VERSION}.json`, `${JSON.stringify(BuildSchema, null, 2)}\n`);
writeFileSync(`${folder}shop-${SHOP_FORMAT_VERSION}.json`, `${JSON.stringify(ShopSchema, null, 2)}\n`);
