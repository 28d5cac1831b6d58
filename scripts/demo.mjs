// One command from a fresh clone to a running application with demo data.
import { serve } from './lib/serve.mjs';

serve({ seed: true }).catch((error) => {
  console.error(`\n${error.message}`);
  process.exit(1);
});
