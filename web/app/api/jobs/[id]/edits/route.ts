import type { EditOperation } from 'wattograph-core';
import { listEditsSince, takeEdit } from '../../../../../server/documents';
import { Refusal } from '../../../../../server/refusal';
import { EditRequest, toJobId, toRequest } from '../../../../../server/requests';
import { readJson, routeHandler } from '../../../../../server/routeHandler';

/** Take one edit (JSON Patch with the version it was made against). */
export const POST = routeHandler<{ id: string }>(async (request, { id }) => {
  const edit = toRequest(EditRequest, await readJson(request));
  return Response.json(await takeEdit(toJobId(id), { ...edit, patch: edit.patch as EditOperation[] }));
});

/** The edits after ?since=. */
export const GET = routeHandler<{ id: string }>(async (request, { id }) => {
  const since = Number(new URL(request.url).searchParams.get('since'));
  if (!Number.isInteger(since)) throw Refusal.at(400, 'since', 'expected a version, got something else');
  return Response.json(await listEditsSince(toJobId(id), since));
});
