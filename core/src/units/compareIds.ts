const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'variant' });

/** Natural order for ids and cavity names: "9" before "10", and the same on every machine. */
export function compareIds(a: string, b: string): number {
  if (a === b) return 0;
  const first = compareFirst(a, b);
  if (first !== 0) return first;
  return collator.compare(a, b) || (a < b ? -1 : a > b ? 1 : 0);
}

const isDigit = (code: number) => code >= 48 && code <= 57;
const isSmall = (code: number) => code >= 97 && code <= 122;

/** Order by the first difference where that is between two small letters or two plain numbers; 0: the collator has to say, which is slow. */
function compareFirst(a: string, b: string): number {
  const most = Math.min(a.length, b.length);
  let at = 0;
  while (at < most && a.charCodeAt(at) === b.charCodeAt(at)) {
    // letters of other scripts may join with what follows
    if (a.charCodeAt(at) > 126) return 0;
    at += 1;
  }
  if (at === most) return 0;
  const [one, other] = [a.charCodeAt(at), b.charCodeAt(at)];
  if (isSmall(one) && isSmall(other)) return isJoined(a, at) || isJoined(b, at) ? 0 : one - other;
  if (!isDigit(one) || !isDigit(other)) return 0;
  let start = at;
  while (start > 0 && isDigit(a.charCodeAt(start - 1))) start -= 1;
  if (a.charCodeAt(start) === 48 || b.charCodeAt(start) === 48) return 0;
  const [endA, endB] = [endOfNumber(a, at), endOfNumber(b, at)];
  return endA === endB ? one - other : endA - endB;
}

/** Does an accent follow a letter? */
const isJoined = (text: string, at: number) => text.charCodeAt(at + 1) > 126;

function endOfNumber(text: string, from: number): number {
  let end = from;
  while (end < text.length && isDigit(text.charCodeAt(end))) end += 1;
  return end;
}
