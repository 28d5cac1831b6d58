import { readJob } from '../../../../../server/documents';
import { toJobId } from '../../../../../server/requests';
import { respond } from '../../../../../server/respond';
import { previewBringUp } from '../../../../../server/shop';

/** What planning this job with the shop as it stands would change. */
export const GET = respond<{ id: string }>(async (_request, { id }) => {
  const { id: jobId, document } = await readJob(toJobId(id), '');
  return Response.json(await previewBringUp(jobId, document));
});
