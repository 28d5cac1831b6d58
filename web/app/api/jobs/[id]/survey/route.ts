import { takeSurvey } from '../../../../../server/documents';
import { SurveyRequest, toJobId, toRequest } from '../../../../../server/requests';
import { readJson, routeHandler } from '../../../../../server/routeHandler';

/** Take survey entries; ids that are known are passed over. Gives the job as it then stands. */
export const POST = routeHandler<{ id: string }>('report', async (request, { id }, { name }) => {
  const { entries } = toRequest(SurveyRequest, await readJson(request));
  return Response.json(
    await takeSurvey(
      toJobId(id),
      entries.map((entry) => ({ ...entry, author: name })),
    ),
  );
});
