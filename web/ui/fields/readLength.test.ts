import { readLength } from './readLength';

test.each([
  ['615', 615],
  ['615.5', 615.5],
  ['615,5 mm', 615.5],
  ['61.5 cm', 615],
  ['1.2 m', 1200],
  ['1.2m', 1200],
  ['0,75 m', 750],
  ['3/4 in', 19.05],
  ['1 3/4 in', 44.45],
  ['24"', 609.6],
  ['24″', 609.6],
  ['2 ft', 609.6],
  ['2\' 3"', 685.8],
  ['2 ft 3 1/2 in', 698.5],
  ['.5 in', 12.7],
  ['-12', -12],
  ['− 3 mm', -3],
])('%s is %p mm', (text, mm) => {
  expect(readLength(text)).toBeCloseTo(mm, 9);
});

test.each(['abc', '12 km', '1.2.3', '3/ in', '10 20', '2 in 3 ft', '5 mm 3 mm', '12 mm x', '1/0 x'])('%s is no length', (text) => {
  expect(readLength(text)).toBeNaN();
});

test('nothing typed is nothing', () => {
  expect(readLength('  ')).toBeNull();
});

test('a fraction over nought is no length that a field takes', () => {
  expect(Number.isFinite(readLength('1/0 in'))).toBe(false);
});
