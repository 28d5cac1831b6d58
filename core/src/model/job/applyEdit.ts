import jsonPatch, { type Operation } from 'fast-json-patch';
import { produce } from 'immer';
import type { Checked, Problem } from '../problem';

export type EditOperation = Operation;

/**
 * Apply a JSON Patch (RFC 6902) and leave the given document as it is. What the patch does not touch stays
 * identical (===), so that the plan can tell what changed. A patch that does not fit is refused whole.
 */
export function applyEdit<T extends object>(document: T, patch: readonly EditOperation[]): Checked<T> {
  const outside = findOutside(patch);
  if (outside) return { ok: false, problems: [outside] };
  try {
    const next = produce(document, (draft) => {
      jsonPatch.applyPatch(draft, structuredClone(patch) as Operation[], true, true);
    });
    return { ok: true, value: next };
  } catch (error) {
    if (!(error instanceof jsonPatch.JsonPatchError)) throw error;
    const operation = error.operation as Operation | undefined;
    return {
      ok: false,
      problems: [
        {
          path: operation?.path ?? `/${error.index ?? 0}`,
          message: `this edit does not fit the document: ${error.name.toLowerCase().replaceAll('_', ' ')}`,
        },
      ],
    };
  }
}

const RESERVED = /\/(__proto__|constructor|prototype)(\/|$)/;

/** A place that no edit may write to: the document as a whole, or what is behind every object. */
function findOutside(patch: readonly EditOperation[]): Problem | null {
  for (const operation of patch) {
    const { path, op } = operation;
    const from = 'from' in operation ? operation.from : null;
    for (const place of from === null ? [path] : [path, from]) {
      if (RESERVED.test(place)) return { path: place, message: 'expected a place in the document, got a reserved name' };
      if (place === '' && op !== 'test') return { path: '', message: `expected a place in the document to ${op}, got the whole of it` };
    }
    if (from !== null && path.startsWith(`${from}/`))
      return { path, message: `expected a place outside of what is moved, got one in ${from}` };
  }
  return null;
}

/** The JSON Patch that leads from one document to another; with the two swapped, the inverse. */
export function listOperations(before: object, after: object): EditOperation[] {
  return jsonPatch.compare(before, after);
}

/** The document as a recipe that may write to its copy leaves it. What it does not touch stays identical (===). */
export function changeDocument<T extends object>(document: T, recipe: (draft: T) => void): T {
  return produce(document, (draft) => {
    recipe(draft as T);
  });
}

/** The same, with the patch that leads there. */
export function editDocument<T extends object>(document: T, recipe: (draft: T) => void): { next: T; patch: EditOperation[] } {
  const next = changeDocument(document, recipe);
  return { next, patch: listOperations(document, next) };
}
