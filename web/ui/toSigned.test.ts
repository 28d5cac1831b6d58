import { toSigned } from './toSigned';

test.each([
  [1.26, 1, '+1.3'],
  [-1.26, 1, '−1.3'],
  [-0.04, 1, '0.0'],
  [0.04, 1, '0.0'],
  [-0.05001, 1, '−0.1'],
  [-3, 0, '−3'],
  [0, 0, '0'],
])('%s to %s places is %s', (value, digits, words) => expect(toSigned(value, digits)).toBe(words));
