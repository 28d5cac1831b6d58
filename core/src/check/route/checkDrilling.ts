import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/**
 * RO3, check: drill and saw have no room in front of a hole that is to be made, or come out into something behind it; note: nobody measured
 * that (craft I2).
 */
export const checkDrilling: Rule = (context) => {
  const { loom, plan, standard } = context;
  return plan.tree.nodeIds.flatMap((id): Finding[] => {
    const { name, drill } = loom.nodes[id]!;
    if (drill === null) return [];
    const say = (sentence: string, rest: Parameters<typeof createFinding>[4]) =>
      createFinding(context, 'RO3', [{ kind: 'node', id }], sentence, rest);
    const { roomMm, behindMm } = drill;
    const { drillMm, drillThroughMm } = standard;
    if (roomMm !== null && roomMm < drillMm)
      return [
        say(
          `Drill and saw are ${drillMm} mm long and have ${roomMm} mm in front of ${name}: make it from the other side, or with an angle drive.`,
          { measured: roomMm, limit: drillMm },
        ),
      ];
    if (behindMm !== null && behindMm < drillThroughMm)
      return [
        say(
          `The saw comes out ${drillThroughMm} mm behind the panel and has ${behindMm} mm behind ${name}: move what is there, or stop it.`,
          {
            measured: behindMm,
            limit: drillThroughMm,
          },
        ),
      ];
    if (roomMm !== null && behindMm !== null) return [];
    const missing = [...(roomMm === null ? ['the room in front of it'] : []), ...(behindMm === null ? ['what lies behind it'] : [])];
    return [say(`${name} is to be made, and nobody measured ${missing.join(' and ')}.`, { grade: 'note' })];
  });
};
