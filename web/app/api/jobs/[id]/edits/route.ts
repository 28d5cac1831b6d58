import type { EditOperation } from 'wattograph-core';
import { listEditsSince, takeEdit } from '../../../../../server/documents';
import { EditRequest, toJobId, toRequest, toVersion } from '../../../../../server/requests';
import { readJson, routeHandler } from '../../../../../server/routeHandler';

/** Take one edit (JSON Patch with the version it was made against). */
export const POST = routeHandler<{ id: string }>('plan', async (request, { id }, { name }) => {
  const edit = toRequest(EditRequest, await readJson(request));
  return Response.json(await takeEdit(toJobId(id), { ...edit, author: name, patch: edit.patch as EditOperation[] }));
});

/** The edits after ?since=. */
export const GET = routeHandler<{ id: string }>(
  'look',
  async (request, { id }) => {
    const since = toVersion(new URL(request.url).searchParams.get('since') ?? '', 'since');
    return Response.json(await listEditsSince(toJobId(id), since));
  },
  { query: ['since'] },
);
