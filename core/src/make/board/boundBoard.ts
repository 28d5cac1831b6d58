import type { BoardTree } from './boardTypes';
import { NEAR_SHARE } from './measureClearance';

/** Least angle between a fork and what it leaves: at less, two places were nearer than the share of the way between them. */
export const LEAST_FORK_DEG = 30;

/**
 * No layout takes less of a board, mm²: of two bounds the larger. By room: round each place of the loom that is far enough from every fork
 * half of the clearance belongs to it alone, and that overlaps nothing. By reach, where the trunk lies straight: it is as wide as its trunk
 * is long, and as high as the longest fork of each side reaches at the least angle.
 */
export function boundBoard(tree: BoardTree, isFolded: boolean): number {
  const { pieces, clearMm } = tree;
  const chains = listChains(tree);
  const roomMm = chains.reduce((sum, { lengthMm, isTrunk }) => sum + Math.max(0, isTrunk ? lengthMm : lengthMm - clearMm / NEAR_SHARE), 0);
  const room = roomMm * clearMm;
  const trunks = chains.filter(({ isTrunk }) => isTrunk).map(({ lengthMm }) => lengthMm);
  const trunkMm = Math.max(0, ...trunks);
  if (isFolded || pieces.length === 0) return room;
  const forks = chains.filter(({ isTrunk, parentIsTrunk }) => !isTrunk && parentIsTrunk);
  const reach = (side: 'left' | 'right') => Math.max(0, ...forks.filter((one) => one.side === side).map(({ lengthMm }) => lengthMm));
  const either = Math.max(0, ...forks.map(({ lengthMm }) => lengthMm));
  const highMm = Math.max(reach('left') + reach('right'), either) * Math.sin((LEAST_FORK_DEG * Math.PI) / 180);
  return Math.max(room, trunkMm * highMm);
}

/** Lines of runs that go straight on, with what is held at their end; the first from the datum is the trunk. */
function listChains({ pieces }: BoardTree) {
  const chains: { lengthMm: number; isTrunk: boolean; parentIsTrunk: boolean; side: 'left' | 'right' | null }[] = [];
  const chainOf: number[] = [];
  const first = pieces.findIndex(({ parent }) => parent < 0);
  pieces.forEach(({ parent, isOnward, lengthMm, side, fixture }, index) => {
    const reachMm = lengthMm + (fixture?.depthMm ?? 0);
    if (isOnward && parent >= 0) {
      chainOf.push(chainOf[parent]!);
      chains[chainOf[parent]!]!.lengthMm += reachMm;
      return;
    }
    chainOf.push(chains.length);
    chains.push({ lengthMm: reachMm, isTrunk: index === first, parentIsTrunk: parent >= 0 && chains[chainOf[parent]!]!.isTrunk, side });
  });
  return chains;
}
