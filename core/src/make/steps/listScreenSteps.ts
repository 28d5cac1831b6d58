import type { PlannedScreen } from '../../plan';
import { askWires, createItem, createStep, type Need, type StepContext } from '../createStep';
import type { Step } from '../step';

const toId = ({ endId, groupId }: PlannedScreen) => `screen.${endId}.${groupId}`;

/** Screened cables at an end, opened before anything goes on their cores. */
export const listScreenSteps = (context: StepContext, endId: string, needs: readonly Need[]): Step[] =>
  context.plan.screens.filter((one) => one.endId === endId).map((one) => createScreenStep(context, one, needs));

/** The cable that a step opens; null: another step. */
export const findScreen = (screens: readonly PlannedScreen[], stepId: string): PlannedScreen | null =>
  screens.find((one) => toId(one) === stepId) ?? null;

function createScreenStep({ loom, wires, terminations, standard }: StepContext, screen: PlannedScreen, needs: readonly Need[]): Step {
  const { endId, cableName, wireIds, unused, drainId, stripMm, insulationMm, screenMm, backMm, sleeveName, sleeveMm } = screen;
  const cores = wireIds.map((id) => wires.get(id)!);
  const drain = drainId === null ? null : terminations.get(endId)!.find((one) => one.wireIds.includes(drainId))!;
  const numbers = cores.map(({ number }) => number).join(', ');
  return createStep(toId(screen), 'screen', `Open ${cableName} at ${loom.ends[endId]!.name}`, {
    endId,
    needs: [...needs],
    tool: 'jacket stripper with a depth stop, scriber, hot-air tool',
    parts: [`${sleeveName}, ${sleeveMm} mm`],
    items: [
      createItem('jacket', `jacket back ${backMm} mm from the tips, no strand of the screen cut`, cores, null, [
        ...askWires(cores),
        { what: 'jacket back', value: backMm },
      ]),
      createItem(
        'screen',
        drain
          ? `screen ${screenMm} mm over the edge of the jacket, the rest combed out and gathered into its drain for cavity ${drain.cavity}`
          : `screen cut ${screenMm} mm over the edge of the jacket, no strand beyond: it is not connected here`,
        [],
        null,
        [
          { what: 'screen', value: screenMm },
          { what: 'drain', value: drain ? drain.cavity : 'none' },
        ],
      ),
      createItem('cores', `insulation ${insulationMm} mm over the edge of the screen, then ${stripMm} mm bare`, [], null, [
        { what: 'insulation', value: insulationMm },
        { what: 'strip', value: stripMm },
      ]),
      ...(unused > 0
        ? [
            createItem(
              'unused',
              `${unused} ${unused === 1 ? 'core is' : 'cores are'} not used here: cut to ${screenMm} mm, end sleeved, folded back`,
              [],
              null,
              [],
            ),
          ]
        : []),
      createItem('sleeve', `${sleeveName}, ${sleeveMm} mm, over the edge of the screen, shrunk`, [], null, [
        { what: 'sleeve', value: sleeveMm },
      ]),
      {
        ...createItem('apart', `${numbers} against the screen, before anything is seated`, cores, null, []),
        reads: cores.map(({ id, number }) => ({
          id: `apart ${id}`,
          words: `${number} to screen`,
          unit: 'MΩ' as const,
          least: standard.screenLeastMegohm,
          most: null,
        })),
      },
    ],
  });
}
