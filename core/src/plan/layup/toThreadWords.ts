import type { Thread } from './layupTypes';

/** What an element is called at a mark: its wire's number, or those of the group that lies there. */
export function toThreadWords({ parts, kind }: Pick<Thread, 'parts' | 'kind'>, numbers: ReadonlyMap<string, string>, mark: number): string {
  const part = parts.find(({ fromMark, toMark }) => fromMark <= mark && mark < toMark) ?? parts.at(mark >= parts[0]!.fromMark ? -1 : 0)!;
  const all = part.wireIds.map((id) => numbers.get(id)!);
  if (kind === 'cable') return `cable of ${all[0]!}`;
  return all.length > 1 ? all.join(' + ') : all[0]!;
}

/** An angle as a clock position: "3 o'clock", "half past 4". */
export function toClockWords(deg: number): string {
  const half = Math.round((((deg % 360) + 360) % 360) / 15) % 24;
  const hour = Math.floor(half / 2) || 12;
  return half % 2 ? `half past ${hour}` : `${hour} o’clock`;
}
