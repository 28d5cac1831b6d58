import { MantineProvider } from '@mantine/core';
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { useState, type ComponentProps } from 'react';
import { CATALOGUE, createBuild, listTouching, listWork, plan, type Claim } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { choose, press } from '../../testing/act';
import { readCodeIn } from '../../client/readCodeIn';
import { StepList } from './StepList';

jest.mock('../../client/readCodeIn', () => ({ readCodeIn: jest.fn() }));

const job = createInlet();
const loom = job.looms.inlet!;
const { steps } = createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE);
const MINUTE = 60_000;
const claim = (author: string, lastMin: number): Claim => ({ author, sinceMs: 0, lastMs: lastMin * MINUTE });

const told = { open: jest.fn(), scan: jest.fn(), hand: jest.fn(), take: jest.fn(), leave: jest.fn(), order: jest.fn() };
type Some = Partial<ComponentProps<typeof StepList>>;
function List(some: Some) {
  const [, redraw] = useState(0);
  return (
    <MantineProvider env="test">
      <StepList
        work={listWork(steps, () => false)}
        claims={new Map()}
        touching={listTouching(steps, () => false)}
        author="Imke Dorsey"
        lane="post cut"
        nowMs={10 * MINUTE}
        loom={loom}
        order="operation"
        onOrder={told.order}
        onOpen={told.open}
        onScan={told.scan}
        onHandOver={told.hand}
        onTake={(lane) => (told.take(lane), redraw(1))}
        onLeave={told.leave}
        {...some}
      />
    </MantineProvider>
  );
}
const open = (some: Some = {}) => {
  cleanup();
  render(<List {...some} />);
};
const headings = () => screen.getAllByRole('heading', { level: 2 }).map(({ textContent }) => textContent);
const find = (words: string) => {
  fireEvent.change(screen.getByLabelText('Find an end, a wire or a step'), { target: { value: words } });
};
const enter = () => fireEvent.submit(screen.getByLabelText('Find an end, a wire or a step').closest('form')!);

beforeEach(() => Object.values(told).forEach((one) => one.mockClear()));

test('at first only cutting is ready; what waits says for what; what is held says why', () => {
  open();
  expect(headings()).toEqual(['Cutting bench']);
  for (const row of screen.getAllByRole('listitem')) expect(row.textContent).toMatch(/ready$/);
  press(/^Waiting /);
  const crimp = screen.getByRole('button', { name: /^Crimp injector 1/ });
  expect(crimp.textContent).toMatch(/waits for \S/);
  expect(screen.getAllByRole('listitem').some(({ textContent }) => /HELD: N-222: length to knock sensor/.test(textContent!))).toBe(true);
  press(/^All /);
  expect(screen.getAllByRole('listitem')).toHaveLength(steps.length);
  press(/^This one /);
  expect(headings()).toEqual(['Cutting bench']);
});

test('by post: the crimp bench sees its own steps', () => {
  open();
  press(/^All /);
  choose('At which post', 'Crimp bench');
  const rows = screen.getAllByRole('listitem').map(({ textContent }) => textContent!);
  expect(rows.length).toBeGreaterThan(0);
  expect(rows.filter((row) => /^(Cut|Shrink the sleeve|Test)/.test(row))).toEqual([]);
});

test('the order of work is chosen by its school', () => {
  open();
  choose('In which order', 'anchor outwards');
  expect(told.order).toHaveBeenCalledWith('outwards');
});

test('who is where is said; a lane is taken, joined and left; one that works into that of another says so', () => {
  open({ claims: new Map([['end inj1', [claim('Tobin Ashgrove', 4)]]]) });
  press(/^All /);
  expect(screen.getByText('Tobin Ashgrove is here, last seen 6 min ago')).toBeTruthy();
  expect(screen.getByRole('region', { name: 'primary rail to injector 1' }).textContent).toContain(
    'Works into injector 1 (Tobin Ashgrove)',
  );
  press('Join injector 1');
  press('Take injector 2');
  expect(told.take.mock.calls).toEqual([['end inj1'], ['end inj2']]);
  open({ claims: new Map([['end inj2', [claim('Imke Dorsey', 9)]]]) });
  press(/^Mine /);
  expect(headings()).toEqual(['injector 2']);
  press('Leave injector 2');
  expect(told.leave.mock.calls).toEqual([['end inj2']]);
  // nobody stands in one's own way
  press(/^All /);
  expect(screen.getByRole('region', { name: 'primary rail to injector 2' }).textContent).not.toContain('Works into');
});

test('an end, a wire number or a step is found by typing it, the end itself first; enter opens what is left of it', () => {
  open();
  find('injector 1');
  expect(headings()[0]).toBe('injector 1');
  enter();
  expect(told.open.mock.calls[0]![0]).toBe(steps.find(({ endId }) => endId === 'inj1')!.id);
  const wire = 'N-213';
  find(wire);
  const found = screen.getAllByRole('listitem').length;
  expect(found).toBe(
    steps.filter(({ title, items }) => [title, ...items.map(({ words }) => words)].some((one) => one.includes(wire))).length,
  );
  find('no such thing');
  expect(screen.getByText('Nothing is called “no such thing”.')).toBeTruthy();
  enter();
  expect(told.open).toHaveBeenCalledTimes(1);
});

test('the hand-over is asked for from here', () => {
  open();
  press('Hand over');
  expect(told.hand).toHaveBeenCalledTimes(1);
});

test('the code of a card, as a scanner types it, leads to that card', () => {
  open();
  const id = '5ee12000-0000-4000-8000-000000000012';
  find(`http://bench.local/jobs/${id}/floor?release=1&loom=inlet&card=end%20inj1`);
  enter();
  const { jobId, query } = told.scan.mock.calls[0]![0] as { jobId: string; query: URLSearchParams };
  expect([jobId, query.get('loom'), query.get('card')]).toEqual([id, 'inlet', 'end inj1']);
  expect(told.open).not.toHaveBeenCalled();
});

test('the code of a card in a picture leads there; any other picture says what is wrong with it', async () => {
  const id = '5ee12000-0000-4000-8000-000000000012';
  const scan = async (seen: () => Promise<string | null>) => {
    jest.mocked(readCodeIn).mockImplementationOnce(seen);
    await act(async () => void fireEvent.change(screen.getByLabelText('Scan a code'), { target: { files: [new File(['x'], 'a.jpg')] } }));
  };
  open();
  await scan(() => Promise.resolve(null));
  expect(screen.getByRole('status').textContent).toMatch(/^No code is seen in it/);
  await scan(() => Promise.resolve('http://bench.local/elsewhere'));
  expect(screen.getByRole('status').textContent).toBe('That is the code of no card: it says “http://bench.local/elsewhere”.');
  await scan(() => Promise.reject(new Error('no picture')));
  expect(screen.getByRole('status').textContent).toMatch(/^That was no picture/);
  expect(told.scan).not.toHaveBeenCalled();
  await scan(() => Promise.resolve(`http://bench.local/jobs/${id}/floor?loom=inlet&card=end%20inj1`));
  expect(screen.queryByRole('status')).toBeNull();
  expect((told.scan.mock.calls[0]![0] as { query: URLSearchParams }).query.get('card')).toBe('end inj1');
});

test('nothing taken, nothing ready: it says what that means', () => {
  open({ work: listWork(steps, () => true) });
  expect(screen.getByText(/^Nothing can be done now/)).toBeTruthy();
  press(/^Mine /);
  expect(screen.getByText(/^You have taken nothing/)).toBeTruthy();
  expect(within(screen.getByRole('main')).queryAllByRole('listitem')).toEqual([]);
});
