const toParts = (day: string): [number, number, number] | null => {
  const found = /^(\d{4})-(\d{2})-(\d{2})$/.exec(day);
  return found && [Number(found[1]), Number(found[2]), Number(found[3])];
};

/**
 * Days since 0000-03-01 in the Gregorian calendar, years begun in March so that the leap day is the last of its year
 * (E. G. Richards, Calendars, in Explanatory Supplement to the Astronomical Almanac, 3rd ed., 15.11).
 */
function toCount(year: number, month: number, date: number): number {
  const y = month > 2 ? year : year - 1;
  const m = month > 2 ? month - 3 : month + 9;
  return 365 * y + Math.floor(y / 4) - Math.floor(y / 100) + Math.floor(y / 400) + Math.floor((153 * m + 2) / 5) + date - 1;
}

function fromCount(count: number): string {
  let year = Math.floor((count + 0.75) / 365.2425);
  while (toCount(year + 1, 3, 1) <= count) year += 1;
  while (toCount(year, 3, 1) > count) year -= 1;
  const rest = count - toCount(year, 3, 1);
  const m = Math.floor((5 * rest + 2) / 153);
  const date = rest - Math.floor((153 * m + 2) / 5) + 1;
  const [y, month] = m < 10 ? [year, m + 3] : [year + 1, m - 9];
  return [String(y).padStart(4, '0'), String(month).padStart(2, '0'), String(date).padStart(2, '0')].join('-');
}

/** Is this a day that there is, as in 2026-11-25? */
export function isDay(text: string): boolean {
  const parts = toParts(text);
  return parts !== null && parts[1] >= 1 && parts[1] <= 12 && parts[2] >= 1 && fromCount(toCount(...parts)) === text;
}

/** The day so many days later; throws where it is none. */
export function addDays(day: string, days: number): string {
  const parts = toParts(day);
  if (!parts || !isDay(day)) throw new Error(`day: expected one as in 2026-11-25, got ${JSON.stringify(day)}`);
  return fromCount(toCount(...parts) + days);
}
