import { CAVITY_NAME, type Checked } from '../model';

const MOST = 320;
const MOST_LETTERS = 4000;

/**
 * Names of cavities from words: "A to Z without I, O, Q then a to c", "1-12", "A1-A8", or one after the other as a spreadsheet has them.
 * What is left out holds up to the next "then" or line.
 */
export function fromCavityWords(text: string): Checked<string[]> {
  const refuse = (message: string): Checked<string[]> => ({ ok: false, problems: [{ path: '', message }] });
  if (text.length > MOST_LETTERS) return refuse(`expected at most ${MOST_LETTERS} letters, got ${text.length}`);
  const names: string[] = [];
  for (const part of text.split(/\bthen\b|[;\n\r]+/i)) {
    const [kept, left = '', ...more] = part.split(/\bwithout\b/i);
    if (more.length > 0) return refuse('expected "without" once in a part, got it twice; begin a new part with "then"');
    const [listed, out] = [kept!, left].map((words) => readNames(words));
    for (const one of [listed!, out!]) if (typeof one === 'string') return refuse(one);
    const without = new Set(out as string[]);
    const strange = [...without].find((name) => !listed!.includes(name));
    if (strange !== undefined) return refuse(`expected to leave out a name that is listed, got "${strange}"`);
    names.push(...(listed as string[]).filter((name) => !without.has(name)));
    if (names.length > MOST) return refuse(`expected at most ${MOST} names, got more`);
  }
  return names.length > 0 ? { ok: true, value: names } : refuse('expected names such as A to H or 1 to 12, got nothing');
}

/** Names and ranges of them, or what is wrong with them. */
function readNames(words: string): string[] | string {
  const names: string[] = [];
  for (const word of words
    .replace(/\s*(?:-|–|\bto\b)\s*/g, '-')
    .split(/[\s,]+/)
    .filter((one) => one !== '' && one !== 'and')) {
    const [from, to, ...more] = word.split('-');
    const range = more.length > 0 ? null : to === undefined ? [from!] : listRange(from!, to);
    if (range === null) return `expected a range of letters or of numbers such as A to H or A1 to A8, got "${word.replace(/-/g, ' to ')}"`;
    const bad = range.find((name) => !CAVITY_NAME.test(name));
    if (bad !== undefined) return `expected names of 1 to 6 letters or digits, got "${bad}"`;
    names.push(...range);
    if (names.length > MOST) return `expected at most ${MOST} names, got more`;
  }
  return names;
}

function listRange(from: string, to: string): string[] | null {
  if (/^[A-Z]$/.test(from) && /^[A-Z]$/.test(to)) return listLetters(from, to);
  if (/^[a-z]$/.test(from) && /^[a-z]$/.test(to)) return listLetters(from, to);
  const [first, last] = [from, to].map((name) => /^([A-Za-z]*)(\d{1,4})$/.exec(name));
  if (!first || !last || first[1] !== last[1]) return null;
  const [low, high] = [Number(first[2]), Number(last[2])];
  return low <= high && high - low < MOST ? Array.from({ length: high - low + 1 }, (_, index) => `${first[1]}${low + index}`) : null;
}

function listLetters(from: string, to: string): string[] | null {
  const [low, high] = [from.charCodeAt(0), to.charCodeAt(0)];
  return low <= high ? Array.from({ length: high - low + 1 }, (_, index) => String.fromCharCode(low + index)) : null;
}
