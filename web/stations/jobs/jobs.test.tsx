/** @jest-environment ./web/testing/environment/screen.cjs */
import { MantineProvider } from '@mantine/core';
import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { createDemoShop, type Job } from 'wattograph-core';
import { choose, press, type } from '../../testing/act';
import { IMKE } from '../../testing/person';
import { JobsStation } from './JobsStation';

const mockPush = jest.fn();
jest.mock('next/navigation', () => ({ useRouter: () => ({ push: mockPush, refresh: jest.fn() }) }));
jest.mock('../../ui/accounts/Who', () => ({ Who: () => null }));

const posted: { path: string; body: { document: Job } }[] = [];
let status = 201;
beforeEach(() => {
  posted.length = 0;
  status = 201;
  mockPush.mockClear();
  global.fetch = ((path: string, init?: { body: string }) => {
    posted.push({ path, body: JSON.parse(init?.body ?? '{}') as (typeof posted)[number]['body'] });
    const body = status === 201 ? { id: 'j1' } : { problems: [{ path: '/name', message: 'expected another name' }] };
    return Promise.resolve({ ok: status < 300, status, json: () => Promise.resolve(body) });
  }) as unknown as typeof fetch;
});

function open(sourceIds = ['battery', 'composite']) {
  const { standards, zones, modes, sources } = createDemoShop();
  const styles = Object.values(standards).map(({ id, name }) => ({ id, name }));
  const begins = { styles, zones: zones.slice(0, 2), modes, sources: sources.filter(({ id }) => sourceIds.includes(id)) };
  render(
    <MantineProvider env="test">
      <JobsStation jobs={[]} problems={[]} begins={begins} person={IMKE} />
    </MantineProvider>,
  );
  fireEvent.click(screen.getAllByRole('button', { name: 'New job' })[0]!);
}

test('a new job begins with what the shop begins with: its zones, its modes, the supply and the house style that were chosen', async () => {
  open();
  type('Name', ' Skiff 3 ');
  choose('Made to', 'Larkhollow plain style');
  choose('Fed by', 'small battery, composite tub');
  press('Begin job');
  await waitFor(() => expect(mockPush).toHaveBeenCalledWith('/jobs/j1/brief'));
  const { document } = posted[0]!.body;
  expect(document).toMatchObject({ name: 'Skiff 3', standardId: 'plain', source: { volts: 12.5, chassisMilliohm: null } });
  expect(Object.keys(document.zones)).toEqual(['cabin', 'engine']);
  expect(document.modes.crank).toEqual({ name: 'cranking', engine: 'cranking' });
});

test('where the shop has one supply nothing is asked, and the usual one is the first', async () => {
  open(['battery']);
  expect(screen.queryByLabelText('Fed by')).toBeNull();
  type('Name', 'Skiff 3');
  press('Begin job');
  await waitFor(() => expect(posted).toHaveLength(1));
  expect(posted[0]!.body.document.source.chassisMilliohm).toBe(1);
});

test('a job that was not stored stays in the dialog with its name', async () => {
  status = 422;
  open();
  type('Name', 'Skiff 3');
  press('Begin job');
  await screen.findByText(/expected another name/);
  expect(mockPush).not.toHaveBeenCalled();
  expect((screen.getByLabelText(/^Name/) as HTMLInputElement).value).toBe('Skiff 3');
});
