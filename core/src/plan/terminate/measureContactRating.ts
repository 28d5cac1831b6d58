import type { Contact } from '../../catalogue';
import { findSurroundings, type Job, type Loom } from '../../model';
import type { ShopStandard } from '../../catalogue';

/** A contact, relay or switch without a stated peak bears so many times its rating for a moment (calculations 3). */
const PEAK_TIMES = 3;

/**
 * What a contact carries for good where it is this warm, A: 0.8 of its rating in free air, less as it has less to the limit of its own
 * material (scheme of IEC 60512-5-2, calculations 8). 0 where it is too hot for it.
 */
export function measureContactRating({ currentA, maxC }: Pick<Contact, 'currentA' | 'maxC'>, ambientC: number): number {
  return 0.8 * currentA * Math.sqrt(Math.max(0, (maxC - Math.max(20, ambientC)) / (maxC - 20)));
}

/** What a contact, relay or switch bears for a moment, A. */
export const measureContactPeak = ({ currentA, peakA }: Pick<Contact, 'currentA' | 'peakA'>): number => peakA ?? PEAK_TIMES * currentA;

/** Hottest zone of the runs at each node, °C; what the shop takes where none is known. */
export function createAmbients(job: Job, loom: Loom, standard: ShopStandard): (nodeId: string) => number {
  const hottest = new Map<string, number>();
  for (const segment of Object.values(loom.segments)) {
    const ambientC = findSurroundings(job.zones, segment, standard.hotTickC)?.ambientC ?? null;
    if (ambientC === null) continue;
    for (const id of [segment.fromNodeId, segment.toNodeId]) hottest.set(id, Math.max(hottest.get(id) ?? -Infinity, ambientC));
  }
  return (nodeId) => hottest.get(nodeId) ?? standard.unknownZoneC;
}
