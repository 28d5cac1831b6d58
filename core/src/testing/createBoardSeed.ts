import type { BoardPiece, BoardTree } from '../make';
import { createRandom } from '../units/createRandom';

/** A made-up loom to be spread: a trunk with branches, some of which branch again, so many ends in all. Same seed, same loom. */
export function createBoardSeed(seed: number, ends: number): BoardTree {
  const random = createRandom(seed);
  const whole = (least: number, most: number) => least + Math.floor(random() * (most - least + 1));
  const pieces: BoardPiece[] = [];
  const add = (parent: number, lengthMm: number, isOnward: boolean, isEnd: boolean): number => {
    const radiusMm = isEnd ? whole(1, 4) : whole(3, 12);
    pieces.push({
      segmentId: `s${pieces.length + 1}`,
      parent,
      lengthMm,
      radiusMm,
      bendMm: radiusMm * whole(7, 13),
      isOnward,
      side: parent < 0 || isOnward || random() < 0.6 ? null : random() < 0.5 ? 'left' : 'right',
      fixture: isEnd ? { endId: `e${pieces.length + 1}`, depthMm: whole(14, 30), halfMm: whole(6, 20) } : null,
    });
    return pieces.length - 1;
  };
  // about three ends at each place of the trunk, one branch in four branches again
  let left = ends - 1;
  let parent = -1;
  while (left > 0) {
    parent = add(parent, whole(120, 320), parent >= 0, false);
    for (let forks = Math.min(left, whole(1, 4)); forks > 0; forks -= 1) {
      if (random() < 0.25 && left >= 2) {
        const branch = add(parent, whole(80, 240), false, false);
        add(branch, whole(60, 260), true, true);
        add(branch, whole(60, 200), false, true);
        left -= 2;
      } else {
        add(parent, whole(60, 420), false, true);
        left -= 1;
      }
      if (left <= 0) break;
    }
  }
  add(parent, whole(80, 260), parent >= 0, true);
  return { pieces, datum: { endId: 'datum', depthMm: 24, halfMm: 18 }, clearMm: 40 };
}
