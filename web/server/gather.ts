/** at most so much is done at once, but for one thing that is more by itself: so that one batch does not make the next wait long */
const MOST_TOGETHER = 300;

interface Waiting<T> {
  item: T;
  resolve: () => void;
  reject: (error: unknown) => void;
}

/**
 * Do together what comes while the same is being done already: a commit has to reach the disk, and one for many things takes as long as one for
 * one. What fails together is tried alone, so that one bad thing does not fail the others.
 * @param work does all of these or none
 * @param weigh how much one is; where more waits than is done at once, what has waited longest goes first and then the small before the large
 */
export function createGatherer<T>(
  work: (key: string, items: readonly T[]) => Promise<void>,
  weigh: (item: T) => number = () => 1,
): (key: string, item: T) => Promise<void> {
  const lines = new Map<string, Waiting<T>[]>();
  const run = async (key: string, line: Waiting<T>[]) => {
    while (line.length > 0) {
      const batch = takeBatch(line, ({ item }) => weigh(item));
      try {
        await work(
          key,
          batch.map(({ item }) => item),
        );
        for (const { resolve } of batch) resolve();
      } catch (error) {
        if (batch.length === 1) batch[0]!.reject(error);
        else for (const { item, resolve, reject } of batch) await work(key, [item]).then(resolve, reject);
      }
    }
    lines.delete(key);
  };
  return (key, item) =>
    new Promise((resolve, reject) => {
      const waiting = { item, resolve, reject };
      const line = lines.get(key);
      if (line) {
        line.push(waiting);
        return;
      }
      const begun = [waiting];
      lines.set(key, begun);
      void run(key, begun);
    });
}

/** Takes the next batch out of a line. */
function takeBatch<T>(line: Waiting<T>[], weigh: (one: Waiting<T>) => number): Waiting<T>[] {
  const [oldest, ...others] = line;
  const batch = new Set([oldest!]);
  let sum = weigh(oldest!);
  for (const one of others.sort((a, b) => weigh(a) - weigh(b))) {
    if ((sum += weigh(one)) > MOST_TOGETHER) break;
    batch.add(one);
  }
  const taken = line.filter((one) => batch.has(one));
  line.splice(0, line.length, ...line.filter((one) => !batch.has(one)));
  return taken;
}
