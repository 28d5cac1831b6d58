/** Millimetres of a unit as it is written. */
const UNITS: Record<string, number> = {
  '': 1,
  mm: 1,
  cm: 10,
  m: 1000,
  in: 25.4,
  inch: 25.4,
  inches: 25.4,
  '"': 25.4,
  ft: 304.8,
  "'": 304.8,
};

/** A whole, a decimal or a fraction, or a whole and a fraction: 12, 1.5, 1,5, 3/4, 1 3/4. */
const NUMBER = String.raw`\d+\s+\d+\/\d+|\d+\/\d+|\d+(?:[.,]\d+)?|[.,]\d+`;
const PART = new RegExp(String.raw`^\s*(${NUMBER})\s*(mm|cm|m|inches|inch|in|ft|["'])?\s*`);

function readNumber(text: string): number {
  const sum = text.split(/\s+/).reduce((total, part) => {
    const [over, under] = part.replace(',', '.').split('/').map(Number);
    return total + (under === undefined ? over! : over! / under);
  }, 0);
  return sum;
}

/**
 * A length as somebody types it, mm: a number with a unit or none (then it is mm), fractions too; feet may be followed by inches. What is no
 * length is NaN; nothing typed is null.
 */
export function readLength(text: string): number | null {
  let rest = text.trim().toLowerCase().replace(/[″”]/g, '"').replace(/[′’]/g, "'");
  if (rest === '') return null;
  const sign = /^[-−]/.test(rest) ? -1 : 1;
  if (sign < 0) rest = rest.slice(1);
  const parts: { mm: number; unit: string }[] = [];
  while (rest !== '') {
    const found = PART.exec(rest);
    if (!found) return NaN;
    const unit = found[2] ?? '';
    parts.push({ mm: readNumber(found[1]!) * UNITS[unit]!, unit });
    rest = rest.slice(found[0].length);
  }
  const isFeetAndInches = parts.length === 2 && UNITS[parts[0]!.unit] === 304.8 && UNITS[parts[1]!.unit] === 25.4;
  return parts.length === 1 || isFeetAndInches ? sign * parts.reduce((sum, { mm }) => sum + mm, 0) : NaN;
}
