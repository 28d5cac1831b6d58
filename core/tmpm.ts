import { CATALOGUE } from './src/catalogue';
import { createInlet } from './src/demo';
import { plan } from './src/plan';
const job = createInlet();
plan(job, CATALOGUE);
for (let r = 0; r < 6; r++) { const t = performance.now(); plan(job, CATALOGUE); console.log((performance.now() - t).toFixed(0)); }
