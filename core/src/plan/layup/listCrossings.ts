import type { Crossing, LayupStrip, Stretch } from './layupTypes';
import { isOver } from './listPresent';

/**
 * What has to come out through a layer, or go in through one: at a breakout all layers over it in which something goes on; at a splice those
 * between it and what it is joined to.
 */
export function listCrossings({ threads }: LayupStrip, { fromMark, toMark, layers }: Stretch): Crossing[] {
  const byId = new Map(threads.map((thread) => [thread.id, thread]));
  const all = layers.map((ids) => ids.map((id) => byId.get(id)!));
  const layerOf = new Map(layers.flatMap((ids, layer) => ids.map((id) => [id, layer] as const)));
  const listOver = (layer: number, past: number, mark: number) =>
    all.flatMap((members, index) => (index > layer && index < past && members.some((one) => isOver(one, mark)) ? [index] : []));
  return all.flatMap((members, layer) =>
    members.flatMap((thread) =>
      [thread.from, thread.to].flatMap(({ mark, kind, besideId }, end): Crossing[] => {
        const isHere = end === 0 ? mark >= fromMark : mark <= toMark;
        if (!isHere || kind === 'strip') return [];
        let passed: number[];
        if (kind === 'breakout') passed = listOver(layer, all.length, mark);
        else {
          const beside = besideId === null ? undefined : layerOf.get(besideId);
          passed = beside === undefined ? [] : listOver(Math.min(layer, beside), Math.max(layer, beside), mark);
        }
        return passed.length ? [{ threadId: thread.id, mark, layers: passed }] : [];
      }),
    ),
  );
}
