import type { CoveringKind } from 'wattograph-core';

/** How a covering looks on strip and section: woven ones broken, lined ones in a colour of their own, tape finely broken. */
export const COVERING_LOOK = {
  ...{ shrink: 'plain', 'plain-shrink': 'plain', convoluted: 'plain', 'heat-sleeve': 'plain', 'adhesive-shrink': 'lined' },
  ...{
    braid: 'woven',
    'split-braid': 'woven',
    wrap: 'woven',
    spiral: 'wound',
    'cloth-tape': 'wound',
    'pvc-tape': 'wound',
    'clear-shrink': 'plain',
    none: 'bare',
  },
} as const satisfies Record<CoveringKind, 'plain' | 'lined' | 'woven' | 'wound' | 'bare'>;
