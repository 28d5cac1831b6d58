export { compareTimes, type TimedLoom, type TimesOf } from './compareTimes';
export { listMinutes } from './listMinutes';
export { measureTaken, TIME_KINDS, type Gap, type Taken, type TimedDeed } from './measureTaken';
export { toTimeWords } from './toTimeWords';
