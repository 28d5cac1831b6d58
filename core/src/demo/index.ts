export { createSkerry } from './createSkerry';
