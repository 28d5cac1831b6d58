import { MantineProvider } from '@mantine/core';
import { fireEvent, render, screen } from '@testing-library/react';
import { choose, press, type } from '../../testing/act';
import { NoteLine } from './NoteLine';

function open(isReady = true) {
  const noted: string[] = [];
  render(
    <MantineProvider env="test">
      <NoteLine
        kindLabel="Kind"
        kinds={['question', 'assumption']}
        first="question"
        label="What"
        placeholder=""
        isReady={isReady}
        onNote={(kind, words) => noted.push(`${kind}: ${words}`)}
      />
    </MantineProvider>,
  );
  return noted;
}
const submit = () => fireEvent.submit(screen.getByLabelText('What').closest('form')!);

test('what is noted leaves the line empty, at the kind that it was of', () => {
  const noted = open();
  choose('Kind', 'assumption');
  type('What', '  the dash is 40 mm thick ');
  press('Note it');
  expect(screen.getByLabelText('What')).toHaveProperty('value', '');
  type('What', 'so is the shelf');
  submit();
  expect(noted).toEqual(['assumption: the dash is 40 mm thick', 'assumption: so is the shelf']);
});

test('blanks are nothing to note, by the button or by Enter', () => {
  const noted = open();
  type('What', '   ');
  expect(screen.getByRole('button', { name: 'Note it' })).toHaveProperty('disabled', true);
  submit();
  expect(noted).toEqual([]);
});

test('a line that still lacks something keeps its words', () => {
  const noted = open(false);
  type('What', 'a bracket');
  expect(screen.getByRole('button', { name: 'Note it' })).toHaveProperty('disabled', true);
  submit();
  expect([noted, screen.getByLabelText('What')]).toEqual([[], expect.objectContaining({ value: 'a bracket' })]);
});
