import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/** EN14, check: no sleeve of the shop goes over the edge of a screen where its cable is opened. */
export const checkScreenSleeves: Rule = (context) =>
  context.plan.screens
    .filter(({ sleeveId }) => sleeveId === null)
    .map(({ endId, groupId, jacketMm, cableName }) =>
      createFinding(
        context,
        'EN14',
        [
          { kind: 'end', id: endId },
          { kind: 'item', id: groupId },
        ],
        `Where ${cableName} (${jacketMm} mm) is opened at ${context.loom.ends[endId]!.name}, no sleeve of the shop passes its jacket and grips its cores: the edge of the screen stays bare.`,
        { measured: jacketMm },
      ),
    );

/** EN15, check: rings, washer and nut are higher than the thread of their stud. */
export const checkStacks: Rule = (context) =>
  context.plan.studs.flatMap(({ endId, stackMm, threadMm, rings, studMm }) =>
    stackMm === null || threadMm === null || stackMm <= threadMm
      ? []
      : [
          createFinding(
            context,
            'EN15',
            [{ kind: 'end', id: endId }],
            `${rings.length} rings on ${context.loom.ends[endId]!.name} with washer and nut M${studMm} are ${stackMm.toFixed(1)} mm high, its thread ${threadMm} mm: take a longer stud or a second one.`,
            { measured: stackMm, limit: threadMm },
          ),
        ],
  );
