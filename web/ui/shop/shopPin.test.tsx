import { act, screen, within } from '@testing-library/react';
import { createInlet } from 'wattograph-core/demo';
import { openAnew } from '../../client/openAnew';
import { press } from '../../testing/act';
import { FakeStore, renderWith } from '../../testing/fakeStore';
import { ShopPin } from './ShopPin';

jest.mock('../../client/openAnew', () => ({ openAnew: jest.fn() }));

let present: number | null;
let preview: { status: number; body: unknown };
const effect = { id: 'job', name: 'Skerry 12', problems: [] as unknown[], cuts: 1, sleeves: 2, massG: -3, stops: ['A pump has no fuse.'] };
const DIFFERENCES = [{ table: 'contacts', added: [], gone: [], changed: [{ id: 'h22', name: 'Hollin', fields: ['current, A: 7.5 → 9'] }] }];

beforeEach(() => {
  present = 1;
  preview = { status: 200, body: { version: 3, from: 1, differences: DIFFERENCES, effect } };
  jest.mocked(openAnew).mockClear();
  global.fetch = ((path: string) => {
    if (path !== '/api/shop/version') {
      const { status, body } = preview;
      return Promise.resolve({ ok: status < 300, status, json: () => Promise.resolve(body) });
    }
    if (present === null) return Promise.reject(new TypeError('no network'));
    return Promise.resolve({ ok: true, status: 200, json: () => Promise.resolve({ version: present }) });
  }) as unknown as typeof fetch;
});
const open = async () => {
  const store = new FakeStore({ ...createInlet(), shopVersion: 1 });
  renderWith(store, <ShopPin jobId="job" />);
  await act(async () => void (await new Promise((done) => setTimeout(done, 0))));
  return store;
};
const settle = () => act(async () => void (await new Promise((done) => setTimeout(done, 0))));

test.each([1, null])('with the newest version, or a server that does not answer (%p), there is nothing to bring up', async (version) => {
  present = version;
  await open();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'shop 1' }).disabled).toBe(true);
});

test('an older version says so, shows what the newer one would change, and is brought up by one edit', async () => {
  present = 3;
  const store = await open();
  press('shop 1 → 3');
  await settle();
  const dialog = within(screen.getByRole('dialog', { name: 'From version 1 of the shop to 3' }));
  expect(dialog.getByText(/1 wire cut otherwise, 2 sleeves, −3 g, 1 more to stop for/)).toBeTruthy();
  expect(dialog.getByText(/A pump has no fuse/)).toBeTruthy();
  expect(dialog.getByText('Hollin: current, A: 7.5 → 9')).toBeTruthy();
  press('Bring it up');
  expect([store.labels, store.job.shopVersion]).toEqual([['bring up to shop version 3'], 3]);
  // the page plans with one shop: it opens anew with the other
  await settle();
  expect(openAnew).toHaveBeenCalledTimes(1);
});

test('what the shop does not have any more is named, and the job stays with its version', async () => {
  present = 3;
  const problems = [{ path: '/looms/inlet/ends/B1/familyId', message: 'expected a connector family' }];
  preview.body = { version: 3, from: 1, differences: DIFFERENCES, effect: { ...effect, problems } };
  const store = await open();
  press('shop 1 → 3');
  await settle();
  expect(screen.getByText(/expected a connector family/)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Bring it up' }).disabled).toBe(true);
  expect(store.labels).toEqual([]);
  expect(openAnew).not.toHaveBeenCalled();
});

test.each([500, 404])('status %i: told, nothing is changed', async (status) => {
  present = 3;
  preview = { status, body: { problems: [{ path: '', message: 'Something went wrong here; nothing was stored.' }] } };
  const store = await open();
  press('shop 1 → 3');
  await settle();
  expect(screen.getByText('Not compared; nothing is changed')).toBeTruthy();
  expect([screen.getByRole<HTMLButtonElement>('button', { name: 'Bring it up' }).disabled, store.labels]).toEqual([true, []]);
});
