import { toLayerWords, toThreadWords, type LaidLayer, type LoomPlan, type PlannedLayup } from '../../plan';
import { createItem, createStep, type Need, type StepContext } from '../createStep';
import type { FillerCut } from '../listFillers';
import type { Step } from '../step';

/** Steps of laying up: a layer a step, from the core outwards, stretch by stretch from the datum. */
export function listLayupSteps(context: StepContext, fillers: readonly FillerCut[]): Step[] {
  return context.plan.layups.flatMap((layup) =>
    layup.stretches.flatMap((stretch, at) => stretch.layers.map((_, layer) => toStep(context, layup, { at, layer }, fillers))),
  );
}

/** The last layer of every stretch: when they are done, the bundle is. */
export const listLaidUpNeeds = ({ layups }: LoomPlan, segmentId: string): Need[] =>
  layups
    .filter(({ segmentIds }) => segmentIds.includes(segmentId))
    .flatMap(({ id, stretches }) =>
      stretches.map(({ layers }, at) => ({
        stepId: toId(id, at, layers.length - 1),
        because: 'the bundle is laid up before anything slides over it',
      })),
    );

const toId = (stripId: string, stretch: number, layer: number) => `layup.${stripId}.${stretch}.${layer}`;

/** The layer that a step lays; null: another step, or one of a plan that is not this. */
export function findLaidLayer(
  { layups }: Pick<LoomPlan, 'layups'>,
  stepId: string,
): { layup: PlannedLayup; stretch: number; layer: number } | null {
  for (const layup of layups)
    for (const [stretch, { layers }] of layup.stretches.entries())
      for (let layer = 0; layer < layers.length; layer += 1)
        if (toId(layup.id, stretch, layer) === stepId) return { layup, stretch, layer };
  return null;
}

function toStep(
  { loom, plan, wires }: StepContext,
  layup: PlannedLayup,
  { at, layer }: { at: number; layer: number },
  fillers: readonly FillerCut[],
): Step {
  const { fromMark, toMark, layers } = layup.stretches[at]!;
  const { hand, layMm } = layers[layer]!;
  const startMm = plan.tree.segments[layup.id]!.startMm;
  const [from, to] = [fromMark, toMark].map((mark) => Math.round(startMm + layup.marks[mark]!.mm));
  const name = (mark: number) =>
    layup.marks[mark]!.nodeId === null ? `${Math.round(startMm + layup.marks[mark]!.mm)} mm` : loom.nodes[layup.marks[mark]!.nodeId!]!.name;
  const lay =
    hand === null
      ? ''
      : `; ${hand === 'right' ? 'clockwise' : 'anticlockwise'} as it goes away from the datum, lay ${layMm!.toFixed(1)} mm, ${(100 / layMm!).toFixed(2)} turns per 100 mm: five turns measure ${Math.ceil(5 * layMm! - 1e-6)} mm`;
  const before: Need[] =
    layer > 0
      ? [{ stepId: toId(layup.id, at, layer - 1), because: 'the layer beneath is laid first' }]
      : at > 0
        ? [{ stepId: toId(layup.id, at - 1, layup.stretches[at - 1]!.layers.length - 1), because: 'laid up from the datum on' }]
        : [{ stepId: 'fit', because: 'laid up with its final lengths' }];
  return createStep(
    toId(layup.id, at, layer),
    'layup',
    `Lay up ${toLayerWords(layer)}${hand === null ? '' : `, ${hand}-hand`}, ${name(fromMark)} to ${name(toMark)}`,
    {
      segmentId: layup.id,
      needs: [...before, ...listSplicesBeneath(plan, layup, layers, layer)],
      tool: `twisting post, lacing cord to tie ${from} and ${to} mm from the datum${lay}`,
      items: listItems({ plan, wires }, layup, { at, layer }, fillers),
    },
  );
}

/** Threads in their order from 12 o'clock, each where it starts; then the dead wire among them. */
function listItems(
  { plan, wires }: Pick<StepContext, 'plan' | 'wires'>,
  layup: PlannedLayup,
  { at, layer }: { at: number; layer: number },
  fillers: readonly FillerCut[],
) {
  const { fromMark, layers } = layup.stretches[at]!;
  const { slots, hand, layMm } = layers[layer]!;
  const numbers = new Map(plan.wires.map(({ id, number }) => [id, number]));
  const byId = new Map(layup.threads.map((thread) => [thread.id, thread]));
  const lay = [
    { what: 'hand', value: hand ?? 'none' },
    { what: 'lay', value: layMm === null ? 0 : Math.round(layMm * 10) / 10 },
  ];
  return slots
    .map((slot, place) => ({ slot, place }))
    .sort((a, b) => a.slot.startDeg - b.slot.startDeg)
    .map(({ slot, place }) => {
      const dead = fillers.filter((one) => one.stripId === layup.id && one.stretch === at && one.layer === layer && one.slot === place);
      const deadWords = dead
        .map(({ number, reel, cutMm, words }) => `dead wire ${number} (${reel}, ${cutMm} mm), ${words.replace(/^[^,]*, /, '')}`)
        .join('; ');
      const thread = slot.threadId === null ? null : byId.get(slot.threadId)!;
      const deg = Math.round(slot.startDeg) % 360;
      const here = thread ? [...new Set(thread.parts.flatMap(({ wireIds }) => wireIds))].map((id) => wires.get(id)!) : [];
      const name = thread ? toThreadWords(thread, numbers, Math.max(fromMark, thread.from.mark)) : deadWords;
      return createItem(`at ${place}`, `${deg}°: ${name}${thread && deadWords ? `; ${deadWords}` : ''}`, here, null, [
        ...lay,
        { what: 'from 12 o’clock', value: deg },
        { what: 'there', value: `${name} ${deadWords}` },
      ]);
    });
}

/** Splices of what lies beneath: made before a layer covers them. */
function listSplicesBeneath(
  { splices, barrels }: LoomPlan,
  { segmentIds, threads }: PlannedLayup,
  layers: readonly LaidLayer[],
  layer: number,
): Need[] {
  const beneath = new Set(
    layers
      .slice(0, layer)
      .flatMap(({ slots }) =>
        slots.flatMap(({ threadId }) =>
          threadId === null ? [] : (threads.find(({ id }) => id === threadId)?.parts.flatMap(({ wireIds }) => wireIds) ?? []),
        ),
      ),
  );
  return splices
    .filter(({ place }, index) => segmentIds.includes(place.segmentId) && barrels[index]!.wireIds.some((id) => beneath.has(id)))
    .map(({ id }) => ({ stepId: `splice.${id}`, because: 'a joint is made before a layer covers it' }));
}
