import { fireEvent, screen, within } from '@testing-library/react';
import { CATALOGUE, checkJob, countJunction, createLookup, listEndsBeyond, plan } from 'wattograph-core';
import { createCleanSkerry } from 'wattograph-core/demo';
import { choose, press, write } from '../../testing/act';
import { FakeStore, renderWith } from '../../testing/fakeStore';
import { BreaksPanel } from './BreaksPanel';
import { useJob } from '../../client/jobContext';

function Panel() {
  const result = useJob((state) => state.result);
  return result && <BreaksPanel planned={result} loomId="inlet" />;
}
const open = () => {
  const store = new FakeStore(createCleanSkerry());
  renderWith(store, <Panel />);
  press('Gather tails at a connector …');
  return store;
};
const contacts = () => screen.getByTestId('contacts').textContent;

test('it begins with the loom that is open; another has breakouts of its own', () => {
  open();
  const at = () => screen.getByLabelText<HTMLInputElement>('At', { selector: 'input' }).value;
  expect(at()).toMatch(/^primary rail, \d+ mm, \d+ ends beyond$/);
  choose('Loom', 'engine');
  expect(at()).not.toMatch(/^primary rail/);
});

test('contacts are counted one by one and shared, for what is ticked', () => {
  const { job } = open();
  choose('At', screen.getByLabelText<HTMLInputElement>('At', { selector: 'input' }).value);
  const loomPlan = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'inlet')!;
  const loom = job.looms.inlet!;
  const place = loomPlan.tree.nodeIds.find((id) => loom.nodes[id]!.kind === 'breakout')!;
  const leaving = loomPlan.tree.nodes[place]!.childSegmentIds.filter((id) => !loomPlan.tree.segments[id]!.onward);
  const count = countJunction(loom, listEndsBeyond(loom, loomPlan.tree, leaving), 0.1);
  expect(contacts()).toContain(`${count.unshared} contacts if every wire came through by itself`);
  expect(contacts()).toContain(`= ${count.shared}, and ${count.spares} to spare: ${count.shared + count.spares}.`);
  // the trunk goes along too: more crosses
  fireEvent.click(within(screen.getByRole('group', { name: 'What is gathered' })).getByRole('checkbox', { name: /the trunk itself/ }));
  expect(contacts()).not.toContain(`${count.unshared} contacts`);
});

test('tails are gathered: a loom of their own, mated, in one step that can be undone', () => {
  const store = open();
  write('Name of the connector', 'rail junction');
  press('Gather them');
  expect(checkJob(store.job, createLookup(CATALOGUE))).toMatchObject({ ok: true });
  expect(Object.values(store.job.looms).map(({ name }) => name)).toContain('rail junction tails');
  expect(store.labels).toEqual(['gather 3 tails at rail junction']);
  expect(screen.queryByRole('dialog')).toBeNull();
});

test('a stub longer than a tail is refused with its name, and nothing is changed', () => {
  const store = open();
  const before = store.job;
  write('From the breakout, mm', '400');
  press('Gather them');
  expect(screen.getByText(/^expected tails longer than the stub of 400 mm, got \d+ mm to injector/)).toBeTruthy();
  expect(store.job).toBe(before);
});

test('whether it pays is said when one knows how often it comes off', () => {
  open();
  write('Taken off together, times a year', '20');
  expect(screen.getByTestId('worth').textContent).toMatch(
    /^2 couplings less each time at (0\.7|1\.2) min: \d+ min and \d+\.\d\d EUR a year\. Both halves with their contacts, seals and plugs cost \d+\.\d\d EUR: it does not pay/,
  );
});
