export { createRandom } from './createRandom';
export { createRandomJob } from './createRandomJob';
