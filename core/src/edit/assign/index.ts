export { assignPins, type Assignment } from './assignPins';
export type { AssignConflict, Assigned } from './types';
export { giveNeed, listAblePlaces, type AblePlaces } from './giveNeed';
export { createNetMap, type MappedNet } from './createNetMap';
export { listNeeds, listWanted, type Need } from './listNeeds';
export { canPlaceAll, findConflict, matchPins, type Costs, type Match } from './matchPins';
export { arrangeBreak, measureBreak, type BreakArrangement, type BreakOrder } from './arrangeBreak';
