import type { Loom } from './loom';

/** The number of the next circuit of a loom: one more than the largest there is, from 101 on. */
export const toNextNumber = ({ circuits }: Pick<Loom, 'circuits'>): string =>
  String(Math.max(100, ...Object.values(circuits).map(({ number }) => Number.parseInt(number, 10) || 0)) + 1);
