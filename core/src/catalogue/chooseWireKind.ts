import type { Job } from '../model';
import type { Catalogue } from './catalogue';

/** Kind of wire that a new circuit is begun with: that of most circuits of the job, of as many the shop's first; where there are none, the shop's first. */
export function chooseWireKind({ looms }: Pick<Job, 'looms'>, { wires }: Pick<Catalogue, 'wires'>): string {
  const counts = new Map(Object.keys(wires).map((kind) => [kind, 0]));
  for (const { circuits } of Object.values(looms))
    for (const { wireTable } of Object.values(circuits)) counts.set(wireTable, (counts.get(wireTable) ?? 0) + 1);
  return [...counts].reduce((most, one) => (one[1] > most[1] ? one : most))[0];
}
