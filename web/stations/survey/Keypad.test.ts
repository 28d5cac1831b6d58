import { typeKey } from './Keypad';

test.each([
  ['', '6', '6'],
  ['61', '.', '61.'],
  ['61', ',', '61.'],
  ['61.', '.', '61.'],
  ['61.5', '5', '61.5'],
  ['12345', '6', '12345'],
  ['615', '⌫', '61'],
  ['', '⌫', ''],
  ['6', 'x', '6'],
  ['6', '-', '6'],
])('%j and then %s is %j', (value, key, expected) => expect(typeKey(value, key)).toBe(expected));
