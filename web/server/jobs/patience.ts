/** so long the edits of a job rest before its line is counted, s: who edits has the machine to himself */
export const REST_S = 4;
/** where they do not rest, a line is this old at most, s */
const OLDEST_S = 60;

/** How long a line is still left uncounted, s. restS: since the last edit; sinceS: since the first that is not counted. */
export const toPatience = (restS: number, sinceS: number): number => Math.max(0, Math.min(REST_S - restS, OLDEST_S - sinceS));
