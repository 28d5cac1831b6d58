export { createRandom } from '../units/createRandom';
export { createRandomJob } from './createRandomJob';
export { createRandomVehicle } from './createRandomVehicle';
