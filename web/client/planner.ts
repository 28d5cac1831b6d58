import type { Job } from 'wattograph-core';
import type { PlanAnswer, PlanRequest } from '../workers/plan.worker';
import { fromDelta, type Planned } from './planDelta';

export interface PlanResult extends Planned {
  /** the very document that was planned */
  job: Job;
  ms: number;
}

/** Plans jobs in a worker, one at a time; of those that wait only the last is planned. */
export class PlanRunner {
  private readonly worker = new Worker(new URL('../workers/plan.worker.ts', import.meta.url), { type: 'module' });
  private running: { sequence: number; job: Job } | null = null;
  private waiting: Job | null = null;
  private sequence = 0;
  private last: Planned | null = null;

  private onResult: (result: PlanResult) => void = () => undefined;
  private onFailure: (message: string) => void = () => undefined;

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<PlanAnswer>) => this.take(data);
    this.worker.onerror = (event) => this.onFailure(event.message || 'the planner stopped');
  }

  /** Who is told; set before the first plan is asked for. */
  tell(onResult: (result: PlanResult) => void, onFailure: (message: string) => void): void {
    this.onResult = onResult;
    this.onFailure = onFailure;
  }

  plan(job: Job): void {
    if (this.running) {
      this.waiting = job;
      return;
    }
    this.running = { sequence: (this.sequence += 1), job };
    this.worker.postMessage({ sequence: this.sequence, job } satisfies PlanRequest);
  }

  end(): void {
    this.worker.terminate();
  }

  private take(answer: PlanAnswer): void {
    if ('delta' in answer) this.last = fromDelta(this.last, answer.delta);
    const done = this.running;
    this.running = null;
    const next = this.waiting;
    this.waiting = null;
    if (next) this.plan(next);
    if (!done || answer.sequence !== done.sequence) return;
    if ('failure' in answer) this.onFailure(answer.failure);
    else this.onResult({ job: done.job, ...this.last!, ms: answer.ms });
  }
}
