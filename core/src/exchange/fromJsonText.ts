import type { Checked } from '../model';

/** Parse JSON; where it breaks, say at which line and column, and what stood there. */
export function fromJsonText(source: string): Checked<unknown> {
  const withoutMark = source.startsWith('\ufeff') ? source.slice(1) : source;
  if (withoutMark.trim() === '') return { ok: false, problems: [{ path: 'line 1', message: 'expected JSON, got an empty file' }] };
  try {
    return { ok: true, value: JSON.parse(withoutMark) };
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
