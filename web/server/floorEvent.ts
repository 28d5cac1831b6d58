import type { StepProgress } from 'wattograph-core';
import type { FloorEventRow } from './schema';

type Told = Pick<FloorEventRow, 'id' | 'loomId' | 'stepId' | 'itemId' | 'kind' | 'words' | 'author'>;
/** Of a reading: which, what was read, in what, with what; null, or left out by an older page: it is none. */
type Read = Pick<FloorEventRow, 'readId' | 'value' | 'unit' | 'instrument'>;
/** The device, and the last event that it knew of when it made this one; of what is at the server, which came first. */
type Known = Partial<Pick<FloorEventRow, 'device' | 'after' | 'serial'>>;
/** What happened on the floor, or at what was proved. */
export type FloorEvent = Told & Partial<Read> & Partial<Pick<FloorEventRow, 'samples'>> & Known & { happenedAt: string };
/** How far a step is by them. */
export type FloorProgress = StepProgress<FloorEvent>;
