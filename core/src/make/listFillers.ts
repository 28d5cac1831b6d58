import { toWireWords } from '../catalogue';
import { toLayerWords, type LoomPlan, type PlannedFiller } from '../plan';

/** A piece of dead wire to cut, and where it lies. */
export interface FillerCut extends PlannedFiller {
  /** "F12" */
  number: string;
  /** of its strip */
  stripId: string;
  /** "AWG 22 ETFE, any colour" */
  reel: string;
  /** "layer 2, 120 to 480 mm from the datum" */
  words: string;
}

/** Dead wire of a loom, in the order in which it is laid in: numbered, for it is on the cut list like any wire. */
export function listFillers(plan: LoomPlan): FillerCut[] {
  const all = plan.layups.flatMap((layup) => layup.fillers.map((filler) => ({ layup, filler })));
  return all.map(({ layup, filler }, index) => {
    const startMm = plan.tree.segments[layup.id]!.startMm;
    return {
      ...filler,
      number: `F${index + 1}`,
      stripId: layup.id,
      reel: `${toWireWords(filler.conductor)}, any colour`,
      words: `${toLayerWords(filler.layer)}, ${Math.round(startMm + filler.fromMm)} to ${Math.round(startMm + filler.toMm)} mm from the datum`,
    };
  });
}
