import { fireEvent, screen, within } from '@testing-library/react';
import { CATALOGUE, checkJob, createLookup, type Job } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { choose, type, write } from '../../testing/act';
import { FakeStore, renderWith } from '../../testing/fakeStore';
import { TemplateDialog } from './TemplateDialog';

const open = (job: Job, from: string) => {
  const store = new FakeStore(job);
  renderWith(store, <TemplateDialog job={job} onClose={() => undefined} />);
  const field = screen.getAllByLabelText('Begin from').find((one) => one.tagName === 'INPUT')!;
  fireEvent.click(field);
  fireEvent.change(field, { target: { value: from } });
  fireEvent.click(screen.getByText(from, { selector: '[role=option] *, [role=option]' }));
  return store;
};
const keep = () => fireEvent.click(screen.getByRole('button', { name: 'Keep template' }));
const made = (store: FakeStore) => Object.values(store.job.deviceTemplates)[0]!;

describe('a box of her own', () => {
  test('begun from a fuse box it keeps what that gives and its fuses, and may have another', () => {
    const store = open(createInlet(), 'fuse box, eight ways');
    const { offers, links, note } = CATALOGUE.devices['fuse-box']!;
    fireEvent.click(screen.getByRole('button', { name: 'another pin that gives' }));
    fireEvent.click(screen.getByRole('button', { name: 'another fuse, relay, switch or channel' }));
    choose('Load side of link 9', '10');
    write('Most amperes of link 9', '15');
    keep();
    expect(made(store)).toMatchObject({ name: 'fuse box, eight ways, own', offers, links, note });
    expect(made(store).offers['10']).toMatchObject({ can: ['feed'], volts: 12 });
    expect(made(store).links.l1).toEqual({
      name: 'fuse 9',
      kind: 'fuse',
      a: { part: null, cavity: '1' },
      b: { part: null, cavity: '10' },
      maxA: 15,
      peakA: null,
      coil: null,
      closedIn: [],
    });
    expect(checkJob(store.job, createLookup(CATALOGUE)).ok).toBe(true);
  });
  test('what can hurt as it is worked comes with what it was begun from, and is chosen', () => {
    const store = open(createInlet(), 'radiator fan');
    expect(screen.getAllByLabelText('What can hurt as it is worked').map((one) => (one as HTMLInputElement).value)).toContain('its blades');
    choose('What can hurt as it is worked', 'what it holds under pressure');
    keep();
    expect(made(store)).toMatchObject({ name: 'radiator fan, own', hazard: 'pressure' });
  });
  test('a relay says which pins its coil has; any other kind has none', () => {
    const store = open(createInlet(), 'fuse box, eight ways');
    choose('Kind of link 1', 'relay');
    choose('Coil feed of link 1', '1');
    choose('Coil switch of link 1', '3');
    choose('Kind of link 2', 'relay');
    choose('Coil switch of link 2', '4');
    choose('Kind of link 2', 'switch');
    write('Positions in which link 2 is closed', 'on, start,on');
    keep();
    expect(made(store).links.f1).toMatchObject({ kind: 'relay', coil: { feed: '1', switch: '3' } });
    expect(made(store).links.f2).toMatchObject({ kind: 'switch', coil: null, closedIn: ['on', 'start'] });
  });
  test('what a pin can do is chosen and taken back', () => {
    const store = open(createInlet(), 'fuse box, eight ways');
    choose('What offer 1 can do', 'high-side');
    choose('What offer 1 can do', 'not feed');
    write('PWM of offer 1', '0.2 kHz');
    write('Group of offer 1', 'left bank');
    choose('Partner of offer 1', '3');
    choose('Lead of offer 1', 'red/blue');
    fireEvent.click(screen.getByLabelText('Offer 1 takes the kick of a coil'));
    keep();
    expect(made(store).offers['2']).toMatchObject({
      can: ['high-side'],
      pwmHz: 200,
      group: 'left bank',
      pairWith: '3',
      lead: 'red/blue',
      suppressed: true,
    });
  });
  test.each([
    ['a pin that stands twice', 'Pin of offer 1', '3', 'pin 3 stands twice'],
    ['no name', 'Name of offer 1', ' ', 'pin 2: expected a name'],
    ['a limit of nothing', 'Limit of offer 1', '0', 'pin 2: expected numbers for V, limit and PWM, the limit above 0'],
    ['a link without a name', 'Name of link 1', '', 'link 1: expected a name'],
  ])('%s is said, and nothing is kept', (_, label, value, words) => {
    const store = open(createInlet(), 'fuse box, eight ways');
    write(label, value);
    expect(screen.getAllByRole('alert').map((one) => one.textContent)).toContain(words);
    expect(screen.getByRole('button', { name: 'Keep template' })).toHaveProperty('disabled', true);
    expect(store.labels).toEqual([]);
  });
  test('a fuse from a pin to itself is said, and nothing is kept', () => {
    open(createInlet(), 'fuse box, eight ways');
    choose('Load side of link 1', '1');
    expect(screen.getByRole('alert').textContent).toBe('fuse 1: expected two different pins');
    expect(screen.getByRole('button', { name: 'Keep template' })).toHaveProperty('disabled', true);
  });
  test('what is no figure is said at its field and not kept', () => {
    const store = open(createInlet(), 'fuse box, eight ways');
    const field = () => screen.getByLabelText<HTMLInputElement>('Most amperes of link 1');
    const was = field().value;
    type('Most amperes of link 1', 'lots');
    expect([field().getAttribute('aria-invalid'), field().title]).toEqual(['true', 'expected 0 to 1000 A']);
    fireEvent.blur(field());
    expect(field().value).toBe(was);
    keep();
    expect(made(store).links.f1!.maxA).toBe(Number(was));
  });
  test('a pin that is taken out leaves its fuse without one, which is said', () => {
    open(createInlet(), 'fuse box, eight ways');
    fireEvent.click(within(screen.getByRole('table', { name: 'What its pins give' })).getByRole('button', { name: 'Take offer 1 out' }));
    expect(screen.getByRole('alert').textContent).toBe('fuse 1: expected pins that it has on both sides and at its coil');
    fireEvent.click(screen.getByRole('button', { name: 'Take link 1 out' }));
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
