import { listLaidUpNeeds } from './listLayupSteps';
import { createItem, createStep, type Need, type StepContext } from '../createStep';
import { countTies } from '../listParts';
import type { Step } from '../step';

/** The step that shows a loom as it lies under its covering. */
export const PHOTO_STEP = 'photo';

/** The steps of a loom with what a shop does of its own before anything is covered: ties and tape run by run, and photos (craft D5). */
export function addBeforeCover(context: StepContext, steps: readonly Step[]): Step[] {
  const { tieSteps, photoBeforeCover } = context.standard;
  const ties = tieSteps ? listTieSteps(context) : [];
  const tied = new Map(ties.map(({ id, segmentId }) => [segmentId, id]));
  const photos = photoBeforeCover ? listPhotoSteps(context, [...steps, ...ties]) : [];
  if (ties.length + photos.length === 0) return [...steps];
  const wait = (step: Step): Step => {
    const isSlid = step.operation === 'slide' || step.operation === 'cover';
    const tie = isSlid ? tied.get(step.segmentId) : undefined;
    const needs: Need[] = [
      ...(tie === undefined ? [] : [{ stepId: tie, because: 'tied before anything goes over it' }]),
      ...(step.operation === 'cover' ? photos.map(({ id }) => ({ stepId: id, because: 'photographed while it can be seen' })) : []),
    ];
    return needs.length === 0 ? step : { ...step, needs: [...step.needs, ...needs] };
  };
  return [...steps.map(wait), ...ties, ...photos];
}

/** Every run that holds two wires or more, as the parts list counts its ties. */
function listTieSteps({ loom, plan, standard: { tieEveryMm, tapeTurns } }: StepContext): Step[] {
  return plan.bundles.flatMap(({ segmentId, sections }) => {
    const { nearNodeId, farNodeId, lengthMm } = plan.tree.segments[segmentId]!;
    const run = `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
    const ties = countTies(sections, lengthMm, tieEveryMm);
    if (ties === 0) return [];
    const splices = plan.splices.filter(({ place }) => place.segmentId === segmentId);
    const isTaped = tapeTurns > 0 && loom.nodes[farNodeId]!.kind === 'breakout';
    return createStep(`tie.${segmentId}`, 'tie', `Tie ${run}`, {
      segmentId,
      tool: 'ties, flush cutter',
      parts: [`${ties} ${ties === 1 ? 'tie' : 'ties'}`, ...(isTaped ? ['cloth tape'] : [])],
      needs: [
        { stepId: 'lay', because: 'the run is laid first' },
        ...splices.map(({ id }) => ({ stepId: `splice.${id}`, because: 'a joint is tied in when it is made' })),
        ...listLaidUpNeeds(plan, segmentId),
      ],
      items: [
        createItem(
          'tied',
          `${ties} × every ${tieEveryMm} mm, knots and heads flat, no wire crossed; cut ends flush, nothing sharp`,
          [],
          null,
          [
            { what: 'ties', value: ties },
            { what: 'every', value: tieEveryMm },
          ],
        ),
        ...(isTaped
          ? [
              createItem('taped', `${tapeTurns} turns of tape at ${loom.nodes[farNodeId]!.name}`, [], null, [
                { what: 'turns', value: tapeTurns },
              ]),
            ]
          : []),
      ],
    });
  });
}

/** One picture of the whole, one of every splice with its place. */
function listPhotoSteps({ loom, plan }: StepContext, steps: readonly Step[]): Step[] {
  if (plan.wires.length === 0) return [];
  const before = steps.filter(({ operation }) => operation === 'splice' || operation === 'layup' || operation === 'tie');
  return [
    createStep(PHOTO_STEP, 'photo', 'Photograph the loom before it is covered', {
      tool: 'camera, a rule in the picture',
      needs: [
        { stepId: 'lay', because: 'photographed as it lies' },
        ...before.map(({ id }) => ({ stepId: id, because: 'it is hidden under the covering later' })),
      ],
      items: [
        createItem('whole', 'the whole loom, from the datum to its ends', [], null, []),
        ...plan.splices.map(({ id, label, distanceMm, circuitId, awayMm }) =>
          createItem(
            id,
            `splice ${label}, ${loom.circuits[circuitId]!.name}, ${Math.round(distanceMm)} mm from the datum, sleeve and number in sight`,
            [],
            null,
            [{ what: 'from its junction', value: Math.round(awayMm) }],
          ),
        ),
      ],
    }),
  ];
}
