import { REST_S, toPatience } from './patience';

test('a line is counted when the edits rest, and not before', () => {
  expect(toPatience(REST_S, REST_S)).toBe(0);
  expect(toPatience(REST_S + 100, 5000)).toBe(0);
  // none was made since it was counted
  expect(toPatience(Infinity, Infinity)).toBe(0);
  expect(toPatience(1, 1)).toBe(REST_S - 1);
  expect(toPatience(0.5, 30)).toBe(REST_S - 0.5);
});

test('edits that never rest do not keep the wall from a line for more than a minute', () => {
  expect(toPatience(0, 58)).toBe(2);
  expect(toPatience(0, 60)).toBe(0);
  expect(toPatience(0, 3600)).toBe(0);
});
