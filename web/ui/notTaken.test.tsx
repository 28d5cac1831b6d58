import { MantineProvider } from '@mantine/core';
import { fireEvent, render, screen } from '@testing-library/react';
import { NotTaken } from './NotTaken';

const open = (entries: { id: string; what: string; reason: string }[]) => {
  const asked: string[] = [];
  render(
    <MantineProvider>
      <NotTaken entries={entries} onRetry={(id) => asked.push(`send ${id}`)} onLetGo={(id) => asked.push(`drop ${id}`)} />
    </MantineProvider>,
  );
  return asked;
};

test('what was not stored is named with its reason, and each is sent again or let go', () => {
  const asked = open([
    { id: 'a', what: 'leg 140', reason: 'expected a length' },
    { id: 'b', what: 'photo bracket', reason: 'The server answered 413.' },
  ]);
  expect(screen.getByRole('alert').textContent).toContain('2 things done here were not stored. They are kept on this device.');
  expect(screen.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
    'leg 140expected a lengthSend againLet go',
    'photo bracketThe server answered 413.Send againLet go',
  ]);
  fireEvent.click(screen.getAllByRole('button', { name: 'Send again' })[1]!);
  fireEvent.click(screen.getAllByRole('button', { name: 'Let go' })[0]!);
  expect(asked).toEqual(['send b', 'drop a']);
});

test('with nothing refused it takes no room', () => {
  open([]);
  expect(screen.queryByRole('alert')).toBeNull();
});
