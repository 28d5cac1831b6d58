import type { Job } from 'wattograph-core';
import type { AssignAnswer } from '../workers/assign.worker';

/** Assign in a worker of its own; the returned function gives up. */
export function assign(job: Job, onDone: (answer: AssignAnswer) => void): () => void {
  const worker = new Worker(new URL('../workers/assign.worker.ts', import.meta.url), { type: 'module' });
  worker.onmessage = ({ data }: MessageEvent<AssignAnswer>) => {
    worker.terminate();
    onDone(data);
  };
  worker.onerror = (event) => {
    worker.terminate();
    onDone({ failure: event.message || 'the assignment stopped' });
  };
  worker.postMessage(job);
  return () => worker.terminate();
}
