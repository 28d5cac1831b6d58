import type { ColoursAnswer, ColoursQuestion } from '../workers/colours.worker';
import { runOnce } from './runOnce';

/** Looks for the wires of a loom, in a worker of its own: bands for many wires take half a second. The returned function gives up. */
export const proposeLooks = (question: ColoursQuestion, onDone: (answer: ColoursAnswer) => void): (() => void) =>
  runOnce<ColoursQuestion, ColoursAnswer>(
    new Worker(new URL('../workers/colours.worker.ts', import.meta.url), { type: 'module' }),
    question,
    onDone,
  );
