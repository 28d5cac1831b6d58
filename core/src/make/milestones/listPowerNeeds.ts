import type { JudgedTest, PowerPart, PowerTest } from '../firstPower';
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

/** Readings of first power that a milestone asks for, those that are left and those that failed. */
export interface PowerLeft {
  of: number;
  left: number;
  failed: number;
}

/** How far the readings are that a milestone waits for. wireEnds: see listPowerNeeds. */
export function countPowerLeft(
  needs: Pick<MilestoneNeeds, 'id' | 'wires'>,
  judged: readonly { test: Pick<PowerTest, 'id' | 'part' | 'endIds'>; verdict: JudgedTest['verdict'] }[],
  wireEnds: ReadonlyMap<string, readonly string[]>,
): PowerLeft {
  const asked = listPowerNeeds(
    needs,
    judged.map(({ test }) => test),
    wireEnds,
  );
  const of = judged.filter(({ test }) => asked.has(test.id));
  const count = (wanted: JudgedTest['verdict']) => of.filter(({ verdict }) => verdict === wanted).length;
  return { of: of.length, left: count('unread'), failed: count('failed') };
}
