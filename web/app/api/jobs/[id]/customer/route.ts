import { answerAsked, readCustomerView } from '../../../../../server/jobs/customer';
import { AnswerRequest, toJobId, toRequest } from '../../../../../server/requests';
import { readJson, routeHandler } from '../../../../../server/routeHandler';

/** What a customer sees of a job. */
export const GET = routeHandler<{ id: string }>('answer', async (_request, { id }, person) =>
  Response.json(await readCustomerView(toJobId(id), person)),
);

/** Answer what the shop asked. Gives what the customer sees then. */
export const POST = routeHandler<{ id: string }>('answer', async (request, { id }, person) => {
  await answerAsked(toJobId(id), toRequest(AnswerRequest, await readJson(request)), person);
  return Response.json(await readCustomerView(toJobId(id), person));
});
