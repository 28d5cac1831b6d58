import type { Problem } from '../model';

/** deeper than any file of ours by a factor of six; a parser and what walks its values recurse */
const DEEPEST = 64;
/** a job of 3,200 wires has some 150,000 */
const MOST_VALUES = 600_000;

/** Names that mean something else in JavaScript than in a file. */
const RESERVED = new Set(['__proto__', 'constructor', 'prototype']);
const isReserved = (name: string) => RESERVED.has(name);

/** Why JSON text should not even be parsed: nested too deep or too many values; null: neither. One pass, nothing is made. */
export function findExcess(text: string): Problem | null {
  let depth = 0;
  let values = 0;
  let inText = false;
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    if (inText) {
      if (code === BACKSLASH) at += 1;
      else if (code === QUOTE) inText = false;
    } else if (code === QUOTE) inText = true;
    else if (code === OPEN_LIST || code === OPEN_RECORD) {
      depth += 1;
      values += 1;
      if (depth > DEEPEST) return { path: '', message: `expected at most ${DEEPEST} levels of nesting, got more` };
    } else if (code === CLOSE_LIST || code === CLOSE_RECORD) depth -= 1;
    else if (code === COMMA) values += 1;
    if (values > MOST_VALUES) return { path: '', message: `expected at most ${MOST_VALUES} values, got more` };
  }
  return null;
}

const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c];
const [OPEN_LIST, CLOSE_LIST, OPEN_RECORD, CLOSE_RECORD] = [0x5b, 0x5d, 0x7b, 0x7d];

/** escapes and names without which no value needs to be looked through */
const SUSPECT = /\\u(?:0000|[dD][89a-fA-F])|__proto__|"constructor"|"prototype"|\\u00/;

/** What is in parsed JSON that no store keeps as it came: NUL, half of a surrogate pair, a reserved name; null: nothing. */
export function findUnstorable(text: string, value: unknown): Problem | null {
  return SUSPECT.test(text) ? search(value, '') : null;
}

function search(value: unknown, path: string): Problem | null {
  if (typeof value === 'string') return findBadText(value, path);
  if (typeof value !== 'object' || value === null) return null;
  for (const [key, one] of Object.entries(value)) {
    const at = `${path}/${key}`;
    if (isReserved(key)) return { path, message: `expected another name than ${JSON.stringify(key)}` };
    const bad = findBadText(key, path) ?? search(one, at);
    if (bad) return bad;
  }
  return null;
}

function findBadText(text: string, path: string): Problem | null {
  if (text.includes('\0')) return { path, message: 'expected text, got a NUL in it' };
  return /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(text)
    ? { path, message: 'expected text, got half of a surrogate pair in it' }
    : null;
}
