import { fireEvent, screen, within } from '@testing-library/react';
import { CATALOGUE, plan, type Job } from 'wattograph-core';
import { choose, chosen, press, write } from '../../testing/act';
import { openLoom } from '../../testing/fakeStore';
import { DressStation } from './DressStation';

jest.mock('next/navigation', () => ({
  useSearchParams: () => new URLSearchParams('loom=inlet'),
  useRouter: () => ({ push: jest.fn() }),
  usePathname: () => '/',
}));

const feedOf = (job: Job) => plan(job, CATALOGUE).looms[0]!.feeds[0]!;

function open(clampedBy: string | null = null) {
  const store = openLoom(
    () => <DressStation />,
    (job) => void (job.looms.inlet!.clampedBy = clampedBy),
  );
  fireEvent.click(screen.getAllByRole('button').find(({ textContent }) => textContent!.includes('hole 32 mm'))!);
  return store;
}

describe('a hole under Dress', () => {
  test('has the ends in the order in which they go through, with what each asks of it', () => {
    const store = open();
    const rows = within(screen.getByRole('table', { name: 'Parts that are led through plenum bracket hole' }))
      .getAllByRole('row')
      .slice(1);
    const { pieces } = feedOf(store.job);
    expect(rows.map((row) => within(row).getAllByRole('cell')[1]!.textContent)).toEqual(
      pieces.map(({ id }) => store.job.looms.inlet!.ends[id]!.name),
    );
    expect(within(rows[0]!).getAllByRole('cell')[3]!.textContent).toBe(pieces[0]!.needMm.toFixed(1));
    expect(screen.getByRole('img', { name: /^plenum bracket hole: \d+ parts in the order/ })).toBeTruthy();
  });
  test('a smaller bore leaves ends over; one of them closed in the vehicle goes through as its wires', () => {
    const store = open();
    write('Bore of plenum bracket hole', '28');
    expect(store.job.looms.inlet!.nodes.hole!.holeMm).toBe(28);
    const [over] = feedOf(store.job).offIds;
    const { name } = store.job.looms.inlet!.ends[over!]!;
    choose(`Where ${name} is closed`, 'in the vehicle');
    expect(store.job.looms.inlet!.ends[over!]!.pinAt).toBe('vehicle');
    expect(screen.getByText(/^1 end closed in the vehicle: bunched and rung on the bench/)).toBeTruthy();
    expect(feedOf(store.job).pieces.find(({ id }) => id === over)!.goesAs).toBe('wires');
  });
  test('the part with the datum can be led through instead', () => {
    const store = open();
    choose('What is led through plenum bracket hole', 'the part with the datum');
    expect(store.job.looms.inlet!.nodes.hole!.feed).toBe('inward');
    expect(chosen('What is led through plenum bracket hole')).toBe('the part with the datum');
    expect(screen.getByRole('table', { name: /led through/ }).textContent).toContain('inlet bulkhead B1');
    // anything but the hole is led through: the ends beyond are not
    expect(screen.getByRole('table', { name: /led through/ }).textContent).not.toContain('injector');
  });
  test('a clamped datum leaves no choice', () => {
    open('Jun Okafor');
    expect(screen.queryByLabelText('What is led through plenum bracket hole')).toBeNull();
    expect(screen.getByText(/what is clamped is not led through/)).toBeTruthy();
  });
  test('that is to be made asks for the room of the drill, and RO3 says where there is none', () => {
    const store = open();
    const name = 'plenum bracket hole';
    choose(`Whether ${name} is there`, 'the hole is to be made');
    expect(store.job.looms.inlet!.nodes.hole!.drill).toEqual({ roomMm: null, behindMm: null });
    press('1 note');
    expect(screen.getByText(/nobody measured the room in front of it and what lies behind it/)).toBeTruthy();
    write(`Room in front of ${name}`, '120');
    write(`Free behind ${name}`, '40');
    expect(store.job.looms.inlet!.nodes.hole!.drill).toEqual({ roomMm: 120, behindMm: 40 });
    expect(screen.getByText(/^Drill and saw are 240 mm long and have 120 mm in front of/)).toBeTruthy();
    choose(`Whether ${name} is there`, 'the hole is there');
    expect(store.job.looms.inlet!.nodes.hole!.drill).toBeNull();
  });
});

test('a hole that is one of another loom has that beside it; taken back it is one of its own', () => {
  const store = openLoom(
    () => <DressStation />,
    (job) => {
      job.looms.other = { ...structuredClone(job.looms.inlet!), name: 'other', prefix: 'X' };
      job.looms.other.nodes.hole!.name = 'floor hole';
    },
  );
  fireEvent.click(screen.getAllByRole('button').find(({ textContent }) => textContent!.includes('hole 32 mm'))!);
  const label = 'Which hole plenum bracket hole is';
  choose(label, 'floor hole, other');
  const { beside } = store.job.looms.inlet!.nodes.hole!;
  expect(store.job.looms[beside!.loomId]!.nodes[beside!.nodeId]!.name).toBe('floor hole');
  expect(screen.getByText(/mm are taken by what is led through before/)).toBeTruthy();
  choose(label, 'a hole of its own');
  expect(store.job.looms.inlet!.nodes.hole!.beside).toBeNull();
  expect(screen.queryByText(/are taken by what is led through before/)).toBeNull();
});
