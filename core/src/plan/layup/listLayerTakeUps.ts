import type { PlannedLayup } from '../types';

/** What the layer of a wire takes up in one run, wire per length of axis. */
export interface LayerTakeUp {
  takeUp: number;
  /** "core", "layer 2" */
  words: string;
}

/** Layers are counted outwards from the core. */
export const toLayerWords = (layer: number): string => (layer === 0 ? 'core' : `layer ${layer}`);

/** By segment and wire. A run lies in one stretch: what is laid anew is laid anew at a breakout. */
export function listLayerTakeUps(layups: readonly PlannedLayup[]): Map<string, Map<string, LayerTakeUp>> {
  const bySegment = new Map<string, Map<string, LayerTakeUp>>();
  for (const { segmentIds, segmentMarks, threads, stretches } of layups) {
    const wiresOf = new Map(threads.map(({ id, parts }) => [id, parts.flatMap(({ wireIds }) => wireIds)]));
    const byStretch = stretches.map(({ layers }) => {
      const byWire = new Map<string, LayerTakeUp>();
      layers.forEach(({ slots }, layer) => {
        for (const { threadId, takeUp } of slots)
          if (threadId !== null) for (const wireId of wiresOf.get(threadId)!) byWire.set(wireId, { takeUp, words: toLayerWords(layer) });
      });
      return byWire;
    });
    segmentIds.forEach((id, index) => {
      const at = stretches.findLastIndex(({ fromMark }) => fromMark <= segmentMarks[index]!);
      bySegment.set(id, byStretch[at]!);
    });
  }
  return bySegment;
}
