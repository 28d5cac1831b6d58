import { createDemoStart } from '../catalogue';
import { createSkerry } from '../demo';
import { createJob, createLoom } from '../model';
import { isBegun, REGISTER, type FindingStation } from './index';

const STATIONS = [...new Set(Object.values(REGISTER).map(({ station }) => station))];

test('an empty job has begun nowhere, the demo everywhere; a loom that is not there is not begun', () => {
  const empty = createJob('new', '', 'larkhollow', createDemoStart());
  const begun = (job: typeof empty, loomId: string) => STATIONS.filter((station: FindingStation) => isBegun(job, loomId, station));
  expect(begun(empty, 'main')).toEqual([]);
  expect(begun(createSkerry(), 'inlet').sort()).toEqual([...STATIONS].sort());
  const two = createSkerry();
  two.looms.rear = createLoom('rear', 'R');
  expect(begun(two, 'rear').sort()).toEqual(['brief', 'power']);
  expect(begun(two, 'gone').sort()).toEqual(['brief', 'power']);
});
