// Keeps a process running: started anew when it ends, ever more slowly where it ends at once.
const FIRST_MS = 200;
const LONGEST_MS = 10_000;
/** one that ran so long was well: what ends it then is something new; tests that end it again and again say less */
const WELL_MS = Number(process.env.WATTOGRAPH_WELL_MS ?? 30_000);

/**
 * @param name for the log
 * @param start starts the process and gives it
 * @param most as often as it may end at once, one after another, before it is given up
 * @param onGiveUp told when it is given up
 */
export function keepRunning({ name, start, most = 12, onGiveUp }) {
  let child;
  let timer;
  let failures = 0;
  let isStopping = false;
  const begin = () => {
    const startedAt = Date.now();
    child = start();
    child.once('exit', (code, signal) => {
      if (isStopping) return;
      failures = Date.now() - startedAt > WELL_MS ? 1 : failures + 1;
      if (failures > most) {
        console.error(`${name} ended ${failures} times in a row (last with ${signal ?? code}): given up`);
        onGiveUp();
        return;
      }
      const waitMs = Math.min(LONGEST_MS, FIRST_MS * 2 ** (failures - 1));
      console.error(`${name} ended with ${signal ?? code}: started again in ${waitMs} ms`);
      timer = setTimeout(begin, waitMs);
    });
  };
  begin();
  return {
    get pid() {
      return child.pid;
    },
    /** End it for good; resolves when it is gone. */
    stop(afterMs = 8000) {
      isStopping = true;
      clearTimeout(timer);
      return new Promise((resolve) => {
        if (child.exitCode !== null || child.signalCode !== null) return resolve();
        child.once('exit', resolve);
        child.kill('SIGTERM');
        setTimeout(() => child.kill('SIGKILL'), afterMs).unref();
      });
    },
  };
}
