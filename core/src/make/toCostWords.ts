import type { PartLine } from './listParts';

/** What the parts of a loom cost, and how many lines have no price: for a glance, and whole. */
export function toCostWords(parts: readonly Pick<PartLine, 'cost'>[], currency: string | null): { short: string; whole: string } {
  const priced = parts.flatMap(({ cost }) => (cost === null ? [] : [cost]));
  if (priced.length === 0) return { short: '', whole: 'The shop states no prices.' };
  const sum = priced.reduce((total, cost) => total + cost, 0).toFixed(2);
  const open = parts.length - priced.length;
  const short = `${open > 0 ? 'parts from' : 'parts'} ${sum}${currency === null ? '' : ` ${currency}`}`;
  const rest = open === 0 ? 'Every line has a price.' : `${open} of ${parts.length} lines of the parts list have no price.`;
  return { short, whole: `What is used of the parts, held wires included. ${rest}` };
}
