import { readSeconds } from '../seconds';

const USUAL_S = 4;
const MOST_S = 3600;
/** where edits do not rest, a line is as old as so many of their rests at most */
const RESTS = 15;

/** So long the edits of a job rest before its line is counted, s: who edits has the machine to himself. */
export const readRest = (): number => readSeconds('WATTOGRAPH_REST_SECONDS', USUAL_S, MOST_S);

/** How long a line is still left uncounted, s. restedS: since the last edit; sinceS: since the first that is not counted; restS: as readRest says. */
export const toPatience = (restedS: number, sinceS: number, restS: number): number =>
  Math.max(0, Math.min(restS - restedS, RESTS * restS - sinceS));
