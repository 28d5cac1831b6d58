export { compareIds } from './compareIds';
export { roundTo } from './roundTo';
export { roundUp } from './roundUp';
export { once } from './once';
export { createMemory, type Memory } from './createMemory';
export { pushTo } from './pushTo';
