import { fireEvent, screen, type BoundFunctions, type queries } from '@testing-library/react';

/** Type into a field that keeps what it has as soon as it changes. */
export const type = (label: string | RegExp, value: string): boolean =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

/** Type into a field that keeps what it has when it is left. */
export function write(label: string | RegExp, value: string): void {
  type(label, value);
  fireEvent.blur(screen.getByLabelText(label));
}

export const press = (name: string | RegExp): boolean => fireEvent.click(screen.getByRole('button', { name }));

type Place = BoundFunctions<typeof queries>;

function openList(label: string, place: Place): HTMLElement[] {
  // a list of a dense line is made as its button is pressed
  const button = place.queryAllByLabelText(label).find((one) => one.tagName === 'BUTTON');
  if (button) fireEvent.click(button);
  const field = place.getAllByLabelText(label).find((one) => one.tagName === 'INPUT')!;
  if (field.getAttribute('aria-expanded') !== 'true') fireEvent.click(field);
  const list = [...document.querySelectorAll('[role=listbox]')]
    .filter((one) => one.getAttribute('aria-label') === label || one.id === field.getAttribute('aria-controls'))
    .at(-1);
  return [...(list?.querySelectorAll<HTMLElement>('[role=option]') ?? [])];
}

/** The words of the options of a list, which is closed again. */
export function listOptions(label: string, place: Place = screen): string[] {
  const words = openList(label, place).map(({ textContent }) => textContent ?? '');
  const field = place.getAllByLabelText(label).find((one) => one.tagName === 'INPUT')!;
  fireEvent.keyDown(field, { key: 'Escape' });
  fireEvent.blur(field);
  return words;
}

/** Open a list and choose from it by the words of the option. */
export function choose(label: string, words: string, place: Place = screen): void {
  const options = openList(label, place);
  const option = options.find(({ textContent }) => textContent === words);
  if (!option)
    throw new Error(`choose: expected an option ${words} of ${label}, got ${options.map(({ textContent }) => textContent).join(' | ')}`);
  fireEvent.click(option);
}

/** What a list says that is chosen. */
export function chosen(label: string, place: Place = screen): string {
  const field = place.getAllByLabelText(label).find((one) => one.tagName === 'BUTTON' || one.tagName === 'INPUT')!;
  return field instanceof HTMLInputElement ? field.value : (field.textContent ?? '');
}
