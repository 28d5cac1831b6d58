import { fromJsonText } from './fromJsonText';
import { findExcess } from './jsonLimits';

const refuse = (text: string) => {
  const parsed = fromJsonText(text);
  return parsed.ok ? null : parsed.problems[0];
};

test.each([
  ['nested 5,000 deep', '['.repeat(5000) + ']'.repeat(5000), '', 'expected at most 64 levels of nesting, got more'],
  ['700,000 values', `[${'0,'.repeat(700_000)}0]`, '', 'expected at most 600000 values, got more'],
  ['a NUL', '{"notes":"a\\u0000b"}', '/notes', 'expected text, got a NUL in it'],
  ['half a pair', '{"notes":["x","\\ud83d"]}', '/notes/1', 'expected text, got half of a surrogate pair in it'],
  ['half a pair in a name', '{"\\udc00":1}', '', 'expected text, got half of a surrogate pair in it'],
  ['a prototype', '{"looms":{"__proto__":{"x":1}}}', '/looms', 'expected another name than "__proto__"'],
  ['a prototype in escapes', '{"\\u005f_proto__":1}', '', 'expected another name than "__proto__"'],
  ['a constructor', '{"a":{"constructor":{}}}', '/a', 'expected another name than "constructor"'],
])('%s is refused with its place', (_, text, path, message) => {
  expect(refuse(text)).toEqual({ path, message });
});

test.each(['{"text":"[[[[ , \\" ] { \\\\"}', '{"smile":"\\ud83d\\ude00 and \\u00e4"}', '"the constructor of the loom"', '{"__proto":1}'])(
  '%s is as it came',
  (text) => {
    expect(fromJsonText(text)).toEqual({ ok: true, value: JSON.parse(text) as unknown });
  },
);

test('brackets and commas within text do not count', () => {
  expect(findExcess(JSON.stringify(['['.repeat(200), ','.repeat(700_000), '\\"['.repeat(100)]))).toBeNull();
  expect(findExcess('['.repeat(64) + ']'.repeat(64))).toBeNull();
});
