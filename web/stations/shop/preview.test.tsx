import { screen } from '@testing-library/react';
import { chooseRecord, editor, goTo, openShop, typeField } from '../../testing/shopStation';

const picture = () => editor().getByRole('img').getAttribute('aria-label');

test('the window of a contact stands on the scale of the wires, and follows what is typed', () => {
  openShop();
  goTo('Contacts');
  chooseRecord(/^Hollin size 22 contact$/);
  expect(picture()).toBe('takes 0.14 to 0.62 mm² of copper');
  const sizes = () =>
    [...editor().getByRole('img').querySelectorAll('circle')].filter((one) => one.getAttribute('fill') === 'var(--ink)').length;
  const before = sizes();
  typeField('max area, mm²', '0.4');
  expect(picture()).toBe('takes 0.14 to 0.4 mm² of copper');
  expect(sizes()).toBeLessThan(before);
});

test('no two names of sizes lie on each other on the scale of a contact', () => {
  openShop();
  goTo('Contacts');
  chooseRecord(/^Pellow 16 contact$/);
  const rows = [...editor().getByRole('img').querySelectorAll(':scope > g')].map((row) =>
    [...row.querySelectorAll('text[text-anchor]')].map((text) => ({ x: Number(text.getAttribute('x')), words: text.textContent! })),
  );
  expect(rows.map((row) => row.map(({ words }) => words))[2]).toEqual(['0.35', '0.75', '1.5', '50']);
  for (const row of rows)
    for (const [at, { x, words }] of row.entries())
      for (const other of row.slice(at + 1)) expect(Math.abs(other.x - x)).toBeGreaterThan(((words.length + other.words.length) / 2) * 6.6);
});

test('a wire is drawn in section; strands that do not fit under their insulation are told', () => {
  openShop();
  goTo('Wires');
  chooseRecord(/^ETFE 20$/);
  expect(picture()).toMatch(/^\d.* mm over the insulation, \d.* mm over the strands$/);
  expect(screen.queryByText(/thicker than the insulation/)).toBeNull();
  typeField(/area, mm²/, '90');
  expect(screen.getByText('The strands are thicker than the insulation over them.')).toBeTruthy();
});

test('a covering shows the bundles that it grips; one that can grip none says so', () => {
  openShop();
  goTo('Coverings');
  chooseRecord(/^braid 4/);
  expect(picture()).toMatch(/^grips bundles of \d+\.\d to \d+\.\d mm$/);
  typeField('expanded bore, mm', '0.5');
  expect(screen.getByText('No bundle is thick enough for it and passes it.')).toBeTruthy();
});
