import { fork, type ChildProcess } from 'node:child_process';
import { log } from '../log';

/** It took longer than it may, and was ended. */
export class OverBudget extends Error {}
/** The process that was at it ended: out of memory, or killed. */
export class Fallen extends Error {}

type Told = { done: true } | { failed: string };

const MEMORY_MB = 900;

/**
 * A process of its own for work that may take long: one piece at a time, ended where that takes too long, uses too much memory or is not wanted
 * any more, so that no piece of work can hold up those after it. It is begun when there is something to do and goes with its parent.
 */
export class Labourer {
  private child: ChildProcess | null = null;
  /** the piece in hand, and those behind it */
  private turn: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly script: string,
    private readonly memoryMb = MEMORY_MB,
    /** handed to the process */
    private readonly words: readonly string[] = [],
  ) {}

  /** Have this done. Throws OverBudget, Fallen, the signal's reason, or an Error with what the process said. */
  run(work: object, budgetMs: number, signal?: AbortSignal): Promise<void> {
    const turn = this.turn.then(() => this.take(work, budgetMs, signal));
    this.turn = turn.catch(() => {});
    return turn;
  }

  /** Begin the process before there is something to do. */
  warm(): void {
    this.child ??= this.begin();
  }

  end(): void {
    this.child?.kill('SIGKILL');
    this.child = null;
  }

  private take(work: object, budgetMs: number, signal: AbortSignal | undefined): Promise<void> {
    return new Promise((resolve, reject) => {
      signal?.throwIfAborted();
      const child = (this.child ??= this.begin());
      const settle = (act: () => void) => {
        clearTimeout(timer);
        child.off('message', hear);
        child.off('exit', fall);
        signal?.removeEventListener('abort', stop);
        act();
      };
      const hear = (told: Told) => settle(() => ('done' in told ? resolve() : reject(new Error(told.failed))));
      const fall = () => settle(() => reject(new Fallen('the process that did it ended')));
      const stop = () =>
        settle(() => {
          this.end();
          reject(signal!.reason as Error);
        });
      const timer = setTimeout(() => {
        settle(() => {
          this.end();
          reject(new OverBudget(`it took longer than ${budgetMs / 1000} s`));
        });
      }, budgetMs);
      child.on('message', hear);
      child.on('exit', fall);
      signal?.addEventListener('abort', stop);
      child.send(work);
    });
  }

  private begin(): ChildProcess {
    const child = fork(this.script, [...this.words], { execArgv: [...process.execArgv, `--max-old-space-size=${this.memoryMb}`] });
    child.on('exit', (code, by) => {
      if (this.child === child) this.child = null;
      if (code !== 0 && by !== 'SIGKILL') log.warn({ code, by }, 'a process of the worker ended');
    });
    return child;
  }
}
