import { toRoute } from './metrics';

test('ids and numbers of an address are no routes of their own', () => {
  expect(
    [
      '/api/jobs/5ee12000-0000-4000-8000-000000000012/releases/3/events',
      '/api/shop/versions/12',
      '/api/jobs',
      '/api/photos/FE400000-0000-4000-8000-000000000002',
    ].map(toRoute),
  ).toEqual(['/api/jobs/[id]/releases/[n]/events', '/api/shop/versions/[n]', '/api/jobs', '/api/photos/[id]']);
});
