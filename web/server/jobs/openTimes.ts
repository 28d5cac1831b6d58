import { listMinutes } from 'wattograph-core';
import type { BenchPack, FloorTimes } from '../../client/floor/useFloorStore';
import { readStandardOf } from './checks';

/** What the steps of a loom of a revision take, by the figures of the shop. */
export async function openTimes({ job, plan, steps }: Pick<BenchPack, 'job' | 'plan' | 'steps'>): Promise<FloorTimes> {
  const { minutes, pauseMin, sessionMin } = await readStandardOf(job);
  const each = listMinutes(steps, plan, minutes);
  const ofStep = (id: string, items: BenchPack['steps'][number]['items']) =>
    items.reduce((sum, item) => sum + each.get(`${id} ${item.id}`)!, 0);
  return { minutes: Object.fromEntries(steps.map(({ id, items }) => [id, ofStep(id, items)])), pauseMin, sessionMin };
}
