/** Months of a language, long and short, in lower case and without full stops. */
function listMonths(locale: string): string[][] {
  return Array.from({ length: 12 }, (_, month) =>
    (['long', 'short'] as const).map((style) =>
      new Intl.DateTimeFormat(locale, { month: style, timeZone: 'UTC' })
        .format(Date.UTC(2026, month, 1))
        .toLowerCase()
        .replace('.', ''),
    ),
  );
}

/** Whether the reader's language writes day, month, year in that order, or the month or the year first. */
function listOrder(locale: string): string[] {
  return new Intl.DateTimeFormat(locale, { day: '2-digit', month: '2-digit', year: 'numeric', timeZone: 'UTC' })
    .formatToParts(Date.UTC(2026, 11, 24))
    .flatMap(({ type }) => (type === 'day' || type === 'month' || type === 'year' ? [type] : []));
}

const toDay = (year: number, month: number, day: number): string | null => {
  const date = new Date(Date.UTC(year, month - 1, day));
  return date.getUTCFullYear() === year && date.getUTCMonth() === month - 1 && date.getUTCDate() === day
    ? date.toISOString().slice(0, 10)
    : null;
};

/**
 * A day as somebody types it, as YYYY-MM-DD; null where it is none (yet): numbers in the order of the reader's language with whatever stands
 * between, the year first, or the month as a word. The year has four digits, so that a day is not taken before it is all there.
 */
export function readDay(text: string, locale: string): string | null {
  const parts = text
    .trim()
    .toLowerCase()
    .split(/[\s./,-]+/)
    .filter(Boolean);
  if (parts.length !== 3) return null;
  const yearAt = parts.findIndex((part) => /^\d{4}$/.test(part));
  if (yearAt === -1) return null;
  const year = Number(parts[yearAt]);
  const others = parts.filter((_, index) => index !== yearAt);
  const named = others.findIndex((part) => !/^\d+$/.test(part));
  if (named !== -1) {
    const month = listMonths(locale).findIndex((names) =>
      names.some((name) => name === others[named] || (others[named]!.length >= 3 && name.startsWith(others[named]!))),
    );
    const day = others[1 - named]!;
    return month === -1 || !/^\d{1,2}$/.test(day) ? null : toDay(year, month + 1, Number(day));
  }
  const [first, second] = others.map(Number) as [number, number];
  const order = listOrder(locale);
  const isMonthFirst = yearAt === 0 || order.indexOf('month') < order.indexOf('day');
  return isMonthFirst ? toDay(year, first, second) : toDay(year, second, first);
}

/** A day in the reader's language, the month as a word: it cannot be taken for another. */
export function writeDay(day: string, locale: string): string {
  return new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' }).format(
    new Date(`${day.slice(0, 10)}T00:00:00Z`),
  );
}
