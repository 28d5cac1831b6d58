/** Something wrong with a document: where (a JSON Pointer, or a line of a file) and what was expected and got. */
export interface Problem {
  path: string;
  message: string;
}

export type Checked<T> = { ok: true; value: T } | { ok: false; problems: Problem[] };

/** One line a problem, for a terminal or a log. */
export function toProblemLines(problems: readonly Problem[]): string[] {
  return problems.map(({ path, message }) => `${path === '' ? '/' : path}: ${message}`);
}
