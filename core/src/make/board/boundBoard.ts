import type { BoardTree } from './boardTypes';
import { NEAR_SHARE } from './measureClearance';

/**
 * Least angle between a fork and what it leaves, degrees: at less, two places so far from where they part were nearer than the share of the
 * way between them.
 */
export const LEAST_FORK_DEG = (2 * Math.asin(NEAR_SHARE) * 180) / Math.PI;

/**
 * No layout that keeps its distances takes less of a board, mm², with half of the clearance round it: of two bounds the larger. By room:
 * round each place of the loom that is far enough from every fork half of the clearance belongs to it alone, and that overlaps nothing. By
 * reach, where the trunk lies straight: as wide as the trunk is long, and as high as the longest fork of each side reaches at the least angle, with
 * the room that is held round what is at their ends.
 */
export function boundBoard(tree: BoardTree, isFolded: boolean): number {
  const { clearMm } = tree;
  const chains = listChains(tree);
  const farMm = clearMm / NEAR_SHARE;
  const room = clearMm * chains.reduce((sum, { lengthMm, isTrunk }) => sum + Math.max(0, isTrunk ? lengthMm : lengthMm - farMm), 0);
  const trunk = chains.find(({ isTrunk }) => isTrunk);
  if (isFolded || !trunk) return room;
  const forks = chains.filter(({ parentIsTrunk }) => parentIsTrunk);
  const rise = Math.sin((LEAST_FORK_DEG * Math.PI) / 180);
  const reach = (side: 'left' | 'right' | null) =>
    Math.max(0, ...forks.flatMap((one) => (side === null || one.side === side ? [one.lengthMm * rise + one.tipMm] : [])));
  const highMm = Math.max(reach('left') + reach('right'), reach(null));
  const behindMm = tree.datum ? tree.datum.depthMm + tree.datum.halfMm : 0;
  return Math.max(room, (behindMm + trunk.lengthMm + trunk.tipMm + clearMm) * (highMm + clearMm));
}

/** Lines of runs that go straight on, with what is held at their end and half of its width; the first from the datum is the trunk. */
function listChains({ pieces }: BoardTree) {
  const chains: { lengthMm: number; tipMm: number; isTrunk: boolean; parentIsTrunk: boolean; side: 'left' | 'right' | null }[] = [];
  const chainOf: number[] = [];
  const first = pieces.findIndex(({ parent }) => parent < 0);
  pieces.forEach(({ parent, isOnward, lengthMm, radiusMm, side, fixture }, index) => {
    const reachMm = lengthMm + (fixture?.depthMm ?? 0);
    const tipMm = fixture?.halfMm ?? radiusMm;
    if (isOnward && parent >= 0) {
      chainOf.push(chainOf[parent]!);
      const chain = chains[chainOf[parent]!]!;
      chain.lengthMm += reachMm;
      chain.tipMm = tipMm;
      return;
    }
    chainOf.push(chains.length);
    chains.push({
      lengthMm: reachMm,
      tipMm,
      isTrunk: index === first,
      parentIsTrunk: parent >= 0 && chains[chainOf[parent]!]!.isTrunk,
      side,
    });
  });
  return chains;
}
