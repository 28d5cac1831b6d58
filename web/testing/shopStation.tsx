import { MantineProvider } from '@mantine/core';
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { createDemoShop, type Shop } from 'wattograph-core';
import { ShopStation } from '../stations/shop/ShopStation';
import { IMKE } from './person';

const mockRefresh = jest.fn();
jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: mockRefresh }) }));

/** What the Shop station asked of the server, and what that says to a preview; as new before each test. */
export const server = {
  refresh: mockRefresh,
  posted: [] as { path: string; body: { document: Shop; base?: number; note?: string; author?: string } }[],
  preview: { status: 200, body: {} as unknown },
};
export const effect = { id: 'j', name: 'Skerry 12', problems: [], cuts: 3, sleeves: 1, massG: 4.2, stops: ['A pump has no fuse.'] };

beforeEach(() => {
  server.posted = [];
  mockRefresh.mockClear();
  localStorage.clear();
  server.preview = {
    status: 200,
    body: {
      version: 4,
      differences: [{ table: 'contacts', added: [], gone: [], changed: [{ id: 'h22', name: 'Hollin', fields: ['current, A: 7.5 → 9'] }] }],
      jobs: [effect],
    },
  };
  global.fetch = ((path: string, init?: { body: string }) => {
    server.posted.push({ path, body: JSON.parse(init?.body ?? '{}') as (typeof server.posted)[number]['body'] });
    const { status, body } = path === '/api/shop/preview' ? server.preview : { status: 201, body: { version: 5 } };
    return Promise.resolve({ ok: status < 300, status, json: () => Promise.resolve(body) });
  }) as unknown as typeof fetch;
});

/** The station with a shop, the demo's where none is given, at version 4. */
export function openShop(users: Record<string, { id: string; name: string }[]> = {}, shop: Shop = createDemoShop()) {
  const versions = [
    { version: 4, author: 'Imke Dorsey', note: 'new crimper', at: '2026-11-20T10:00:00.000Z' },
    { version: 3, author: 'Jun Okafor', note: '', at: '2026-11-01T10:00:00.000Z' },
  ];
  render(
    <MantineProvider env="test">
      <ShopStation person={IMKE} version={4} shop={shop} versions={versions} users={users} />
    </MantineProvider>,
  );
}

export const goTo = (table: string) =>
  fireEvent.click(within(screen.getByRole('navigation')).getByRole('button', { name: new RegExp(`^${table}`) }));
/** The table of records of the kind that is open. */
export const records = () => within(screen.getByRole('table', { name: /^Records: / }));
export const listed = () => records().queryAllByRole('row').slice(1);
export const chooseRecord = (name: RegExp) => fireEvent.click(records().getByRole('button', { name }));
export const editor = () => within(screen.getByRole('region', { name: 'Record' }));
export const typeField = (label: string | RegExp, value: string) => {
  const field = editor().getByLabelText(label);
  fireEvent.change(field, { target: { value } });
  fireEvent.blur(field);
};
export const settle = () => act(async () => void (await new Promise((done) => setTimeout(done, 0))));
