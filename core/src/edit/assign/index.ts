export { assignPins, type Assignment } from './assignPins';
export type { AssignConflict, Assigned } from './types';
export { reassignPin, listAblePlaces, type AblePlaces } from './reassignPin';
export { listUnservedPins, listWanted, type UnservedPin } from './listUnservedPins';
export { canPlaceAll, findConflict, matchPins, type Costs, type Match } from './matchPins';
export { arrangeBulkheadPins, measureBreak, type BreakArrangement, type BreakOrder } from './arrangeBulkheadPins';
export { countWantedSpares, listBreakCurrents } from './listBreakCurrents';
