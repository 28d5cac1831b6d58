import { act, fireEvent, screen } from '@testing-library/react';
import { CATALOGUE, checkJob, createLookup } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { choose, press, type } from '../../testing/act';
import { FakeStore, renderWith } from '../../testing/fakeStore';
import { ImportWireList } from './ImportWireList';

const done = jest.fn();
const LIST = `from,from pin,to,to pin,signal,colour
main plug,1,lamp left,1,lamp feed,red
main plug,2,lamp left,2,lamp ground,black
main plug,1,lamp right,1,lamp feed,red
`;
const open = () => {
  done.mockClear();
  const job = createInlet();
  const store = new FakeStore(job);
  renderWith(store, <ImportWireList job={job} onClose={() => undefined} onDone={done} />);
  return store;
};
const give = async (name: string, text: string) => {
  const input = document.querySelector<HTMLInputElement>('input[type=file]')!;
  const file = new File([text], name, { type: 'text/csv' });
  Object.assign(file, { text: () => Promise.resolve(text) });
  await act(async () => {
    fireEvent.change(input, { target: { files: [file] } });
    await Promise.resolve();
  });
  await screen.findByText(/rows?, fields parted by|was not read/);
};
const isDisabled = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Make the loom' }).disabled;

test('columns are guessed by their names; rows that share a cavity are joined on demand; then it is a loom', async () => {
  const store = open();
  await give('rear lamps.csv', LIST);
  expect(screen.getByText('rear lamps.csv: 3 rows, fields parted by “,”')).toBeTruthy();
  expect(screen.getByLabelText('Name of the loom')).toHaveProperty('value', 'rear lamps');
  // two wires in one cavity: refused with its place until she says that they are spliced
  expect(screen.getByText('This cannot become a loom yet; nothing was stored')).toBeTruthy();
  expect(isDisabled()).toBe(true);
  fireEvent.click(screen.getByLabelText('Join rows that share a cavity into one spliced circuit'));
  expect(screen.getByText(/^It makes 3 ends and 2 circuits\./)).toBeTruthy();
  type('First letters of its wire numbers', 'n');
  expect(screen.getByText('another loom has these letters')).toBeTruthy();
  expect(isDisabled()).toBe(true);
  type('First letters of its wire numbers', 'rl');
  press('Make the loom');
  const [id] = done.mock.calls[0] as [string];
  const loom = store.job.looms[id]!;
  expect([loom.name, loom.prefix]).toEqual(['rear lamps', 'RL']);
  expect(Object.values(loom.circuits).map(({ name, terminations }) => [name, terminations.length])).toEqual([
    ['lamp feed', 3],
    ['lamp ground', 2],
  ]);
  expect(new Set(Object.values(loom.segments).map(({ status }) => status))).toEqual(new Set(['guessed']));
  expect(store.labels).toEqual(['import loom rear lamps']);
  expect(checkJob(store.job, createLookup(CATALOGUE))).toMatchObject({ ok: true });
});

test('sizes of a list are those of the wire it is made of', async () => {
  const store = open();
  await give('rear.csv', 'from,from pin,to,to pin,size\nmain plug,1,lamp,1,0.75 mm²\n');
  expect(screen.getByText(/expected one of AWG 26, .*got "0.75 mm²"/)).toBeTruthy();
  choose('Wire', 'thin-wall, mm², 125 °C');
  expect(screen.getByText(/^It makes 2 ends and 1 circuit\./)).toBeTruthy();
  type('First letters of its wire numbers', 'r');
  press('Make the loom');
  const loom = store.job.looms[(done.mock.calls[0] as [string])[0]]!;
  expect(Object.values(loom.circuits).map(({ wireTable, sizePin }) => [wireTable, sizePin?.size])).toEqual([['thinwall', '0.75']]);
  expect(checkJob(store.job, createLookup(CATALOGUE))).toMatchObject({ ok: true });
});

test('housings are offered by the cavities they have; what is left open is an end without one', async () => {
  const store = open();
  await give('relay.csv', 'from,from pin,to,to pin\nECU,1,relay,85\nECU,2,relay,86\nECU,3,plug,A\nECU,4,plug,B\n');
  const housing = (name: string) => screen.getByRole<HTMLInputElement>('combobox', { name: `Housing of ${name}` });
  expect(housing('relay').placeholder).toBe('none of the shop has these; later');
  expect(housing('plug').placeholder).toBe('to be chosen later');
  expect(screen.getByText(/3 ends without a housing: each is a stop finding/)).toBeTruthy();
  choose('Housing of plug', 'Hollin 10, mixed');
  press('The smallest that has the cavities, for all');
  expect(housing('ECU').value).toBe('Pellow 4');
  expect(housing('plug').value).toBe('Hollin 10, mixed');
  expect(screen.getByText(/One end without a housing/)).toBeTruthy();
  type('First letters of its wire numbers', 'q');
  press('Make the loom');
  const loom = store.job.looms[(done.mock.calls[0] as [string])[0]]!;
  expect(Object.fromEntries(Object.values(loom.ends).map(({ name, kind, familyId }) => [name, [kind, familyId]]))).toEqual({
    ECU: ['connector', 'pellow-4'],
    relay: ['connector', null],
    plug: ['connector', 'hollin-10m'],
  });
  expect(checkJob(store.job, createLookup(CATALOGUE))).toMatchObject({ ok: true });
});

test('a column that no name gives away is chosen by hand', async () => {
  open();
  await give('odd.csv', 'A,B,C,D\nplug,1,lamp,1\n');
  expect(screen.queryByText(/^It makes/)).toBeNull();
  for (const [label, column] of [
    ['From end', 'A'],
    ['From cavity', 'B'],
    ['To end', 'C'],
    ['To cavity', 'D'],
  ] as const)
    choose(`Column of ${label}`, column);
  expect(screen.getByText(/^It makes 2 ends and 1 circuit\b/)).toBeTruthy();
  type('First letters of its wire numbers', '7');
  expect(isDisabled()).toBe(true);
});

test('a file that is no table says where', async () => {
  const store = open();
  await give('bad.csv', 'from,from pin,to,to pin\nplug,1,lamp\n');
  expect(screen.getByText('bad.csv was not read; nothing was stored')).toBeTruthy();
  expect(screen.getByText(/expected 4 .*got 3/)).toBeTruthy();
  expect([store.labels, isDisabled()]).toEqual([[], true]);
});
