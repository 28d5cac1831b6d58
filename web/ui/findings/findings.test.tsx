import { act, fireEvent, screen, within } from '@testing-library/react';
import { createInlet } from 'wattograph-core/demo';
import { useFindings } from '../../client/jobContext';
import { press } from '../../testing/act';
import { FakeStore, renderWith } from '../../testing/fakeStore';
import { askReason } from '../fields/askReason';
import { FindingLines } from './FindingLine';

jest.mock('../fields/askReason', () => ({ askReason: jest.fn() }));

const Show = () => <FindingLines findings={useFindings()} />;
const open = () => {
  const store = new FakeStore(createInlet());
  renderWith(store, <Show />);
  return store;
};
const lines = () => [...document.querySelectorAll('p.line')].map(({ textContent }) => textContent!.slice(0, 9));

test('two stand there, the rest comes on demand and goes again; notes only then', () => {
  const store = open();
  const all = store.get().result!.findings;
  const notes = all.filter(({ grade }) => grade === 'note').length;
  const standing = all.filter(({ grade }) => grade !== 'note');
  expect(lines()).toEqual(standing.slice(0, 2).map(({ grade, code }) => `${grade} ${code} `.slice(0, 9)));
  press([`${standing.length - 2} more findings`, ...(notes ? [`${notes} note${notes === 1 ? '' : 's'}`] : [])].join(', '));
  expect(lines()).toHaveLength(all.length);
  press('fewer');
  expect(lines()).toHaveLength(2);
});

test('one that may stand says why, loses its fix and goes behind what is open; taken back it is as before', () => {
  const store = open();
  const [first, second] = store.get().result!.findings;
  const line = (words: string) => within(screen.getByText(words, { exact: false, selector: 'p' }));
  fireEvent.click(line(second!.sentence).getByRole('button', { name: 'accept as it is …' }));
  expect(jest.mocked(askReason).mock.calls.at(-1)![0]).toBe(`Why may this stand? ${second!.sentence}`);
  act(() => jest.mocked(askReason).mock.calls.at(-1)![1]('its bracket grounds it'));
  press(/more finding/);
  expect(lines()[0]).toBe(`${first!.grade} ${first!.code} `.slice(0, 9));
  expect(document.querySelector('p.line:last-of-type')!.textContent).toContain(`${second!.sentence} Stands: its bracket grounds it (`);
  expect(line(second!.sentence).queryByRole('button', { name: second!.fix!.label })).toBeNull();
  press('take back');
  expect(line(second!.sentence).getByRole('button', { name: second!.fix!.label })).toBeTruthy();
  expect(store.job.accepted).toEqual({});
});

test('a fix is one edit under its own name', () => {
  const store = open();
  const fixable = store.get().result!.findings.find(({ fix }) => fix)!;
  press(fixable.fix!.label);
  expect(store.labels).toEqual([fixable.fix!.label]);
  expect(store.get().result!.findings.map(({ key }) => key)).not.toContain(fixable.key);
});
