import { fireEvent, screen, within } from '@testing-library/react';
import { press } from '../../testing/act';
import { openLoom } from '../../testing/fakeStore';
import { saveFile } from '../../client/saveFile';
import { DressStation } from './DressStation';

jest.mock('next/navigation', () => ({
  useSearchParams: () => new URLSearchParams('loom=inlet'),
  useRouter: () => ({ push: jest.fn() }),
  usePathname: () => '/',
}));
jest.mock('../../client/saveFile', () => ({ saveFile: jest.fn() }));

const openLabels = (change?: Parameters<typeof openLoom>[1]) => {
  const store = openLoom(() => <DressStation />, change);
  fireEvent.click(screen.getByRole('tab', { name: 'Labels' }));
  return store;
};
const rowOf = (legend: string) =>
  within(screen.getByRole('table', { name: 'Labels' }))
    .getByText(legend)
    .closest('tr')!.textContent;

test('every wire and end has its legend, sleeve and height of letters; one that is too long is told', () => {
  openLabels(({ looms }) => {
    const throttle = Object.values(looms.inlet!.ends).find(({ name }) => name === 'throttle')!;
    throttle.name = 'throttleactuatorandpositionsensorfeedbackloop';
  });
  expect(rowOf('N-203')).toMatch(/N-203.*2.*marker sleeve 1\.6/);
  // ends come last, further down than is drawn
  fireEvent.click(screen.getByRole('button', { name: /^of/ }));
  expect(rowOf('charge pressure')).toMatch(/end.*marker sleeve 3\.2.*2\.4/);
  expect(rowOf('throttleactuatorandpositionsensorfeedbackloop')).toMatch(/1\.\d$/);
  expect(screen.getByText(', 1 label cannot be read or does not go on')).toBeTruthy();
});

test('the printer’s list is shown as it would come out, and saved as it is fed', () => {
  openLabels();
  press('Print labels …');
  const dialog = screen.getByRole('dialog', { name: /^Labels of inlet/ });
  expect(within(dialog).getByRole('heading', { name: /^marker sleeve 1\.6, \d+ pieces, 1 pack opened, \d+ left$/ })).toBeTruthy();
  expect(within(dialog).getByRole('img', { name: /^Sleeves on marker sleeve 3\.2: .*charge pressure/ })).toBeTruthy();
  press('Save the printer’s list (CSV)');
  const [name, text] = jest.mocked(saveFile).mock.calls[0]!;
  expect(name).toBe('inlet labels.csv');
  expect(text).toContain('label-3.2,charge pressure,2.4,1,2.86,end charge pressure of inlet');
});
