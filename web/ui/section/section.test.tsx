import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import { createDemoStart, createJob, createLoom, type Job } from 'wattograph-core';

import { createInlet, createSkerry } from 'wattograph-core/demo';
import type { PlannedLoom } from '../../client/jobContext';
import { type } from '../../testing/act';
import { openLoom } from '../../testing/fakeStore';
import { useCursorStore, useLit } from '../cursor';
import { SectionPanel } from './SectionPanel';

/** The section with a field to put the cursor: "segment offset". */
function Show({ planned }: { planned: PlannedLoom }) {
  const cursor = useCursorStore();
  const go = (text: string) => {
    const [segmentId, offsetMm] = text.split(' ');
    cursor.set({ segmentId: segmentId!, offsetMm: Number(offsetMm) });
  };
  return (
    <>
      <input aria-label="cursor" onChange={(event) => go(event.target.value)} />
      <output data-testid="lit">{useLit()}</output>
      <SectionPanel planned={planned} />
    </>
  );
}
const open = (job: Job, loomId = Object.keys(job.looms)[0]!) => {
  const store = openLoom((planned) => <Show planned={planned} />, undefined, { job, loomId });
  const plan = store.get().result!.looms.find((one) => one.loomId === loomId)!;
  const cut = (segmentId: string, offsetMm = 1) => type('cursor', `${segmentId} ${offsetMm}`);
  return { plan, cut };
};
const figure = (name: string) => screen.getByText(name).closest('tr')!.lastElementChild!;
const why = (name: string) => {
  fireEvent.click(figure(name).firstElementChild!);
  return document.body.textContent;
};

test('before the cursor has been anywhere the first run is cut in its middle; a loom without runs says what to do', () => {
  const job = createInlet();
  const { plan } = open(job);
  const { segments, nodes, datumId } = plan.tree;
  const first = segments[nodes[datumId]!.childSegmentIds[0]!]!;
  expect(screen.getByTestId('section-at').textContent).toBe(String(Math.round(first.startMm + first.lengthMm / 2)));
  cleanup();
  const empty = createJob('made up', 'nobody', 'larkhollow', createDemoStart());
  empty.looms = { first: createLoom('first', 'W') };
  open(empty);
  expect(screen.getByText('Move the cursor along the strip to cut the loom there.')).toBeTruthy();
});

test('the cut shows every wire that lies there, with its number in the key, and what leaves next', () => {
  const { plan, cut } = open(createInlet());
  const bundle = plan.bundles.find(({ segmentId }) => segmentId === 's-map')!;
  cut('s-map');
  const ids = bundle.sections[0]!.elements.flat();
  expect(screen.getByText(`${ids.length} wires`)).toBeTruthy();
  expect(
    screen.getByRole('img', { name: `Bundle of ${bundle.sections[0]!.elements.length} elements, ${bundle.odMm.toFixed(1)} mm` }),
  ).toBeTruthy();
  for (const id of ids) {
    const { number } = plan.wires.find((wire) => wire.id === id)!;
    expect(screen.getAllByText(number).length).toBeGreaterThan(0);
  }
  expect(figure('Leaves next').textContent).toBe('all at manifold pressure');
  expect(figure('Over the wires').textContent).toBe(`${bundle.odMm.toFixed(1)} mm`);
  expect(figure('Wire mass').textContent).toBe(`${bundle.massGPerM.toFixed(0)} g/m`);
});

test('where the cursor crosses a splice the section is another one', () => {
  const { plan, cut } = open(createInlet());
  const bundle = plan.bundles.find(
    ({ sections }) => sections.length > 1 && new Set(sections.map(({ elements }) => elements.flat().length)).size > 1,
  )!;
  const counts = bundle.sections.map(({ toMm }) => {
    cut(bundle.segmentId, toMm - 0.5);
    return Number(/^(\d+) wires$/.exec(screen.getByText(/^\d+ wires$/).textContent)![1]);
  });
  expect(counts).toEqual(bundle.sections.map(({ elements }) => elements.flat().length));
});

test('how far along is counted from the datum', () => {
  const { plan, cut } = open(createInlet());
  cut('s-map', 20);
  expect(screen.getByTestId('section-at').textContent).toBe(String(Math.round(plan.tree.segments['s-map']!.startMm + 20)));
});

test('the heat says in which mode it is hottest, and how many watts a metre', async () => {
  const { plan, cut } = open(createSkerry(), 'chassis');
  const heat = plan.heats
    .filter(({ modeId, middleC }) => modeId !== null && middleC !== null)
    .sort((a, b) => b.middleC! - b.ambientC - (a.middleC! - a.ambientC))[0]!;
  cut(heat.segmentId);
  expect(figure('Hottest, in the middle').textContent).toBe(`${heat.middleC!.toFixed(0)} °C of ${heat.limitC}`);
  const words = why('Hottest, in the middle');
  expect(words).toContain(`In “${createSkerry().modes[heat.modeId!]!.name}”, when it is hottest`);
  expect(words).toContain(`${heat.wattsPerM!.toFixed(2)} W/m`);
});

test('a run in no zone has no ambient, and says where to give one', () => {
  const job = createInlet();
  job.looms.inlet!.segments['s-map']!.zoneId = null;
  const { cut } = open(job);
  cut('s-map');
  expect(figure('Hottest').textContent).toBe('ambient not known');
});

test('a pair lies in a ring of its own, and a sleeve round the bundle', () => {
  const { plan, cut } = open(createInlet());
  const { segmentId, sections } = plan.bundles.find(({ sections: all }) => all[0]!.elements.some((ids) => ids.length === 2))!;
  cut(segmentId);
  const picture = screen.getByRole('img');
  const pairs = sections[0]!.elements.filter((ids) => ids.length === 2).length;
  const dashed = [...picture.querySelectorAll('circle[stroke-dasharray]')].filter((one) => one.getAttribute('stroke') === 'var(--ink-2)');
  expect(dashed.length).toBeGreaterThanOrEqual(pairs);
  // each wire of a pair is drawn as well
  expect(within(picture).getAllByText(/^\d+$/)).toHaveLength(sections[0]!.elements.flat().length);
});

test('of many wires none has a number in the picture; all stand in the key, grouped by where they leave; pointing works both ways', () => {
  const { plan, cut } = open(createSkerry(), 'chassis');
  const { segmentId, sections } = plan.bundles.find(({ sections: all }) => all[0]!.elements.length > 48)!;
  cut(segmentId);
  const ids = sections[0]!.elements.flat();
  const picture = screen.getByRole('img');
  expect(within(picture).queryByText(/^\d+$/)).toBeNull();
  expect(picture.querySelectorAll('path').length).toBeGreaterThan(3);
  fireEvent.click(screen.getByRole('button', { name: `All ${ids.length} wires` }));
  const numbers = ids.map((id) => plan.wires.find((wire) => wire.id === id)!.number);
  const key = screen.getAllByTitle(/: show it on the strip$/);
  expect(key.map((one) => one.dataset.wire).sort()).toEqual([...ids].sort());
  expect(screen.queryByText('Wire mass')).toBeNull();
  // key to picture: a ring round the circle
  const rings = () => picture.querySelectorAll('circle[stroke="var(--brass)"]');
  expect(rings()).toHaveLength(0);
  const first = screen.getByText(numbers[0]!).closest('button')!;
  fireEvent.pointerEnter(first);
  expect(first.dataset.on).toBe('true');
  expect(rings()).toHaveLength(1);
  fireEvent.pointerLeave(first);
  expect(rings()).toHaveLength(0);
  // chosen, it is lit on the strip; chosen again, no more
  fireEvent.click(first);
  expect(screen.getByTestId('lit').textContent).toBe(ids[0]);
  fireEvent.click(first);
  expect(screen.getByTestId('lit').textContent).toBe('');
});

test('of few wires the picture marks the key as well', () => {
  const { plan, cut } = open(createInlet());
  cut('s-map');
  const id = plan.bundles.find(({ segmentId }) => segmentId === 's-map')!.sections[0]!.elements[0]![0]!;
  const { number } = plan.wires.find((wire) => wire.id === id)!;
  const core = within(screen.getByRole('img')).getByText(number).closest('g')!;
  fireEvent.pointerEnter(core);
  expect(screen.getAllByText(number).map((one) => one.closest('button')?.dataset.on)).toContain('true');
});
