import { act, fireEvent, screen, within } from '@testing-library/react';
import { searchBoard } from 'wattograph-core';
import { choose, listOptions, press, write } from '../../testing/act';
import { openLoom } from '../../testing/fakeStore';
import type { BoardAnswer, BoardQuestion } from '../../workers/board.worker';
import { BoardStation } from './BoardStation';

/** what the worker was asked, and how it answers when the test lets it */
const asked: { question: BoardQuestion; answer: (answer: BoardAnswer) => void; isGivenUp: boolean }[] = [];
jest.mock('../../client/boardRunner', () => ({
  runBoard: (question: BoardQuestion, answer: (one: BoardAnswer) => void) => {
    const one = { question, answer, isGivenUp: false };
    asked.push(one);
    return () => {
      one.isGivenUp = true;
    };
  },
}));
jest.mock('../../ui/JobShell', () => ({ useLoomId: () => 'inlet' }));
beforeEach(() => asked.splice(0));

const open = () => openLoom(() => <BoardStation />);
const board = (store: ReturnType<typeof open>) => store.job.looms.inlet!.board;
/** As the worker does it, with few tries. */
const finish = () => {
  const { question, answer } = asked.at(-1)!;
  act(() => answer({ found: searchBoard(question.tree, { ...question.search, tries: 3000 }), ms: 1 }));
};
const run = (name: RegExp) => screen.getByRole('button', { name });
const INJECTOR = /^primary rail to injector 1, /;

test('what nobody has searched is spread at a guess and says so; what is found is taken as one edit', () => {
  const store = open();
  expect(screen.getByText('Not searched yet: spread at a guess.')).toBeTruthy();
  press('Search the layout');
  act(() => asked[0]!.answer({ done: 0.4 }));
  expect(screen.getByRole('status', { name: 'Search of the layout' }).textContent).toContain('40 %');
  finish();
  expect(store.labels).toEqual(['board laid out by search']);
  expect(screen.getByText('laid out')).toBeTruthy();
  expect(board(store).at).not.toBeNull();
  expect(screen.getByTestId('board-sums').textContent).toMatch(/^takes \d+ × \d+ mm, 0\.\d\d m², 0 folds, \d+ pegs$/);
});

test('a search that is cancelled changes nothing; ended early it leaves the best so far', () => {
  const store = open();
  press('Search the layout');
  press('Cancel');
  expect([asked[0]!.isGivenUp, store.labels]).toEqual([true, []]);
  press('Search the layout');
  const { question, answer } = asked[1]!;
  const { form } = searchBoard(question.tree, { ...question.search, tries: 500 });
  act(() => answer({ done: 0.5, best: form }));
  press('Take the best so far');
  expect([asked[1]!.isGivenUp, store.labels]).toEqual([true, ['best layout of a search that was ended early']]);
});

test('a fork is turned with the keys and by its angle, to the other side; a search leaves it then, until it may turn it again', () => {
  const store = open();
  const fork = run(INJECTOR);
  fireEvent.keyDown(fork, { key: 'ArrowLeft' });
  const first = board(store).turns['s-inj1']!;
  expect(first.pinned).toBe(true);
  // the others stay where they lie
  expect(Object.values(board(store).turns).filter(({ pinned }) => pinned)).toHaveLength(1);
  fireEvent.keyDown(run(INJECTOR), { key: 'Enter' });
  const facts = within(screen.getByRole('complementary', { name: 'Chosen run' }));
  expect(facts.getByRole('heading').textContent).toBe('primary rail to injector 1');
  choose('Side on the board', first.deg < 0 ? 'to the left' : 'to the right');
  expect(board(store).turns['s-inj1']!.deg).toBe(-first.deg);
  write('Angle on the board', '75');
  expect(Math.abs(board(store).turns['s-inj1']!.deg)).toBe(75);
  press('Lay out again');
  const { tree, search } = asked.at(-1)!.question;
  const at = tree.pieces.findIndex(({ segmentId }) => segmentId === 's-inj1');
  expect(Math.abs(search.pins.turns[at]!)).toBe(75);
  press('Let the search turn it');
  expect(board(store).turns['s-inj1']!.pinned).toBe(false);
});

test('a run is folded, further on, and straight again', () => {
  const store = open();
  fireEvent.keyDown(run(INJECTOR), { key: 'Enter' });
  choose('Fold on the board', 'back, to the left');
  expect(board(store).folds['s-inj1']).toMatchObject({ deg: 180, pinned: true });
  write('Folded after', '12');
  expect(board(store).folds['s-inj1']!.atMm).toBe(12);
  choose('Fold on the board', 'nowhere');
  expect(board(store).folds['s-inj1']).toBeUndefined();
});

test('the board of the shop and its face act; what stands over a small one is said', () => {
  const store = open();
  expect(listOptions('Board')).toEqual(['long board, 3000 × 1250 mm', 'bench board, 1700 × 800 mm']);
  const before = store.get().document;
  choose('Board', 'bench board, 1700 × 800 mm');
  expect(board(store).boardId).toBe('bench');
  choose('Face of the loom', 'built face down, mirrored');
  expect(board(store).isMirrored).toBe(true);
  expect(store.get().document).not.toBe(before);
  expect(screen.queryByText(/^Stands over the board/)).toBeNull();
  act(() => store.edit({ label: 'longer', apply: ({ looms }) => void (looms.inlet!.segments['s-inj1']!.lengthMm = 1500) }));
  expect(screen.getByText(/^Stands over the board \d+ mm/)).toBeTruthy();
});

test('a print hangs; its bar refuses it or lets it be laid by; a change names the pages that no longer hold', () => {
  const store = open();
  press('Search the layout');
  finish();
  press('This print hangs');
  expect(board(store).printed!.tiles.length).toBeGreaterThan(3);
  expect(screen.getByText('Nobody has measured its bar: nothing is laid by it before.')).toBeTruthy();
  write('Bar of the print', '98.6');
  expect(screen.getByText(/^The print is out by 1.4 mm in 100 mm: nothing is laid by it. Pages are multiplied by 1.0142/)).toBeTruthy();
  // read once more: the correction is of the print, not of the last correction
  write('Bar of the print', '98.5');
  expect(board(store).scale).toBeCloseTo(100 / 98.5, 6);
  write('Bar of the print', '98.6');
  press('The new pages hang');
  write('Bar of the print', '100.1');
  expect(screen.getByText('The print is true, and shows the loom as it is now.')).toBeTruthy();
  expect(board(store).scale).toBeCloseTo(1.0142, 4);
  act(() =>
    store.edit({
      label: 'fitted',
      apply: ({ looms }) => {
        const segment = looms.inlet!.segments['s-inj1']!;
        Object.assign(segment, { status: 'fitted', fittedMm: segment.lengthMm + 9 });
      },
    }),
  );
  expect(screen.getByText(/^Pages? [\d, and]+ shows? what is no longer so/)).toBeTruthy();
  expect(screen.getByRole('img', { name: /^Map of \d+ pages, stale: / })).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Stale pages (PDF)' })).toBeTruthy();
  const fit = (mm: number) =>
    act(() => store.edit({ label: 'fitted', apply: ({ looms }) => void (looms.inlet!.segments['s-inj1']!.fittedMm = mm) }));
  const hung = board(store).printed!.tiles;
  fit(900);
  expect(screen.getByText(/Pages? [\d, and]+ (is|are) new: the loom reaches beyond what hangs/)).toBeTruthy();
  press('The new pages hang');
  write('Bar of the print', '100');
  expect(screen.getByText('The print is true, and shows the loom as it is now.')).toBeTruthy();
  const grown = board(store).printed!.tiles;
  expect(grown.length).toBeGreaterThan(hung.length);
  fit(300);
  expect(screen.getByText(/Pages? [\d, and]+ shows? nothing of the loom any more: take (it|them) down/)).toBeTruthy();
});

test('pegs are listed by number with their places from the edges; the printer acts on the pages', () => {
  const store = open();
  const pages = () => screen.getByRole('img', { name: /^Map of/ }).getAttribute('aria-label');
  const before = pages();
  choose('Printer', 'office, A4 across');
  expect(board(store).printerId).toBe('office-a4');
  expect(pages()).not.toBe(before);
  fireEvent.click(screen.getByRole('tab', { name: 'Pegs' }));
  const [head, first] = within(screen.getByRole('table', { name: 'Pegs of the board' })).getAllByRole('row');
  expect(
    within(head!)
      .getAllByRole('columnheader')
      .map(({ textContent }) => textContent),
  ).toEqual(['peg', 'stands', 'from the left, mm', 'from the top, mm', 'Ø mm', 'holds']);
  expect(within(first!).getAllByRole('cell')[0]!.textContent).toBe('2a');
});

test('a loom without runs says what will stand here, and where to begin', () => {
  const store = open();
  act(() =>
    store.edit({
      label: 'empty',
      apply: ({ looms }) => {
        const { inlet } = looms;
        Object.assign(inlet!, {
          segments: {},
          ends: {},
          circuits: {},
          splicePins: {},
          nodes: { datum: inlet!.nodes[Object.keys(inlet!.nodes).find((id) => inlet!.nodes[id]!.kind === 'datum')!]! },
        });
      },
    }),
  );
  expect(screen.getByText(/^Nothing to lay out yet/)).toBeTruthy();
});
