export { addEnd } from './addEnd';
export { createId } from './createId';
export { joinSegments } from './joinSegments';
export { moveBreakout } from './moveBreakout';
export { removeEnd } from './removeEnd';
export { splitSegment } from './splitSegment';
