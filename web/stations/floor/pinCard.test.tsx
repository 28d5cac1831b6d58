import 'fake-indexeddb/auto';
import { MantineProvider } from '@mantine/core';
import { render, screen, waitFor, within } from '@testing-library/react';
import { CATALOGUE, createBuild, NOTHING_CARRIED, plan } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { NOT_TIMED, NOTHING_CRIMPED } from '../../testing/crimping';
import { IMKE } from '../../testing/person';
import { press } from '../../testing/act';
import { outboxDatabase } from '../../client/outbox/outboxDatabase';
import type { FloorEvent } from '../../server/floorEvent';
import { askReason } from '../../ui/fields/askReason';
import { FloorStation } from './FloorStation';

jest.mock('../../ui/fields/askReason', () => ({ askReason: jest.fn() }));
jest.mock('next/navigation', () => ({ useRouter: () => ({ push: jest.fn() }) }));
jest.mock('../../client/serviceWorker', () => ({ registerServiceWorker: () => undefined }));

const create = () => {
  const job = createInlet();
  const loomPlan = plan(job, CATALOGUE).looms[0]!;
  const { steps } = createBuild(job, loomPlan, CATALOGUE);
  return {
    ...{ release: 1, newest: 1, job, plan: loomPlan, steps, families: CATALOGUE.families, board: null },
    ...{ carried: NOTHING_CARRIED, needsSecond: true, instruments: [], leaseMin: 20, crimping: NOTHING_CRIMPED, times: NOT_TIMED },
  };
};
type Pack = ReturnType<typeof create>;
const open = async (pack: Pack, events: FloorEvent[]) => {
  render(
    <MantineProvider env="test">
      <FloorStation person={IMKE} jobId="job" pack={pack} events={events} />
    </MantineProvider>,
  );
  // what this tablet kept is read first
  await waitFor(() => expect(screen.queryByText('Opening the job card …')).toBeNull());
};
const tick = (stepId: string, itemId: string, kind: FloorEvent['kind'] = 'tick', words = ''): FloorEvent => ({
  id: `${stepId} ${itemId} ${kind}`,
  loomId: 'inlet',
  stepId,
  itemId,
  kind,
  words,
  author: 'Tobin Ashgrove',
  happenedAt: '2026-11-24T08:00:00Z',
});
const all = (pack: Pack, until: number) =>
  pack.steps
    .slice(0, until)
    .flatMap(({ id, items }) => items.filter(({ heldBecause }) => heldBecause === null).map((item) => tick(id, item.id)));
beforeEach(async () => {
  localStorage.clear();
  await outboxDatabase.rows.clear();
  // the server is away: what is done stays here
  global.fetch = () => Promise.reject(new TypeError('no network'));
});

describe('one cavity at a time', () => {
  const seatOf = (pack: Pack) => pack.steps.find(({ operation, items }) => operation === 'seat' && items.length > 10)!;
  /** everything before a step done, and so many of its cavities */
  const upTo = (pack: Pack, step: Pack['steps'][number], count: number) => [
    ...all(pack, pack.steps.indexOf(step)),
    ...step.items.slice(0, count).map(({ id }) => tick(step.id, id)),
  ];
  const one = () => within(screen.getByRole('region', { name: 'One cavity' }));
  const kept = async () => (await outboxDatabase.rows.toArray()).map(({ body }) => body as unknown as FloorEvent);

  test('it is taken in hand, then done; put down it is to do again', async () => {
    const pack = create();
    const seat = seatOf(pack);
    await open(pack, upTo(pack, seat, 3));
    press('One at a time');
    const [, , , fourth, fifth] = seat.items;
    expect(one().getByText(fourth!.cavity!)).toBeTruthy();
    press('Take it');
    press('Put it down');
    press('Take it');
    press('Seated: clicked, tugged');
    expect(one().getByText(fifth!.cavity!)).toBeTruthy();
    await waitFor(async () => {
      const kinds = (await kept()).map(({ kind, itemId }) => [kind, itemId]);
      expect(kinds).toEqual(['hand', 'down', 'hand', 'tick'].map((kind) => [kind, fourth!.id]));
    });
    // and the list says the same
    press('One at a time');
    expect(screen.getByRole('list', { name: 'To do' })).toBeTruthy();
  });

  test('power cut with one in hand: whoever comes next is shown that one as doubtful, and goes on only when it is settled', async () => {
    const pack = create();
    const seat = seatOf(pack);
    const at = seat.items[5]!;
    await open(pack, [...upTo(pack, seat, 5), { ...tick(seat.id, at.id, 'hand'), author: 'Tobin Ashgrove' }]);
    expect(one().getByText(at.cavity!)).toBeTruthy();
    expect(one().getByRole('alert').textContent).toMatch(/^Doubtful. Tobin Ashgrove had it in hand when work stopped/);
    expect(one().getByText('5')).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Skip for now' }).disabled).toBe(true);
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'One at a time' }).disabled).toBe(true);
    press('It is good');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Skip for now' }).disabled).toBe(false);
    await waitFor(async () => {
      expect((await kept()).map(({ kind, itemId, words }) => [kind, itemId, words])).toEqual([
        ['tick', at.id, 'doubtful: tugged, looked at, rung'],
      ]);
    });
  });

  test('done over it is in the hand of whoever does it; left, a reason goes to whoever plans', async () => {
    const pack = create();
    const seat = seatOf(pack);
    const [first, second] = seat.items;
    await open(pack, [...upTo(pack, seat, 0), tick(seat.id, first!.id, 'hand'), tick(seat.id, second!.id, 'hand')]);
    press('Do it over');
    // it is in hand here now; the other one is settled first
    expect(one().getByText(second!.cavity!)).toBeTruthy();
    jest.mocked(askReason).mockImplementationOnce((_title, onReason) => onReason('its wire is too short'));
    press('Leave it, with a reason');
    expect(one().getByRole('button', { name: 'Seated: clicked, tugged' })).toBeTruthy();
    expect(one().getByText(first!.cavity!)).toBeTruthy();
    await waitFor(async () => {
      const told = (await kept()).map(({ kind, itemId, words }) => [kind, itemId, words]);
      expect(told).toEqual([
        ['down', first!.id, ''],
        ['hand', first!.id, ''],
        ['down', second!.id, 'its wire is too short'],
        ['problem', 'step', `cavity ${second!.cavity} left doubtful: its wire is too short`],
      ]);
    });
  });

  test('with the last contact in, what is looked at before the end leaves the hand', async () => {
    const pack = create();
    const seat = seatOf(pack);
    const last = seat.items.length - 1;
    await open(pack, upTo(pack, seat, last));
    press('One at a time');
    expect(screen.queryByRole('region', { name: 'End check' })).toBeNull();
    press('Take it');
    press('Seated: clicked, tugged');
    await waitFor(() =>
      expect(screen.getByRole('region', { name: 'End check' }).textContent).toMatch(/No contact and no seal is left in the bag/),
    );
  });
});
