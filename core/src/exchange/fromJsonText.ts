import type { Checked } from '../model';
import { findExcess, findUnstorable } from './jsonLimits';

/**
 * Parse JSON; where it breaks, say at which line and column, and what stood there. Refuses what is nested too deep or holds too many values
 * before it is parsed, and text that no database keeps.
 */
export function fromJsonText(source: string): Checked<unknown> {
  const withoutMark = source.startsWith('\ufeff') ? source.slice(1) : source;
  if (withoutMark.trim() === '') return { ok: false, problems: [{ path: 'line 1', message: 'expected JSON, got an empty file' }] };
  const excess = findExcess(withoutMark);
  if (excess) return { ok: false, problems: [excess] };
  try {
    const value: unknown = JSON.parse(withoutMark);
    const unstorable = findUnstorable(withoutMark, value);
    return unstorable ? { ok: false, problems: [unstorable] } : { ok: true, value };
  } catch (error) {
    const message = error instanceof Error ? error.message : String(error);
    const position = /position (\d+)/.exec(message);
    const at = position ? Number(position[1]) : withoutMark.length;
    const before = withoutMark.slice(0, at).split('\n');
    const atEnd = at >= withoutMark.trimEnd().length;
    return {
      ok: false,
      problems: [
        {
          path: `line ${before.length}, column ${before.at(-1)!.length + 1}`,
          message: atEnd
            ? 'expected more JSON, got the end of the file: it is cut short'
            : `expected JSON, got ${JSON.stringify(withoutMark.slice(at, at + 12))}`,
        },
      ],
    };
  }
}
