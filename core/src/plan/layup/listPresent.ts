import type { LayupStrip, Thread } from './layupTypes';

/** A thread as far as it lies in a stretch. */
export interface Present {
  thread: Thread;
  /** clipped to the stretch, mm */
  fromMm: number;
  toMm: number;
  /** marks within the stretch at which it comes out or in through what lies over it */
  exits: readonly number[];
  /** marks within it at which another thread is spliced to it */
  joints: readonly number[];
}

/** What lies in a stretch of a strip, from one mark to another. */
export function listPresent({ threads, marks }: LayupStrip, fromMark: number, toMark: number): Present[] {
  return threads
    .filter(({ from, to }) => from.mark < toMark && to.mark > fromMark)
    .map((thread) => {
      const { from, to } = thread;
      const exits: number[] = [];
      if (from.kind === 'breakout' && from.mark >= fromMark) exits.push(from.mark);
      if (to.kind === 'breakout' && to.mark <= toMark) exits.push(to.mark);
      const [first, last] = [Math.max(from.mark, fromMark), Math.min(to.mark, toMark)];
      const joints = thread.joints.filter((mark) => mark >= fromMark && mark <= toMark);
      return { thread, fromMm: marks[first]!.mm, toMm: marks[last]!.mm, exits, joints };
    });
}

/** Does it go on past a mark, on both sides of it? Nothing beneath it comes out there without passing it. */
export const isOver = ({ from, to }: Thread, mark: number): boolean => from.mark < mark && mark < to.mark;
