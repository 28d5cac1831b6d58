import { findFamily, type Catalogue } from '../../catalogue';
import type { Job, Loom } from '../../model';
import { findStandard, type LoomPlan } from '../../plan';
import type { BoardPiece, BoardTree, Fixture } from './boardTypes';
import { toSide } from './toSide';

/** A loom as it is laid on a board. clearMm: what the shop keeps between two runs. */
export function createBoardTree(job: Job, catalogue: Catalogue, planned: LoomPlan, clearMm: number): BoardTree {
  const loom = job.looms[planned.loomId]!;
  const { tree } = planned;
  const { boardBareDepthMm, boardBareHalfMm } = findStandard(job, catalogue);
  const toFixture = (endId: string, { familyId }: Loom['ends'][string]): Fixture => {
    const family = findFamily(job, catalogue, familyId);
    if (!family) return { endId, depthMm: boardBareDepthMm, halfMm: boardBareHalfMm };
    return { endId, depthMm: family.entryDepthMm, halfMm: family.envelopeMm / 2 };
  };
  const fixtures = new Map(Object.entries(loom.ends).map(([endId, end]) => [end.nodeId, toFixture(endId, end)]));
  const coverings = new Map(planned.coverings.map((one) => [one.segmentId, one]));
  const indexOf = new Map<string, number>();
  const pieces: BoardPiece[] = [];
  const visit = (nodeId: string, parent: number) => {
    for (const segmentId of tree.nodes[nodeId]!.childSegmentIds) {
      const { lengthMm, onward, farNodeId } = tree.segments[segmentId]!;
      const covering = coverings.get(segmentId);
      const radiusMm = (covering?.odOutsideMm ?? 0) / 2;
      indexOf.set(segmentId, pieces.length);
      pieces.push({
        segmentId,
        parent,
        lengthMm,
        radiusMm,
        bendMm: radiusMm + (covering?.insideBendMm ?? 0),
        isOnward: parent >= 0 && onward,
        side: toSide(loom.segments[segmentId]!.leavesDeg),
        fixture: fixtures.get(farNodeId) ?? null,
      });
      visit(farNodeId, pieces.length - 1);
    }
  };
  visit(tree.datumId, -1);
  return { pieces, datum: fixtures.get(tree.datumId) ?? null, clearMm };
}
