import Ajv from 'ajv';
import { createLookup, CATALOGUE } from '../../catalogue';
import { createInlet } from '../../demo';
import { checkJob, readyGate } from './checkJob';

test('a gate that was made ready, a schema at a time, compiles nothing more when the first job comes in', () => {
  const compiling = jest.spyOn(Ajv.prototype as unknown as { _compileSchemaEnv: () => void }, '_compileSchemaEnv');
  const counts = [...readyGate()].map(() => compiling.mock.calls.length);
  expect(counts.length).toBeGreaterThan(1);
  expect(compiling).toHaveBeenCalled();
  compiling.mockClear();
  expect(checkJob(createInlet(), createLookup(CATALOGUE)).ok).toBe(true);
  expect(compiling).not.toHaveBeenCalled();
  // what is wrong is looked for by schemas of its own, and only then
  expect(checkJob({ ...createInlet(), name: 7 }, createLookup(CATALOGUE)).ok).toBe(false);
  expect(compiling).toHaveBeenCalled();
});
