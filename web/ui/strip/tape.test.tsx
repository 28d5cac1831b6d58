import { fireEvent, render, screen } from '@testing-library/react';
import { CATALOGUE, plan } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { TapeBand } from './TapeBand';

const job = createInlet();
const [loomPlan] = plan(job, CATALOGUE).looms;
const open = (chosen: string | null) => {
  const onChoose = jest.fn();
  render(<TapeBand loom={job.looms.inlet!} plan={loomPlan!} chosen={chosen} onChoose={onChoose} />);
  return onChoose;
};
const mark = (name: RegExp) => screen.getByRole('button', { name });

test('an end on the tape is named as it is pointed at, and as it is chosen', () => {
  const onChoose = open(null);
  expect(screen.getByText(/point at an end to read its name/)).toBeTruthy();
  fireEvent.pointerEnter(mark(/^injector 3, /));
  expect(screen.getByText('injector 3')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'all ends' })).toBeNull();
  fireEvent.pointerLeave(mark(/^injector 3, /));
  expect(screen.queryByText('injector 3')).toBeNull();
  fireEvent.click(mark(/^injector 3, /));
  expect(onChoose).toHaveBeenCalledWith('inj3');
});

test('while one is chosen another may be looked at; then the chosen one is named again', () => {
  open('thr');
  expect(screen.getByText('throttle')).toBeTruthy();
  fireEvent.pointerEnter(mark(/^injector 3, /));
  expect([screen.queryByText('throttle'), screen.queryByText('injector 3') !== null]).toEqual([null, true]);
  fireEvent.pointerLeave(mark(/^injector 3, /));
  expect(screen.getByText('throttle')).toBeTruthy();
  expect(screen.getByRole('button', { name: 'all ends' })).toBeTruthy();
});
