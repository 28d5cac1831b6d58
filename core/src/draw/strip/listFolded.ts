import type { LoomPlan } from '../../plan';

/** Above this many wires branches are folded to one line each unless somebody unfolds them. */
const FOLD_ABOVE = 45;

/** Segments with which a folded branch begins. folds: by segment, what the reader chose; the rest by how many wires there are. */
export function listFolded(plan: LoomPlan, folds: Readonly<Record<string, boolean>> = {}): Set<string> {
  const isLarge = plan.wires.length > FOLD_ABOVE;
  const folded = new Set<string>();
  for (const { childSegmentIds, parentSegmentId } of Object.values(plan.tree.nodes)) {
    if (parentSegmentId === null) continue;
    for (const id of childSegmentIds.slice(1)) if (folds[id] ?? isLarge) folded.add(id);
  }
  return folded;
}
