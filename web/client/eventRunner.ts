import type { LoadEvent } from 'wattograph-core';
import type { EventAnswer } from '../workers/event.worker';
import { runOnce } from './runOnce';

/** Heat of an event over time, stretch by stretch, in a worker of its own; the returned function gives up. */
export const runEvent = (event: LoadEvent, onAnswer: (answer: EventAnswer) => void): (() => void) =>
  runOnce<LoadEvent, EventAnswer>(
    new Worker(new URL('../workers/event.worker.ts', import.meta.url), { type: 'module' }),
    event,
    onAnswer,
    (answer) => !('done' in answer),
  );
