import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { priceBreakouts, searchLayups } from 'wattograph-core';
import { choose, listOptions } from '../../testing/act';
import { openLoom } from '../../testing/fakeStore';
import { SectionPanel } from '../../ui/section/SectionPanel';
import { useCursorStore } from '../../ui/cursor';
import { askReason } from '../../ui/fields/askReason';
import type { BreakoutsAnswer, BreakoutsQuestion } from '../../workers/breakouts.worker';
import type { LayupAnswer, LayupQuestion } from '../../workers/layup.worker';
import { LayupTab } from './LayupTab';
import { LengthsTable } from './LengthsTable';

/** what the worker was asked, and how it answers when the test lets it */
const asked: { question: LayupQuestion; answer: (answer: LayupAnswer) => void; isGivenUp: boolean }[] = [];
jest.mock('../../client/layupRunner', () => ({
  runLayup: (question: LayupQuestion, answer: (one: LayupAnswer) => void) => {
    const one = { question, answer, isGivenUp: false };
    asked.push(one);
    return () => {
      one.isGivenUp = true;
    };
  },
}));
const pricing: { question: BreakoutsQuestion; answer: (answer: BreakoutsAnswer) => void; isGivenUp: boolean }[] = [];
jest.mock('../../client/breakoutPricer', () => ({
  priceWaysOn: (question: BreakoutsQuestion, answer: (one: BreakoutsAnswer) => void) => {
    const one = { question, answer, isGivenUp: false };
    pricing.push(one);
    return () => {
      one.isGivenUp = true;
    };
  },
}));
jest.mock('../../ui/fields/askReason', () => ({ askReason: jest.fn() }));
beforeEach(() => {
  asked.splice(0);
  pricing.splice(0);
});

const SCHOOL = 'How the bundles of this loom lie';
const open = () => openLoom((planned) => <LayupTab planned={planned} />);
/** As the worker does it, with few tries. */
const finish = () => {
  const { question, answer } = asked.at(-1)!;
  const { loom, plan, standard, seed } = question;
  act(() => answer({ laidUp: searchLayups(loom, plan, standard, { seed, tries: 20 }).laidUp, ms: 1 }));
};
const sums = () => screen.getByTestId('layup-sums').textContent!;

test('the school acts: nothing is twisted in layers until it is chosen, the shop’s is named, and back again', () => {
  const store = open();
  expect(screen.getByText(/^Nothing of this loom is twisted in layers/)).toBeTruthy();
  expect(listOptions(SCHOOL)[0]).toBe('as the shop: pairs twisted, the rest straight');
  const cut = () => store.get().result!.looms[0]!.wires.reduce((sum, { lengthMm }) => sum + lengthMm, 0);
  const straight = cut();
  choose(SCHOOL, 'twisted in layers');
  expect(store.job.looms.inlet!.bundling).toBe('concentric');
  expect(cut()).toBeGreaterThan(straight * 1.005);
  expect(screen.getByText(/^Not searched yet/)).toBeTruthy();
  choose(SCHOOL, 'straight and tied');
  // pairs too: less wire than with pairs twisted
  expect(cut()).toBeLessThan(straight);
  choose(SCHOOL, 'as the shop: pairs twisted, the rest straight');
  expect(cut()).toBe(straight);
});

test('one run may lie otherwise than its loom, and a branch leaves by a side of the clock', () => {
  const store = openLoom((planned) => <LengthsTable planned={planned} />);
  choose('How the wires of primary rail to injector 1 lie', 'twisted in layers');
  choose('Side by which primary rail to injector 1 leaves', '3 o’clock');
  expect(store.job.looms.inlet!.segments['s-inj1']).toMatchObject({ bundling: 'concentric', leavesDeg: 90 });
  expect(store.get().result!.looms[0]!.layups.map(({ id }) => id)).toEqual(['s-inj1']);
  choose('Side by which primary rail to injector 1 leaves', 'not known');
  expect(store.job.looms.inlet!.segments['s-inj1']!.leavesDeg).toBeNull();
});

test('a search tells how far it is, can be given up without a trace, and what it finds is an edit', () => {
  const store = open();
  choose(SCHOOL, 'twisted in layers');
  const before = sums();
  fireEvent.click(screen.getByRole('button', { name: 'Search the lay-up' }));
  act(() => asked[0]!.answer({ done: 0.42 }));
  expect(screen.getByRole('status', { name: 'Search of the lay-up' }).textContent).toContain('42 %');
  fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
  expect([asked[0]!.isGivenUp, store.job.looms.inlet!.laidUp, sums()]).toEqual([true, {}, before]);
  fireEvent.click(screen.getByRole('button', { name: 'Search the lay-up' }));
  act(() => asked[1]!.answer({ failure: 'out of memory' }));
  expect(screen.getByText('out of memory')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Search the lay-up' }));
  finish();
  expect(store.labels.at(-1)).toBe('lay-up found by search');
  expect(screen.getByText('searched')).toBeTruthy();
  expect(screen.queryByText('out of memory')).toBeNull();
  expect(sums()).toMatch(/^0 crossed breakouts \(least 0\), \d+ pieces? of dead wire/);
});

test('a search that is ended early leaves its best so far, once there is one', () => {
  const store = open();
  choose(SCHOOL, 'twisted in layers');
  fireEvent.click(screen.getByRole('button', { name: 'Search the lay-up' }));
  const take = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Take the best so far' });
  act(() => asked[0]!.answer({ done: 0.2, best: {} }));
  expect(take().disabled).toBe(true);
  const { loom, plan, standard, seed } = asked[0]!.question;
  const { laidUp } = searchLayups(loom, plan, standard, { seed, tries: 4 });
  act(() => asked[0]!.answer({ done: 0.6, best: laidUp }));
  fireEvent.click(take());
  expect([asked[0]!.isGivenUp, store.labels.at(-1)]).toEqual([true, 'best lay-up of a search that was ended early']);
  expect(store.job.looms.inlet!.laidUp).toEqual(laidUp);
  expect(screen.getByText('searched')).toBeTruthy();
});

test('every breakout says what is done there, and what each of the three ways would come to; its name leads there', async () => {
  let at: string | undefined;
  const Cursor = () => {
    const cursor = useCursorStore();
    cursor.subscribe(() => (at = cursor.get()?.segmentId));
    return null;
  };
  const store = openLoom((planned) => (
    <>
      <Cursor />
      <LayupTab planned={planned} />
    </>
  ));
  choose(SCHOOL, 'twisted in layers');
  const layup = store.get().result!.looms[0]!.layups[0]!;
  expect(screen.getByRole('status').textContent).toBe('Pricing the ways on from each breakout …');
  await waitFor(() => expect(pricing).toHaveLength(1));
  const { question, answer } = pricing[0]!;
  // no more is sent than lies in it
  expect(question.wires.length).toBeLessThan(store.get().result!.looms[0]!.wires.length);
  act(() => answer({ priced: priceBreakouts(question.layup, question.standard, new Map(question.wires.map((wire) => [wire.id, wire]))) }));
  const rows = within(screen.getByRole('table', { name: 'Breakouts of the lay-up' }))
    .getAllByRole('row')
    .slice(1);
  expect(rows).toHaveLength(layup.marks.filter(({ kind }) => kind === 'breakout').length);
  for (const row of rows) expect(row.textContent).toMatch(/\d+\.\d mm, \d+\.\d\d/);
  const first = within(rows[0]!).getByRole('button', {
    name: store.job.looms.inlet!.nodes[layup.marks.find(({ kind }) => kind === 'breakout')!.nodeId!]!.name,
  });
  fireEvent.click(first);
  expect(layup.segmentIds).toContain(at);
  // asked once; an edit that makes another lay-up asks anew, and what fails is said
  expect(pricing).toHaveLength(1);
  choose(SCHOOL, 'straight and tied');
  choose(SCHOOL, 'twisted in layers');
  fireEvent.click(screen.getByRole('button', { name: 'Search the lay-up' }));
  finish();
  await waitFor(() => expect(pricing).toHaveLength(2));
  act(() => pricing[1]!.answer({ failure: 'the worker stopped' }));
  expect(screen.getByText('The ways on could not be priced: the worker stopped.')).toBeTruthy();
});

test('the layers at the cursor name hand and lay, and every wire in its order; a wire that is chosen can be pinned elsewhere', () => {
  const store = open();
  choose(SCHOOL, 'twisted in layers');
  fireEvent.click(screen.getByRole('button', { name: 'Search the lay-up' }));
  finish();
  const layup = () => store.get().result!.looms[0]!.layups[0]!;
  const layers = within(screen.getByRole('group', { name: 'Layers at the cursor' }));
  const { slots, layMm } = layup().stretches[0]!.layers[1]!;
  const one = layers.getByRole('region', { name: 'layer 1' });
  expect(one.textContent).toContain(`left-hand ↺, lay ${layMm!.toFixed(1)} mm, ${(100 / layMm!).toFixed(2)} turns per 100 mm`);
  const buttons = within(one).getAllByRole('button');
  expect(buttons.length).toBe(slots.filter(({ threadId }) => threadId !== null).length);
  fireEvent.click(buttons[0]!);
  const name = buttons[0]!.textContent!;
  choose(`Layer of ${name}`, 'pinned to core');
  expect(jest.mocked(askReason).mock.calls.at(-1)![0]).toBe(`Why ${name} in core?`);
  expect(store.job.looms.inlet!.layerPins).toEqual({});
  act(() => jest.mocked(askReason).mock.calls.at(-1)![1]('short tail'));
  expect(Object.values(store.job.looms.inlet!.layerPins)).toEqual([{ layer: 0, reason: 'short tail' }]);
  expect(screen.getByText(/^Search again to see what it costs/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /^Search/ }));
  finish();
  const threadId = Object.keys(store.job.looms.inlet!.layerPins)[0]!;
  expect(layup().stretches[0]!.layers[0]!.slots.map((slot) => slot.threadId)).toContain(threadId);
  expect(screen.getByRole('status', { name: 'What the pin costs' }).textContent).toMatch(/^ Against before: [+−]\d+ crossed/);
});

test('the section of a bundle in layers turns with the cursor: each layer by its own lay, dead wire hatched, the hand in words', () => {
  let go: (offsetMm: number) => void = () => undefined;
  const Cursor = () => {
    const cursor = useCursorStore();
    go = (offsetMm) => cursor.set({ segmentId: 't1', offsetMm });
    return null;
  };
  const store = openLoom(
    (planned) => (
      <>
        <Cursor />
        <SectionPanel planned={planned} />
      </>
    ),
    (job) => {
      job.looms.inlet!.bundling = 'concentric';
    },
  );
  const layup = store.get().result!.looms[0]!.layups[0]!;
  const turns = () =>
    [...document.querySelectorAll('[data-layer]')].map((one) => Number(/rotate\((.*)\)/.exec(one.getAttribute('transform')!)![1]));
  act(() => go(0));
  expect(turns().every((turn) => Math.abs(turn) < 1e-9)).toBe(true);
  act(() => go(20));
  layup.stretches[0]!.layers.forEach(({ hand, layMm }, index) => {
    const expected = layMm === null ? 0 : ((hand === 'right' ? 1 : -1) * 360 * 20) / layMm;
    expect(turns()[index]).toBeCloseTo(expected, 6);
  });
  const picture = screen.getByRole('img', { name: /^Bundle of \d+ elements in \d+ layers/ });
  expect(within(picture).getByText(/^(left|right)-hand lay$/)).toBeTruthy();
  expect(picture.querySelectorAll('[data-wire]').length).toBe(
    new Set(
      store
        .get()
        .result!.looms[0]!.bundles.find(({ segmentId }) => segmentId === 't1')!
        .sections[0]!.elements.flat(),
    ).size,
  );
  expect(picture.querySelectorAll('circle[fill="url(#dead-wire)"]').length).toBe(
    layup.stretches[0]!.layers.flatMap(({ slots }) => slots.filter(({ fillers }) => fillers.some(({ fromMark }) => fromMark === 0))).length,
  );
  // a wire that is pointed at gets a ring where it lies; what is no wire gets none
  const rings = () =>
    [...picture.querySelectorAll('circle[stroke="var(--brass)"]')].map((one) => [one.getAttribute('cx'), one.getAttribute('cy')]);
  const wire = picture.querySelector<SVGElement>('[data-wire]')!;
  fireEvent.pointerOver(wire.querySelector('title')!);
  expect(rings()).toEqual([[wire.getAttribute('cx'), wire.getAttribute('cy')]]);
  fireEvent.pointerOver(picture);
  expect(rings()).toEqual([]);
});

test('the list of layers follows where the cursor rests, and an edit at once', async () => {
  let go: (segmentId: string) => void = () => undefined;
  const Cursor = () => {
    const cursor = useCursorStore();
    go = (segmentId) => cursor.set({ segmentId, offsetMm: 0 });
    return null;
  };
  const store = openLoom(
    (planned) => (
      <>
        <Cursor />
        <LayupTab planned={planned} />
      </>
    ),
    (job) => {
      job.looms.inlet!.bundling = 'concentric';
    },
  );
  const { layups, tree } = store.get().result!.looms[0]!;
  const { segmentIds } = layups[0]!;
  const from = () => /^From (\d+) mm/.exec(screen.getByRole('group', { name: 'Layers at the cursor' }).textContent!)?.[1];
  const [first, last] = [segmentIds[0]!, segmentIds.at(-1)!].map((id) => String(Math.round(tree.segments[id]!.startMm)));
  act(() => go(segmentIds[0]!));
  await waitFor(() => expect(from()).toBe(first));
  act(() => go(segmentIds.at(-1)!));
  expect(from()).toBe(first);
  await waitFor(() => expect(from()).toBe(last));
  choose(SCHOOL, 'straight and tied');
  expect(screen.queryByRole('group', { name: 'Layers at the cursor' })).toBeNull();
});
