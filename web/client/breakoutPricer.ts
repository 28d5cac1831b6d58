import type { BreakoutsAnswer, BreakoutsQuestion } from '../workers/breakouts.worker';
import { runOnce } from './runOnce';

/** What the ways on from each breakout come to, in a worker of its own: a trunk of 300 wires takes a tenth of a second. */
export const priceWaysOn = (question: BreakoutsQuestion, onDone: (answer: BreakoutsAnswer) => void): (() => void) =>
  runOnce<BreakoutsQuestion, BreakoutsAnswer>(
    new Worker(new URL('../workers/breakouts.worker.ts', import.meta.url), { type: 'module' }),
    question,
    onDone,
  );
