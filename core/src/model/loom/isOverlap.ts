import type { EditOperation } from '../job/applyEdit';

/** Do two patches touch the same place, or one a part of what the other touches? */
export function isOverlap(a: readonly EditOperation[], b: readonly EditOperation[]): boolean {
  const place = ({ path }: EditOperation) => path.replace(/\/-$/, '');
  const within = (one: string, other: string) => one === other || one.startsWith(`${other}/`) || other.startsWith(`${one}/`);
  return a.some((one) => b.some((other) => within(place(one), place(other))));
}
