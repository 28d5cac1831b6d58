import { MantineProvider } from '@mantine/core';
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { createCommand, CATALOGUE, listFindings, plan, type Finding, type Job, type PlannedWire } from 'wattograph-core';
import { createInlet } from 'wattograph-core/demo';
import { useFindings, type PlannedLoom } from '../../client/jobContext';
import { press } from '../../testing/act';
import { openLoom } from '../../testing/fakeStore';
import { askReason } from '../../ui/fields/askReason';
import { useCursor } from '../../ui/cursor';
import { Changes } from './Changes';
import { FindingsList } from './FindingsList';
import { WhyCut, WiresTable } from './WiresTable';

// the dialog that asks is a part of the page around; what it is asked, and what becomes of the answer, is tested here
jest.mock('../../ui/fields/askReason', () => ({ askReason: jest.fn() }));
const asked = jest.mocked(askReason);
const answer = (reason: string) => act(() => asked.mock.calls.at(-1)![1](reason));
beforeEach(() => asked.mockClear());

describe('findings', () => {
  function List({ planned }: { planned: PlannedLoom }) {
    const at = useCursor((cursor) => cursor);
    return (
      <>
        <output>{at ? `${at.segmentId} ${Math.round(at.offsetMm)}` : 'nowhere'}</output>
        <FindingsList planned={planned} findings={useFindings()} />
      </>
    );
  }
  const findings = (change?: (job: Job) => void) => openLoom((planned) => <List planned={planned} />, change);
  const row = (words: RegExp) => within(screen.getByText(words).closest('tr')!);
  test('a fix mends what it says and its line goes', () => {
    const store = findings();
    const before = screen.getAllByRole('row').length;
    fireEvent.click(row(/charge pressure has no ground/).getByRole('button', { name: /^Join cavity 2/ }));
    expect(store.job.looms.inlet!.circuits.c216!.terminations).toContainEqual({ endId: 'chg', cavity: '2' });
    expect(screen.queryByText(/charge pressure has no ground/)).toBeNull();
    expect(screen.getAllByRole('row').length).toBeLessThan(before);
  });
  test('one may stand with a reason that is shown, until it is taken back', () => {
    const store = findings();
    fireEvent.click(row(/charge pressure has no ground/).getByRole('button', { name: 'accept as it is …' }));
    expect(asked.mock.calls[0]![0]).toMatch(/^Why may this stand\? charge pressure/);
    answer('grounded through its bracket');
    expect(Object.values(store.job.accepted)).toContainEqual(expect.objectContaining({ reason: 'grounded through its bracket' }));
    expect(screen.getByText(/Stands: grounded through its bracket/)).toBeTruthy();
    fireEvent.click(row(/charge pressure has no ground/).getByRole('button', { name: 'take back' }));
    expect(screen.queryByText(/Stands:/)).toBeNull();
  });
  test('show puts the cursor where the matter is: at a splice, in a run, at an end', () => {
    findings();
    const seen = new Set<string>();
    for (const button of screen.getAllByRole('button', { name: 'show' })) {
      fireEvent.click(button);
      seen.add(screen.getByRole('status').textContent!);
    }
    // the middle of a run that is guessed, an end, a splice
    expect([...seen]).toEqual(['s-knk 80', 's-chg 100', 's-inj5 83', 't3 187', 's-inj1 130']);
  });
  test('a note needs no acceptance, and no findings are said to be none', () => {
    const note: Finding = { ...listFindings(createInlet(), plan(createInlet(), CATALOGUE), CATALOGUE, null)[0]!, grade: 'note' };
    openLoom((planned) => <FindingsList planned={planned} findings={[note]} />);
    expect(within(screen.getByText(/● note/).closest('tr')!).queryByRole('button', { name: 'accept as it is …' })).toBeNull();
    openLoom((planned) => <FindingsList planned={planned} findings={[]} />);
    expect(screen.getByText('No findings: every rule that applies is kept.')).toBeTruthy();
  });
});

describe('what the last change did', () => {
  const changes = (recipe: (job: Job) => void) => {
    const store = openLoom((planned) => <Changes planned={planned} />);
    expect(screen.getByText(/^Drag a breakout/)).toBeTruthy();
    act(() => store.edit(createCommand('change', recipe)));
    return document.querySelector('p.changes')!.textContent;
  };
  test('a longer leg: its lengths from and to, and the mass', () => {
    const words = changes((job) => {
      job.looms.inlet!.segments['s-inj1']!.lengthMm = 230;
    });
    expect(words).toContain('2 cut lengths N-201D 230 → 330, N-203 460 → 560');
    expect(words).toMatch(/\+\d+\.\d g$/);
  });
  test('a wire that is gone says so, and the mass goes down', () => {
    const words = changes((job) => {
      delete job.looms.inlet!.circuits.c221;
    });
    expect(words).toContain('→ gone');
    expect(words).toMatch(/−\d+\.\d g$/);
  });
  test('a change that alters nothing says that', () => {
    expect(
      changes((job) => {
        job.looms.inlet!.circuits.c221!.name = 'air';
      }),
    ).toBe('The last change altered no cut length, diameter, sleeve or mass.');
  });
});

describe('wires', () => {
  test('a cut length is the sum of its terms to the increment, each with its words', () => {
    const { wires } = plan(createInlet(), CATALOGUE).looms[0]!;
    const wire: PlannedWire = wires.find(({ addends }) => addends.some(({ kind }) => kind === 'splice'))!;
    render(<WhyCut wire={wire} />, { wrapper: ({ children }) => <MantineProvider env="test">{children}</MantineProvider> });
    const rows = screen.getAllByRole('row').map((row) =>
      within(row)
        .getAllByRole('cell')
        .map(({ textContent }) => textContent),
    );
    const terms = rows.slice(0, -1).map(([mm]) => Number(mm));
    expect(rows.slice(0, -1).map(([, words]) => words)).toEqual(wire.addends.map(({ words }) => words));
    expect(Math.abs(terms.reduce((sum, mm) => sum + mm, 0) - wire.cutMm)).toBeLessThan(0.05 * terms.length + 0.001);
    expect(rows.at(-1)).toEqual([String(wire.cutMm), `to cut; ± ${wire.sigmaMm.toFixed(0)} mm on the path, so rough cut ${wire.roughMm}`]);
    expect(wire.cutMm % 5).toBe(0);
  });
  test('the first list is of the run where the cursor will stand, and all are one button away; a loom without wires says where they come from', () => {
    openLoom((planned) => <WiresTable planned={planned} />);
    const { wires, bundles } = plan(createInlet(), CATALOGUE).looms[0]!;
    const first = bundles.find(({ segmentId }) => segmentId === 't1')!.sections;
    const here = first.find(({ toMm }) => toMm >= 30)!.elements.flat().length;
    expect(here).toBeLessThan(wires.length);
    press(`${here} under the cursor, show all ${wires.length}`);
    expect(screen.getByRole('button', { name: `all ${wires.length}, show those under the cursor` })).toBeTruthy();
    openLoom(
      (planned) => <WiresTable planned={planned} />,
      (job) => {
        job.looms.inlet!.circuits = {};
        job.accepted = {};
      },
    );
    expect(screen.getByRole('link', { name: 'Add circuits' }).getAttribute('href')).toBe('bundle?loom=inlet&tab=circuits');
  });
});
