import { MantineProvider } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import { act, render, screen } from '@testing-library/react';
import { useShopNotice } from './useShopNotice';

let answer: () => Promise<unknown>;
const asked = jest.fn();

function Page() {
  useShopNotice(3);
  return null;
}
const open = () =>
  render(
    <MantineProvider env="test">
      <Notifications />
      <Page />
    </MantineProvider>,
  );
const pass = () => act(() => jest.advanceTimersByTimeAsync(21_000));

beforeEach(() => {
  jest.useFakeTimers();
  asked.mockClear();
  global.fetch = ((path: string) => {
    asked(path);
    return answer();
  }) as unknown as typeof fetch;
});
afterEach(() => jest.useRealTimers());
const says = (version: number) => () => Promise.resolve({ ok: true, status: 200, json: () => Promise.resolve({ version }) });

test('a page that plans with an older shop says so once, and how to go on', async () => {
  answer = says(3);
  open();
  await pass();
  expect(screen.queryByText(/The shop is at version/)).toBeNull();
  answer = () => Promise.reject(new TypeError('no network'));
  await pass();
  answer = says(5);
  await pass();
  expect(screen.getByText('The shop is at version 5 now')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Plan with version 5' })).toBeTruthy();
  const before = asked.mock.calls.length;
  await pass();
  expect([asked.mock.calls.length, asked.mock.calls[0]![0]]).toEqual([before, '/api/shop/version']);
});
