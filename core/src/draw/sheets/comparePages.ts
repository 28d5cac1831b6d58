import { toDigest } from '../../make/toDigest';
import type { Mark, SheetPage } from '../drawing';

/** Head and foot of a page, mm: what they say of revision and page is another matter than what the page says. */
const HEAD_MM = 21.5;
const FOOT_MM = 14;

/** A page that is to be taken down: which one it was. */
export interface OldPage {
  sheet: string;
  number: number;
}

/** What a page says, in a short mark: two with the same one say the same, whatever revision and number stand on them. */
export function toPageFingerprint({ marks, heightMm }: Pick<SheetPage, 'marks' | 'heightMm'>): string {
  const body = marks.filter((mark) => {
    const y = toHeight(mark);
    return y > HEAD_MM && y < heightMm - FOOT_MM;
  });
  return toDigest(JSON.stringify(body));
}

const toHeight = (mark: Mark): number => (mark.kind === 'path' ? Number(/^M\s*-?[\d.]+[ ,](-?[\d.]+)/.exec(mark.d)?.[1] ?? 0) : mark.y);

/**
 * What is to be printed of a pack where an earlier one hangs already: pages that say something new, and those of the earlier one that say
 * what is no longer so. A page that only stands elsewhere in its sheet stays.
 */
export function comparePages(before: readonly SheetPage[], after: readonly SheetPage[]): { print: number[]; destroy: OldPage[] } {
  const take = (pages: readonly SheetPage[], others: readonly SheetPage[]): number[] => {
    const known = new Map<string, number>();
    for (const page of others) {
      const key = `${page.sheet}\n${toPageFingerprint(page)}`;
      known.set(key, (known.get(key) ?? 0) + 1);
    }
    return pages.flatMap((page, index) => {
      const key = `${page.sheet}\n${toPageFingerprint(page)}`;
      const left = known.get(key) ?? 0;
      known.set(key, left - 1);
      return left > 0 ? [] : [index + 1];
    });
  };
  return {
    print: take(after, before),
    destroy: take(before, after).map((number) => ({ sheet: before[number - 1]!.sheet, number })),
  };
}
