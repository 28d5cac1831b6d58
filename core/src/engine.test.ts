import manifest from '../package.json';
import { ENGINE } from './engine';

test('the engine that releases name is the version of the package', () => {
  expect(ENGINE).toBe(manifest.version);
});
