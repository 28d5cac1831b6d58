import type { Segment } from '../../../model';

/** The run with another length that counts: the fitted one where it was fitted, else the reading (a second one goes). */
export function toRun(segment: Segment, lengthMm: number): Segment {
  return segment.fittedMm === null ? { ...segment, lengthMm, secondLengthMm: null } : { ...segment, fittedMm: lengthMm };
}
