import jsonPatch, { type Operation } from 'fast-json-patch';
import { produce } from 'immer';
import type { Checked } from '../problem';

export type EditOperation = Operation;

/**
 * Apply a JSON Patch (RFC 6902) and leave the given document as it is. What the patch does not touch stays
 * identical (===), so that the plan can tell what changed. A patch that does not fit is refused whole.
 */
export function applyEdit<T extends object>(document: T, patch: readonly EditOperation[]): Checked<T> {
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
