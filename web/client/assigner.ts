import type { Job } from 'wattograph-core';
import type { AssignAnswer } from '../workers/assign.worker';
import { runOnce } from './runOnce';

/** Assign in a worker of its own; the returned function gives up. */
export const assign = (job: Job, onDone: (answer: AssignAnswer) => void): (() => void) =>
  runOnce<Job, AssignAnswer>(new Worker(new URL('../workers/assign.worker.ts', import.meta.url), { type: 'module' }), job, onDone);
