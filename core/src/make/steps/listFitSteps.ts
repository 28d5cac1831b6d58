import { createItem, createStep, type StepContext } from '../createStep';
import { FIRST_FIT } from '../planFits';
import type { Step } from '../step';

/** The trial fit, in two parts where some of the loom is fitted and some is not. */
export function listFitSteps({ loom, plan, fits: { first } }: StepContext): Step[] {
  if (plan.wires.length === 0) return [];
  const early = new Set(first?.wires);
  const nameOf = (segmentId: string) => {
    const { nearNodeId, farNodeId } = plan.tree.segments[segmentId]!;
    return `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
  };
  const before =
    first === null
      ? []
      : [
          createStep(FIRST_FIT, 'fit', 'Fitted before the rest: from the datum on', {
            needs: [{ stepId: 'lay', because: 'laid out before it is taken for fitted' }],
            items: [
              createItem(
                'fitted',
                `laid as fitted: ${first.segmentIds.map(nameOf).join(', ')}`,
                [],
                null,
                first.segmentIds.map((id) => ({ what: nameOf(id), value: Math.round(loom.segments[id]!.fittedMm!) })),
              ),
              ...(first.wires.length === 0
                ? []
                : [
                    createItem(
                      'trimmed',
                      `trimmed as the trim sheet says: ${first.wires.map(({ number }) => number).join(', ')}; the rest keep their surplus`,
                      [],
                      null,
                      first.wires.map(({ number, cutMm }) => ({ what: number, value: cutMm })),
                    ),
                  ]),
            ],
          }),
        ];
  return [
    ...before,
    createStep('fit', 'fit', 'Trial fit: datum clamped, mark every device end', {
      needs: [{ stepId: 'lay', because: 'laid out before it goes to the car' }],
      items: [
        createItem('fitted', 'laid in the car, every end reaches with its loop', [], null, []),
        createItem(
          'trimmed',
          'fitted lengths entered under Survey, wires trimmed as the trim sheet says',
          [],
          null,
          plan.wires.filter((wire) => !early.has(wire)).map(({ number, cutMm }) => ({ what: number, value: cutMm })),
        ),
      ],
    }),
  ];
}
