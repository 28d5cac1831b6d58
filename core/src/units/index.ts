export { compareIds } from './compareIds';
export { roundTo } from './roundTo';
export { roundUp } from './roundUp';
export { once } from './once';
