import { sayStates as say } from '../../demo/sayStates';
import { onceARun } from './onceARun';

/** Stands in for the module of the demo in tests (jest.config.cjs). */
export const sayStates: typeof say = (job, catalogue) => onceARun('states', job, () => say(job, catalogue));
