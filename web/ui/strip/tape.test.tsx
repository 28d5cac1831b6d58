import { fireEvent, render, screen } from '@testing-library/react';
import { CATALOGUE, plan } from 'wattograph-core';
import { createInlet, createSkerry } from 'wattograph-core/demo';
import { TapeBand } from './TapeBand';

const mockSize = { width: 1090 };
jest.mock('@mantine/hooks', () => ({
  ...jest.requireActual<object>('@mantine/hooks'),
  useElementSize: () => ({ ref: () => undefined, ...mockSize }),
}));

const inlet = createInlet();
const [inletPlan] = plan(inlet, CATALOGUE).looms;
const open = (chosen: string | null) => {
  const onChoose = jest.fn();
  render(<TapeBand loom={inlet.looms.inlet!} plan={inletPlan!} chosen={chosen} onChoose={onChoose} />);
  return onChoose;
};
const mark = (name: RegExp) => screen.getByRole('button', { name });

test('ends stand with their names where these have room; one is chosen, and all are shown again', () => {
  const onChoose = open(null);
  expect(mark(/^injector 3, /).textContent).toBe('injector 3');
  expect(screen.queryByRole('button', { name: 'all ends' })).toBeNull();
  fireEvent.click(mark(/^injector 3, /));
  expect(onChoose).toHaveBeenCalledWith('inj3');
});

test('the chosen one is let go by itself, by a button or with Escape; arrows go on from it', () => {
  const onChoose = open('thr');
  fireEvent.click(mark(/^throttle, /));
  fireEvent.click(mark(/^all ends$/));
  fireEvent.keyDown(mark(/^throttle, /), { key: 'Escape' });
  expect(onChoose.mock.calls).toEqual([[null], [null], [null]]);
  fireEvent.keyDown(mark(/^throttle, /), { key: 'ArrowRight' });
  expect(onChoose).not.toHaveBeenLastCalledWith('thr');
  expect(onChoose).not.toHaveBeenLastCalledWith(null);
});

test('where there is no room for names, what is pointed at is named, then what is chosen', () => {
  mockSize.width = 300;
  const job = createSkerry();
  const loomPlan = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'chassis')!;
  render(<TapeBand loom={job.looms.chassis!} plan={loomPlan} chosen="m-fuel-pump" onChoose={jest.fn()} />);
  expect(mark(/^fuel pump, /).textContent).toBe('');
  expect(screen.getByText('fuel pump')).toBeTruthy();
  fireEvent.pointerEnter(mark(/^radiator fan, /));
  expect([screen.queryByText('fuel pump'), screen.getByText('radiator fan')]).toEqual([null, expect.anything()]);
  fireEvent.pointerLeave(mark(/^radiator fan, /));
  expect(screen.getByText('fuel pump')).toBeTruthy();
});
