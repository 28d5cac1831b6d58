export { compareIds } from './compareIds';
export { roundTo } from './roundTo';
export { roundUp } from './roundUp';
export { once } from './once';
export { createMemo, type Memo, type Stage } from './createMemo';
export { createMemory, type Memory } from './createMemory';
export { pushTo } from './pushTo';
export { addDays, isDay } from './day';
export { toCount } from './toCount';
