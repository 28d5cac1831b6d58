import { listOperations, type Catalogue, type Job } from 'wattograph-core';
import { fromDelta, type Planned } from './planDelta';
import type { PlanAnswer, PlanRequest } from './planSession';

export interface PlanResult extends Planned {
  /** the very document that was planned */
  job: Job;
  /** what it took in the worker */
  ms: number;
}

const createWorker = () => new Worker(new URL('../workers/plan.worker.ts', import.meta.url), { type: 'module' });

/** Name of the User Timing measure of the last plan: from asked to answered, with its number and what the worker took, ms. */
export const PLAN_MEASURE = 'plan';

/**
 * Plans jobs in a worker, one at a time; of those that wait only the last is planned. The worker keeps the document and the shop and is sent what
 * changed; a document that says the same as the one before is not planned again.
 */
export class PlanRunner {
  private worker: Worker;
  private running: { sequence: number; job: Job; askedAt: number } | null = null;
  private waiting: Job | null = null;
  private sequence = 0;
  /** the document as the worker has it; null: it has none, or it is not known which */
  private sent: Job | null = null;
  private last: Planned | null = null;

  private onResult: (result: PlanResult) => void = () => undefined;
  private onFailure: (message: string) => void = () => undefined;

  constructor(
    private readonly shop: Catalogue,
    private readonly start: () => Worker = createWorker,
  ) {
    this.worker = this.open();
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
    const patch = this.sent && listOperations(this.sent, job);
    if (patch?.length === 0) return;
    this.running = { sequence: (this.sequence += 1), job, askedAt: performance.now() };
    this.sent = job;
    this.worker.postMessage(
      (patch ? { sequence: this.sequence, patch } : { sequence: this.sequence, job, shop: this.shop }) satisfies PlanRequest,
    );
  }

  end(): void {
    this.worker.terminate();
  }

  private open(): Worker {
    const worker = this.start();
    worker.onmessage = ({ data }: MessageEvent<PlanAnswer>) => this.take(data);
    worker.onerror = (event) => this.restart(event.message || 'the planner stopped');
    return worker;
  }

  /** A worker that stopped is replaced; what it was asked last is not asked again, but the next change is planned. */
  private restart(message: string): void {
    this.worker.terminate();
    this.worker = this.open();
    this.last = null;
    this.forget();
    this.onFailure(message);
  }

  private forget(): void {
    this.sent = null;
    this.running = null;
    const next = this.waiting;
    this.waiting = null;
    if (next) this.plan(next);
  }

  private take(answer: PlanAnswer): void {
    const done = this.running;
    if (!done || answer.sequence !== done.sequence) return;
    if ('failure' in answer) {
      this.forget();
      this.onFailure(answer.failure);
      return;
    }
    this.last = fromDelta(this.last, answer.delta);
    this.running = null;
    const next = this.waiting;
    this.waiting = null;
    if (next) this.plan(next);
    performance.clearMeasures(PLAN_MEASURE);
    performance.measure(PLAN_MEASURE, { start: done.askedAt, detail: { sequence: done.sequence, ms: answer.ms } });
    this.onResult({ job: done.job, ...this.last, ms: answer.ms });
  }
}
