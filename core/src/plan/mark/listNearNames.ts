/** Something that is called by a legend. */
export interface Named {
  id: string;
  loomId: string;
  name: string;
}

/** Two legends that are taken for one another, and by what. */
export interface NearNames {
  pair: [Named, Named];
  /** the same words, the same in another order, or a letter apart */
  by: 'same' | 'order' | 'letter';
}

/** Longer names are told apart by more than a letter. */
const MOST_LETTERS = 60;
/** where a thousand ends have one name, each is told against the first few */
const MOST_MET = 8;

/**
 * Legends that are taken for one another: the same, the same words in another order, or one letter apart (craft A6). Numbers and single letters name
 * one of many on purpose ("injector 1" and "injector 2", "lamp L" and "lamp R"): names that differ in nothing else are apart.
 */
export function listNearNames(names: readonly Named[]): NearNames[] {
  const read = names.map((named) => ({ named, tokens: toTokens(named.name) }));
  const near: NearNames[] = [];
  // with one letter left out each way, names a letter apart meet: no name is compared with every other
  const byRest = new Map<string, number[]>();
  const isSeen = new Set<string>();
  const compare = (one: number, other: number) => {
    const [low, high] = one < other ? [one, other] : [other, one];
    if (low === high || isSeen.has(`${low} ${high}`)) return;
    isSeen.add(`${low} ${high}`);
    const by = compareTokens(read[low]!.tokens, read[high]!.tokens);
    if (by) near.push({ pair: [read[low]!.named, read[high]!.named], by });
  };
  read.forEach(({ tokens }, at) => {
    const plain = tokens.join('').slice(0, MOST_LETTERS);
    const keys = [`order ${[...tokens].sort().join(' ')}`, plain];
    for (let left = 0; left < plain.length; left += 1) keys.push(plain.slice(0, left) + plain.slice(left + 1));
    for (const key of new Set(keys)) {
      const met = byRest.get(key) ?? [];
      for (const other of met) compare(other, at);
      if (met.length < MOST_MET) met.push(at);
      byRest.set(key, met);
    }
  });
  return near;
}

/** Words, numbers and single letters, in small letters. */
const toTokens = (name: string): string[] => name.toLowerCase().match(/\p{L}+|\d+/gu) ?? [];

const isDesignator = (token: string) => token.length === 1 || /^\d/.test(token);

function compareTokens(one: readonly string[], other: readonly string[]): NearNames['by'] | null {
  if (one.join(' ') === other.join(' ')) return 'same';
  if ([...one].sort().join(' ') === [...other].sort().join(' ')) return 'order';
  const words = (tokens: readonly string[]) => tokens.map((token) => (isDesignator(token) ? '#' : token)).join(' ');
  if (words(one) === words(other)) return null;
  return isWithinOne(one.join(''), other.join('')) ? 'letter' : null;
}

/** Whether one letter put in, left out or changed makes one of the other. */
function isWithinOne(one: string, other: string): boolean {
  const [short, long] = one.length <= other.length ? [one, other] : [other, one];
  if (long.length - short.length > 1) return false;
  let at = 0;
  while (at < short.length && short[at] === long[at]) at += 1;
  return long.length === short.length ? short.slice(at + 1) === long.slice(at + 1) : short.slice(at) === long.slice(at + 1);
}

const SHORTEST = 2;
const LONGEST = 4;

/** Abbreviations among the words of some names that stand for more than one run of words among others: each with the first name that has it and what it could mean. */
export function listTwoMeanings(
  names: readonly string[],
  phrases: readonly string[],
): { abbreviation: string; name: string; meanings: string[] }[] {
  // by abbreviation, the first name that has it
  const used = new Map<string, string>();
  for (const name of names)
    for (const token of toTokens(name)) if (token.length >= SHORTEST && token.length <= LONGEST && !used.has(token)) used.set(token, name);
  const found = new Map<string, Set<string>>();
  for (const phrase of phrases) {
    const words = toTokens(phrase).filter((token) => !isDesignator(token));
    for (let from = 0; from < words.length; from += 1)
      for (let length = SHORTEST; length <= LONGEST && from + length <= words.length; length += 1) {
        const part = words.slice(from, from + length);
        const initials = part.map((word) => word[0]).join('');
        if (!used.has(initials)) continue;
        found.set(initials, (found.get(initials) ?? new Set()).add(part.join(' ')));
      }
  }
  return [...found].flatMap(([abbreviation, meanings]) =>
    meanings.size > 1 ? [{ abbreviation, name: used.get(abbreviation)!, meanings: [...meanings].sort() }] : [],
  );
}
