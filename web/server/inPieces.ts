/** longer than this nobody waits for a piece of somebody else's work, ms */
const MOST_MS = 20;

/** Let others have their turn, between two things that each take a while where there is much of it. */
export const breathe = (): Promise<void> => new Promise(setImmediate);

/** Do work that pauses between its pieces, and let others have their turn wherever it has taken a while. */
export async function inPieces<T>(work: Generator<undefined, T>): Promise<T> {
  let began = performance.now();
  for (;;) {
    const { done, value } = work.next();
    if (done) return value;
    if (performance.now() - began < MOST_MS) continue;
    await breathe();
    began = performance.now();
  }
}
