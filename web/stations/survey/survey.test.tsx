import { MantineProvider } from '@mantine/core';
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { useSyncExternalStore, type ReactElement } from 'react';
import {
  recordSurveyEntry,
  CATALOGUE,
  createDemoShop,
  createLoom,
  createOpenItem,
  findStandard,
  listFindings,
  plan,
  applySurveyEntry,
  type Job,
  type SurveyEntry,
} from 'wattograph-core';
import { createInlet, createSkerry } from 'wattograph-core/demo';
import type { NewEntry, SurveyState, SurveyStore } from '../../client/surveyStore';
import { ShopProvider } from '../../client/shopContext';
import { AnchorsTab } from './AnchorsTab';
import { AskTab } from './AskTab';
import { MeasureTab } from './MeasureTab';
import { RunsTab } from './RunsTab';
import { SettleTab } from './SettleTab';

/** A survey without a device: entries are taken at once. */
class FakeSurvey {
  entries: NewEntry[] = [];
  settled: [string, string][] = [];
  private listeners = new Set<() => void>();
  private state: SurveyState;

  constructor(job: Job) {
    this.state = {
      job,
      result: null,
      writing: 0,
      waiting: 0,
      oldestSince: null,
      online: true,
      problem: null,
      photos: [],
      waitingPhotos: [],
      refused: [],
    };
    this.show(job);
  }

  get = () => this.state;
  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  add = (entry: NewEntry): string | null => {
    const whole = { ...entry, id: crypto.randomUUID(), author: 'Jun Okafor', at: '2026-11-25T08:00:00Z' } as SurveyEntry;
    const standard = findStandard(this.state.job, CATALOGUE);
    const taken = applySurveyEntry(this.state.job, whole, CATALOGUE, standard);
    if (taken.kind === 'conflict') return taken.theirs;
    this.entries.push(entry);
    this.show(recordSurveyEntry(this.state.job, whole, CATALOGUE, standard).job);
    return null;
  };

  settle = (id: string, keep: string): Promise<void> => {
    this.settled.push([id, keep]);
    return Promise.resolve();
  };

  private show(job: Job): void {
    const planned = plan(job, CATALOGUE);
    this.state = {
      ...this.state,
      job,
      result: { job, ...planned, findings: listFindings(job, planned, CATALOGUE, null), ms: 1 },
    };
    this.listeners.forEach((listener) => listener());
  }
}

function open(job: Job, part: (store: SurveyStore, state: SurveyState) => ReactElement): FakeSurvey {
  const fake = new FakeSurvey(job);
  const store = fake as unknown as SurveyStore;
  function Show() {
    return part(store, useSyncExternalStore(fake.subscribe, fake.get));
  }
  render(
    <MantineProvider env="test">
      <ShopProvider value={createDemoShop()}>
        <Show />
      </ShopProvider>
    </MantineProvider>,
  );
  return fake;
}
const press = async (name: string | RegExp) => {
  await act(async () => {
    fireEvent.click(screen.getByRole('button', { name }));
    await Promise.resolve();
  });
};
const digits = async (text: string) => {
  for (const digit of text) await press(digit);
};
const empty = () => {
  const job = createInlet();
  job.looms = { main: createLoom('main', 'W') };
  job.devices = Object.fromEntries(Object.entries(job.devices).map(([id, device]) => [id, { ...device, at: null }]));
  return job;
};

describe('measure', () => {
  const measure = (job: Job) =>
    open(job, (store, state) => <MeasureTab store={store} state={state} loomId={Object.keys(job.looms)[0]!} onRun={() => undefined} />);
  test('a distance, what it is, its name: the line goes on from there', async () => {
    const fake = measure(empty());
    await digits('615');
    await press('wet');
    await press('Breakout');
    fireEvent.change(screen.getByLabelText('Name of the breakout'), { target: { value: 'rail' } });
    await press('Keep');
    expect(fake.entries[0]).toMatchObject({
      atMm: 615,
      what: 'breakout',
      name: 'rail',
      ticks: ['wet'],
      method: 'tape',
      viaSegmentId: null,
    });
    expect(screen.getByText('615 rail', { exact: false })).toBeTruthy();
    // the next mark is on the same line, and ticks begin anew
    await digits('820');
    await press('Hole');
    fireEvent.change(screen.getByLabelText('Name of the hole'), { target: { value: 'bracket' } });
    fireEvent.change(screen.getByLabelText('Bore, mm'), { target: { value: '32' } });
    await press('Keep');
    expect(fake.entries[1]).toMatchObject({
      atMm: 820,
      what: 'pass',
      holeMm: 32,
      ticks: [],
      viaSegmentId: (fake.entries[0] as { segmentId: string }).segmentId,
    });
  });
  test('what is typed the moment a mark is kept belongs to the next mark', async () => {
    const fake = measure(empty());
    await digits('615');
    await press('Breakout');
    fireEvent.change(screen.getByLabelText('Name of the breakout'), { target: { value: 'rail' } });
    fireEvent.click(screen.getByRole('button', { name: 'Keep' }));
    for (const key of ['8', '2', '0', 'h']) fireEvent.keyDown(window, { key });
    fireEvent.change(screen.getByLabelText('Name of the hole'), { target: { value: 'bracket' } });
    fireEvent.click(screen.getByRole('button', { name: 'Keep' }));
    const segmentId = (fake.entries[0] as { segmentId: string }).segmentId;
    expect(fake.entries[1]).toMatchObject({ atMm: 820, what: 'pass', viaSegmentId: segmentId });
  });
  test('a device without a place is one tap away, and is not offered twice', async () => {
    const fake = measure(empty());
    await digits('300');
    await press('End');
    await press('throttle');
    expect(fake.entries[0]).toMatchObject({ name: 'throttle', deviceId: 'thr' });
    expect(Object.values(fake.get().job.looms.main!.ends)[0]).toMatchObject({ kind: 'connector', familyId: 'pellow-6' });
    expect(screen.getByText(/It ends there/)).toBeTruthy();
  });
  test('no distance, no mark; a bore that is none is not kept', async () => {
    const fake = measure(empty());
    await press('Hole');
    expect(screen.getByRole('alert').textContent).toBe('Type the distance first.');
    await digits('90');
    await press('Hole');
    fireEvent.change(screen.getByLabelText('Name of the hole'), { target: { value: 'plate' } });
    fireEvent.change(screen.getByLabelText('Bore, mm'), { target: { value: '-3' } });
    expect(screen.getByRole('button', { name: 'Keep' })).toHaveProperty('disabled', true);
    expect(fake.entries).toEqual([]);
  });
  test('a mark beyond the end of the line says where it ends', async () => {
    const fake = measure(createInlet());
    await digits('1300');
    await press('Breakout');
    fireEvent.change(screen.getByLabelText('Name of the breakout'), { target: { value: 'beyond' } });
    await press('Keep');
    expect(screen.getByRole('alert').textContent).toBe('expected a mark before 1117, where the line ends at air temp, got 1300');
    expect(fake.entries).toEqual([]);
  });
});

describe('runs', () => {
  const runs = (job: Job, loomId: string, runId: string | null) =>
    open(job, (store, state) => <RunsTab store={store} state={state} loomId={loomId} runId={runId} onRun={() => undefined} />);
  test('each with its length, spread, status and what is wrong with it', () => {
    runs(createSkerry(), 'engine', null);
    const row = screen.getByRole('button', { name: /^cam cover to water outlet/ });
    expect(row.textContent).toContain('129 ± 4');
    expect(row.textContent).toContain('read 120 and 138');
    expect(row.textContent).toContain('▲ readings disagree');
  });
  test('a guessed run is held, and its reading takes the place of the guess', async () => {
    const fake = runs(createInlet(), 'inlet', 's-knk');
    await digits('171');
    await press('Reading');
    expect(fake.entries[0]).toMatchObject({
      kind: 'reading',
      segmentId: 's-knk',
      lengthMm: 171,
      seen: { lengthMm: 160, secondLengthMm: null },
    });
    expect(fake.get().job.looms.inlet!.segments['s-knk']).toMatchObject({ lengthMm: 171, status: 'roped', method: 'tape' });
  });
  test('nothing typed, nothing entered; ticks go in and out', async () => {
    const fake = runs(createInlet(), 'inlet', 't3');
    expect(screen.getByRole('button', { name: 'Fitted' })).toHaveProperty('disabled', true);
    await press('hot');
    await press('hot');
    expect(fake.entries).toEqual([
      { kind: 'ticks', loomId: 'inlet', segmentId: 't3', ticks: ['hot'], seen: [] },
      { kind: 'ticks', loomId: 'inlet', segmentId: 't3', ticks: [], seen: ['hot'] },
    ]);
  });
  test('a branch leaves by a side of the clock, pressed again it is not known; the trunk and what begins at the datum have no side', async () => {
    const fake = runs(createInlet(), 'inlet', 's-inj1');
    await press('3 o’clock');
    expect(screen.getByText(/^Leaves the bundle at 3 o’clock/)).toBeTruthy();
    await press('3 o’clock');
    expect(fake.entries).toEqual([
      { kind: 'side', loomId: 'inlet', segmentId: 's-inj1', leavesDeg: 90, seen: null },
      { kind: 'side', loomId: 'inlet', segmentId: 's-inj1', leavesDeg: null, seen: 90 },
    ]);
    runs(createInlet(), 'inlet', 't1');
    expect(screen.getAllByRole('group', { name: 'Leaves at' })).toHaveLength(1);
  });
  test('with fitted runs the trim sheet says what comes off, and what still waits', async () => {
    const job = createInlet();
    for (const id of ['t2', 's-inj1'])
      Object.assign(job.looms.inlet!.segments[id]!, { status: 'fitted', fittedMm: job.looms.inlet!.segments[id]!.lengthMm - 4 });
    runs(job, 'inlet', null);
    const trims = screen.getByRole('region', { name: 'Trim sheet' });
    expect(within(trims).getAllByText(/^take off \d+ mm$/).length).toBeGreaterThan(0);
    expect(trims.textContent).toContain('N-209 not final: throttle body, throttle not fitted');
  });
});

describe('anchors, questions and what is to be settled', () => {
  test('the datum is named while it is not clamped, then clamped', async () => {
    const job = createInlet();
    job.looms.inlet!.clampedBy = null;
    const fake = open(job, (store, state) => <AnchorsTab store={store} job={state.job} loomId="inlet" />);
    await act(async () => {
      fireEvent.click(within(screen.getByRole('group', { name: 'The datum is at' })).getByRole('button', { name: 'main plug' }));
      await Promise.resolve();
    });
    await press('Datum is clamped');
    expect(fake.entries).toEqual([
      { kind: 'datum', loomId: 'inlet', name: 'main plug', seen: 'firewall bulkhead' },
      { kind: 'clamp', loomId: 'inlet', clamped: true, seen: false },
    ]);
    expect(screen.queryByRole('group', { name: 'The datum is at' })).toBeNull();
  });
  test('an anchor is fixed with its place in words', async () => {
    const job = createInlet();
    job.anchors.battery = { name: 'battery', place: '', nodes: [], state: 'open', by: '' };
    const fake = open(job, (store, state) => <AnchorsTab store={store} job={state.job} loomId="inlet" />);
    const battery = screen.getByRole('region', { name: 'battery' });
    fireEvent.change(within(battery).getByLabelText('Where the battery is'), { target: { value: 'behind the seat' } });
    await act(async () => {
      fireEvent.click(within(battery).getByRole('button', { name: 'Fixed' }));
      await Promise.resolve();
    });
    expect(fake.get().job.anchors.battery).toEqual({
      name: 'battery',
      place: 'behind the seat',
      nodes: [],
      state: 'fixed',
      by: 'Jun Okafor',
    });
  });
  test('a question is answered with how it is known, and a new one is noted', async () => {
    const job = createInlet();
    job.openItems.q = createOpenItem('which way', { blocks: [{ loomId: 'inlet', kind: 'end', id: 'thr' }] });
    const fake = open(job, (store, state) => <AskTab store={store} job={state.job} loomId="inlet" />);
    expect(screen.getByText('⬣ wires wait for this')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'measured' })).toHaveProperty('disabled', true);
    fireEvent.change(screen.getByLabelText('Answer: which way'), { target: { value: 'left' } });
    await press('measured');
    expect(fake.get().job.openItems.q).toMatchObject({ answer: 'left', evidence: 'measured' });
    expect(screen.getByText('Every question is answered')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('A new question'), { target: { value: 'how far' } });
    await press('Note it');
    expect(Object.values(fake.get().job.openItems).map(({ question }) => question)).toEqual(['which way', 'how far']);
  });
  test('both sides of a conflict are shown; one that cannot go on top can only be set aside', async () => {
    const job = createInlet();
    const entry = {
      kind: 'clamp',
      clamped: true,
      seen: false,
      id: 'a'.repeat(36),
      loomId: 'inlet',
      author: 'Saoirse Vell',
      at: '2026-11-25T08:00:00Z',
    } as SurveyEntry;
    job.surveyConflicts = {
      one: { entry, mine: '300 end lamp', theirs: 'a lamp stands there', canForce: true },
      two: { entry, mine: '400 end pump', theirs: 'the line is no longer there', canForce: false },
    };
    const fake = open(job, (store, state) => <SettleTab store={store} job={state.job} />);
    const one = screen.getByRole('region', { name: '300 end lamp' });
    expect(one.textContent).toContain('Saoirse Vell entered');
    fireEvent.click(within(one).getByRole('button', { name: 'This counts' }));
    const two = screen.getByRole('region', { name: '400 end pump' });
    expect(within(two).getByRole('button', { name: 'Cannot be put on top' })).toHaveProperty('disabled', true);
    fireEvent.click(within(two).getByRole('button', { name: 'Set it aside' }));
    expect(fake.settled).toEqual([
      ['one', 'mine'],
      ['two', 'theirs'],
    ]);
  });
});
