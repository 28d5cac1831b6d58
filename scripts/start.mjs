// The same for work: no demo jobs.
import { serve } from './lib/serve.mjs';

serve({ seed: false }).catch((error) => {
  console.error(`\n${error.message}`);
  process.exit(1);
});
