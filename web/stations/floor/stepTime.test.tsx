import { fireEvent, render, screen } from '@testing-library/react';
import { CATALOGUE, createBuild, plan } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import type { FloorEvent } from '../../server/floorEvent';
import { StepTime } from './StepTime';

const job = createInlet();
const { steps } = createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE);
const crimp = steps.find(({ operation, items }) => operation === 'crimp' && items.length > 4)!;
const tick = (at: number, minute: number, rest: Partial<FloorEvent> = {}): FloorEvent => ({
  ...{ id: `e${at}`, loomId: 'inlet', stepId: crimp.id, itemId: crimp.items[at]!.id, kind: 'tick', words: '', author: 'Tobin' },
  happenedAt: new Date(Date.UTC(2026, 10, 29, 8, minute)).toISOString(),
  ...rest,
});
const show = (events: FloorEvent[], author = 'Tobin') => {
  const onSay = jest.fn();
  render(
    <StepTime
      step={crimp}
      loomId="inlet"
      events={events}
      author={author}
      onSay={onSay}
      times={{ minutes: { [crimp.id]: 7.2 }, pauseMin: 10, sessionMin: 240 }}
    />,
  );
  return onSay;
};
const EVENTS = [tick(0, 0), tick(1, 2), tick(2, 40), tick(3, 43)];

test('one’s own minutes beside those of the shop; a longer time was a pause until one says that it was work', () => {
  const onSay = show(EVENTS);
  expect(screen.getByText('Took you 5 min so far. The shop counts with 7 min.')).toBeTruthy();
  expect(screen.getByText(new RegExp(`^38 min before ${crimp.items[2]!.cavity!}: a pause$`))).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'It was work' }));
  expect(onSay).toHaveBeenCalledWith('worked', expect.objectContaining({ eventId: 'e2', itemId: crimp.items[2]!.id }));
});

test('said to be work it counts, and can be taken back', () => {
  const onSay = show([...EVENTS, tick(2, 44, { id: 'said', kind: 'worked', words: 'e2' })]);
  expect(screen.getByText(/^Took you 43 min so far/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'It was a pause' }));
  expect(onSay).toHaveBeenCalledWith('paused', expect.objectContaining({ eventId: 'e2' }));
});

test('nobody sees another one’s minutes; work in another loom is no pause', () => {
  show(EVENTS, 'Jun');
  expect(screen.getByText('The shop counts with 7 min.')).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
});

test('whoever ticks in another loom between is at work', () => {
  show([...EVENTS, ...[8, 16, 24, 32, 39].map((minute) => tick(4, minute, { id: `o${minute}`, loomId: 'engine' }))]);
  expect(screen.getByText(/^Took you 6 min so far/)).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
});
