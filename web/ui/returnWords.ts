import type { Return } from 'wattograph-core';

/** How a load's current goes home, as it is said. */
export const RETURN_WORDS = {
  pin: 'a pin',
  'engine-case': 'its case, on the engine',
  'chassis-case': 'its case, on the chassis',
} satisfies Record<Return, string>;
