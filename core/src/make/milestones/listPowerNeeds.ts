import type { PowerPart, PowerTest } from '../firstPower';
import type { MilestoneNeeds } from './listNeeds';

/** Read of the whole vehicle, whatever a milestone is about: before anything dear is plugged in. */
const OF_ALL: ReadonlySet<PowerPart> = new Set<PowerPart>(['bare', 'grounds', 'buses', 'unplugged', 'modules']);

/**
 * Readings of first power that a milestone waits for: all that is read before a box goes in; of boxes, feeds, lamps, inputs and actuators those at an
 * end of its wires, or at none; the start itself only after the first one; what waits for a condition
 * before it is shipped. Of a milestone that is all work, all of them.
 *
 * @param wireEnds ends of a wire, both as loom/id
 */
export function listPowerNeeds(
  { id, wires }: Pick<MilestoneNeeds, 'id' | 'wires'>,
  tests: readonly Pick<PowerTest, 'id' | 'part' | 'endIds'>[],
  wireEnds: ReadonlyMap<string, readonly string[]>,
): Set<string> {
  const ends = wires && new Set(wires.flatMap((wire) => wireEnds.get(wire) ?? []));
  const isNeeded = ({ part, endIds }: (typeof tests)[number]): boolean =>
    part === 'later'
      ? id === 'ship'
      : part === 'start'
        ? id !== 'start'
        : OF_ALL.has(part) || ends === null || endIds.length === 0 || endIds.some((end) => ends.has(end));
  return new Set(tests.filter(isNeeded).map((test) => test.id));
}
