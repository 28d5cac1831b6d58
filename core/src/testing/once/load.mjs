// Runs once in each worker of the core's tests (jest.config.cjs): TypeScript, and what the demo is made with (see onceARun.ts).
import { register as addHooks } from 'node:module';
import { register } from 'tsx/esm/api';

register();
addHooks('./standIn.mjs', import.meta.url);
