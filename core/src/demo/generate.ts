export { createRandom } from './createRandom';
export { createRandomJob } from './createRandomJob';
export { createRandomVehicle } from './createRandomVehicle';
