import { roundTo } from '../../../units';

/** A reading that may be a slip: what to ask, and what it may have been. */
export interface ReadingQuestion {
  words: string;
  options: { label: string; atMm: number }[];
}

/** A next mark further than this from the last is asked about: nobody tapes so far in one go. */
const FAR_MM = 3000;

/**
 * Is a reading likely to be a slip of unit or of order? marks: distances already on the line, rising, mm from its zero.
 * Null where there is nothing to ask. It only asks: what the person says counts.
 */
export function questionReading(marks: readonly { atMm: number; name: string }[], atMm: number): ReadingQuestion | null {
  if (!(atMm > 0)) return null;
  const last = marks.at(-1) ?? { atMm: 0, name: 'where the tape begins' };
  const asTyped = { label: `${atMm} mm, as typed`, atMm };
  const isNext = (mm: number) => mm > last.atMm && mm <= last.atMm + FAR_MM;
  if (atMm < last.atMm) {
    const slips = [
      { unit: 'centimetres', mm: roundTo(atMm * 10, 1) },
      { unit: 'inches', mm: roundTo(atMm * 25.4, 1) },
    ]
      .filter(({ mm }) => isNext(mm))
      .slice(0, 1);
    const before = marks.filter((mark) => mark.atMm < atMm).at(-1);
    const after = marks.find((mark) => mark.atMm > atMm)!;
    const between = before
      ? `between ${before.name} (${Math.round(before.atMm)}) and ${after.name} (${Math.round(after.atMm)})`
      : `before ${after.name} (${Math.round(after.atMm)})`;
    const [slip] = slips;
    return {
      words: slip
        ? `${atMm} lies ${between}. Did you read ${slip.unit}?`
        : `${atMm} is out of order: the last mark is ${last.name} at ${Math.round(last.atMm)}. Does it lie ${between}?`,
      options: [...slips.map(({ mm }) => ({ label: `${mm} mm`, atMm: mm })), { label: `${atMm} mm, ${between}`, atMm }],
    };
  }
  if (isNext(atMm) || atMm === last.atMm) return null;
  const tenth = roundTo(atMm / 10, 1);
  return {
    words: `${atMm} is ${((atMm - last.atMm) / 1000).toFixed(1)} m beyond ${last.name} (${Math.round(last.atMm)}).`,
    options: [...(isNext(tenth) ? [{ label: `${tenth} mm`, atMm: tenth }] : []), asTyped],
  };
}
