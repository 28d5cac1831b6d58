import { MantineProvider } from '@mantine/core';
import { ModalsProvider } from '@mantine/modals';
import { fireEvent, render, screen, waitFor } from '@testing-library/react';
import { press } from '../../testing/act';
import { askProblem } from './askProblem';

const told = jest.fn();
const choose = (...files: File[]) => fireEvent.change(screen.getByLabelText(/^(With a|Another) photo$/), { target: { files } });
const keep = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Keep' });

beforeEach(async () => {
  told.mockClear();
  URL.createObjectURL = () => 'blob:taken';
  URL.revokeObjectURL = () => undefined;
  render(
    <MantineProvider env="test">
      <ModalsProvider>
        <button onClick={() => askProblem(told)}>ask</button>
      </ModalsProvider>
    </MantineProvider>,
  );
  press('ask');
  await screen.findByLabelText('Reason');
});

test('a problem is told with words, and with a picture where one was taken', async () => {
  expect(keep().disabled).toBe(true);
  fireEvent.change(screen.getByLabelText('Reason'), { target: { value: ' sleeve too tight ' } });
  const photo = new File(['x'], 'sleeve.png', { type: 'image/png' });
  choose(photo);
  expect(screen.getByRole('img', { name: 'what was taken' })).toBeTruthy();
  fireEvent.click(keep());
  await waitFor(() => expect(told.mock.calls).toEqual([['sleeve too tight', photo]]));
});

test('without a picture it is told as well', async () => {
  fireEvent.change(screen.getByLabelText('Reason'), { target: { value: 'no reel left' } });
  fireEvent.click(keep());
  await waitFor(() => expect(told.mock.calls).toEqual([['no reel left', null]]));
});

test('a picture that is too large is refused before anything is told, and can be let go', async () => {
  fireEvent.change(screen.getByLabelText('Reason'), { target: { value: 'bent pin' } });
  const large = new File(['x'], 'large.jpg', { type: 'image/jpeg' });
  Object.defineProperty(large, 'size', { value: 60 * 1024 * 1024 });
  choose(large);
  expect(screen.getByRole('alert').textContent).toBe('A photo was not kept: expected at most 20 MB, got 60 MB.');
  expect(keep().disabled).toBe(true);
  expect(screen.queryByRole('img')).toBeNull();
  choose();
  expect(screen.queryByRole('alert')).toBeNull();
  fireEvent.click(keep());
  await waitFor(() => expect(told.mock.calls).toEqual([['bent pin', null]]));
});
