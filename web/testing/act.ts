import { fireEvent, screen } from '@testing-library/react';

/** Type into a field that keeps what it has as soon as it changes. */
export const type = (label: string | RegExp, value: string): boolean =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

/** Type into a field that keeps what it has when it is left. */
export function write(label: string | RegExp, value: string): void {
  type(label, value);
  fireEvent.blur(screen.getByLabelText(label));
}

export const press = (name: string | RegExp): boolean => fireEvent.click(screen.getByRole('button', { name }));

function openList(label: string): HTMLElement[] {
  const field = screen.getAllByLabelText(label).find((one) => one.tagName === 'INPUT')!;
  if (field.getAttribute('aria-expanded') !== 'true') fireEvent.click(field);
  const list = document.getElementById(field.getAttribute('aria-controls') ?? '');
  return [...(list?.querySelectorAll<HTMLElement>('[role=option]') ?? [])];
}

/** The words of the options of a list. */
export const listOptions = (label: string): string[] => openList(label).map(({ textContent }) => textContent ?? '');

/** Open a list and choose from it by the words of the option. */
export function choose(label: string, words: string): void {
  const option = openList(label).find(({ textContent }) => textContent === words);
  if (!option) throw new Error(`choose: expected an option ${words} of ${label}`);
  fireEvent.click(option);
}
