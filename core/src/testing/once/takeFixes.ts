import { takeFixes as take } from '../../demo/takeFixes';
import { onceARun } from './onceARun';

/** Stands in for the module of the demo in tests (jest.config.cjs). */
export const takeFixes: typeof take = (job, catalogue, codes) =>
  onceARun(`fixes ${codes.join(' ')}`, job, () => take(job, catalogue, codes));
