import { MantineProvider } from '@mantine/core';
import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { choose, chosen, listOptions, type, write } from '../../testing/act';
import { NumberEntry, NumberField } from './NumberField';
import { Pick } from './Pick';

const many = Array.from({ length: 40 }, (_, index) => `end ${index + 1}`);

function Show({ options, none, onChange }: { options: readonly string[]; none?: string; onChange?: (value: string | null) => void }) {
  const [value, setValue] = useState<string | null>(none === undefined ? options[0]! : null);
  return (
    <MantineProvider env="test">
      <Pick
        label="place"
        value={value}
        none={none}
        options={options}
        onChange={(next) => {
          onChange?.(next);
          setValue(next);
        }}
      />
    </MantineProvider>
  );
}

describe('one of a list', () => {
  test('says what is chosen, and is a list only while it is open', () => {
    render(<Show options={['tape', 'rope']} />);
    expect([chosen('place'), screen.queryAllByRole('option')]).toEqual(['tape', []]);
    choose('place', 'rope');
    expect([chosen('place'), screen.queryAllByRole('option')]).toEqual(['rope', []]);
    expect(document.activeElement).toBe(screen.getByLabelText('place'));
  });
  test('opens with an arrow, and Escape leaves it as it was with the focus where it was', () => {
    const onChange = jest.fn();
    render(<Show options={['tape', 'rope']} onChange={onChange} />);
    fireEvent.keyDown(screen.getByLabelText('place'), { key: 'ArrowDown' });
    const [field] = screen.getAllByLabelText('place');
    expect(field!.tagName).toBe('INPUT');
    fireEvent.keyDown(field!, { key: 'Escape' });
    expect([chosen('place'), onChange.mock.calls]).toEqual(['tape', []]);
    expect(document.activeElement).toBe(screen.getByLabelText('place'));
  });
  test('none of them is a choice with words of its own; the same choice is no change', () => {
    const onChange = jest.fn();
    render(<Show options={['cabin']} none="not known" onChange={onChange} />);
    choose('place', 'not known');
    expect(onChange).not.toHaveBeenCalled();
    choose('place', 'cabin');
    choose('place', 'not known');
    expect(onChange.mock.calls).toEqual([['cabin'], [null]]);
  });
  test('a long list is typed into', () => {
    render(<Show options={many} />);
    expect(listOptions('place')).toHaveLength(40);
    fireEvent.click(screen.getByLabelText('place'));
    const [field] = screen.getAllByLabelText('place');
    fireEvent.change(field!, { target: { value: 'end 4' } });
    expect(screen.getAllByRole('option').map(({ textContent }) => textContent)).toEqual(['end 4', 'end 40']);
  });
});

describe('a figure', () => {
  const onChange = jest.fn();
  beforeEach(() => onChange.mockClear());
  const field = (canBeEmpty = false) =>
    render(
      <MantineProvider env="test">
        <NumberField label="drawn" value={2} unit="A" least={0.1} most={100} canBeEmpty={canBeEmpty} onChange={onChange} />
      </MantineProvider>,
    );
  test('is kept in its unit when the field is left, once', () => {
    field();
    type('drawn', '500 mA');
    expect(onChange).not.toHaveBeenCalled();
    write('drawn', '500 mA');
    expect(onChange.mock.calls).toEqual([[0.5]]);
  });
  test.each(['', 'much', '0', '101', '12 V'])('%p is not kept and says what was expected', (text) => {
    field();
    type('drawn', text);
    const input = screen.getByLabelText<HTMLInputElement>('drawn');
    expect([input.getAttribute('aria-invalid'), input.title]).toEqual(['true', 'expected 0.1 to 100 A']);
    fireEvent.blur(input);
    expect([input.value, onChange.mock.calls]).toEqual(['2', []]);
  });
  test('may be unknown where that is allowed; Escape takes back what was typed', () => {
    field(true);
    type('drawn', '7');
    fireEvent.keyDown(screen.getByLabelText('drawn'), { key: 'Escape' });
    fireEvent.blur(screen.getByLabelText('drawn'));
    expect(onChange).not.toHaveBeenCalled();
    write('drawn', '');
    expect(onChange.mock.calls).toEqual([[null]]);
  });
  test('in a dialog is told at each letter, and what is wrong is told as no number', () => {
    render(
      <MantineProvider env="test">
        <NumberEntry label="leg" value={null} unit="mm" least={1} most={20000} onChange={onChange} />
      </MantineProvider>,
    );
    expect(screen.queryByText(/^expected/)).toBeNull();
    type('leg', '1.2 m');
    type('leg', '1.2 x');
    expect(onChange.mock.calls).toEqual([[1200], [NaN]]);
    expect(screen.getByText(/^expected 1 to 20000 mm/)).toBeTruthy();
  });
});
