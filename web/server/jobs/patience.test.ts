import { readRest, toPatience } from './patience';

afterEach(() => delete process.env.WATTOGRAPH_REST_SECONDS);

test('a line is counted when the edits rest, and not before', () => {
  expect(toPatience(4, 4, 4)).toBe(0);
  expect(toPatience(104, 5000, 4)).toBe(0);
  // none was made since it was counted
  expect(toPatience(Infinity, Infinity, 4)).toBe(0);
  expect(toPatience(1, 1, 4)).toBe(3);
  expect(toPatience(0.5, 30, 4)).toBe(3.5);
});

test('edits that never rest do not keep the wall from a line for more than a minute', () => {
  expect(toPatience(0, 58, 4)).toBe(2);
  expect(toPatience(0, 60, 4)).toBe(0);
  expect(toPatience(0, 3600, 4)).toBe(0);
});

test('a server with much to do may let them rest longer, and says what it expects', () => {
  expect(readRest()).toBe(4);
  process.env.WATTOGRAPH_REST_SECONDS = '20';
  const restS = readRest();
  expect([toPatience(5, 5, restS), toPatience(0, 290, restS), toPatience(0, 300, restS)]).toEqual([15, 10, 0]);
  for (const bad of ['0', 'soon', '3601', '']) {
    process.env.WATTOGRAPH_REST_SECONDS = bad;
    expect(readRest).toThrow(`WATTOGRAPH_REST_SECONDS: expected seconds, more than 0 and at most 3600, got ${bad}`);
  }
});
