import { answerSignedIn } from '../../../../../server/accounts/answers';
import { acceptInvite, readInvite } from '../../../../../server/accounts/people';
import { AcceptRequest } from '../../../../../server/accounts/requests';
import { findDevice } from '../../../../../server/accounts/session';
import { guess } from '../../../../../server/limits';
import { Refusal } from '../../../../../server/refusal';
import { toRequest } from '../../../../../server/requests';
import { openHandler, readJson } from '../../../../../server/routeHandler';

/** Who ?code= is for. */
export const GET = openHandler(async (request) => {
  const code = new URL(request.url).searchParams.get('code') ?? '';
  return Response.json(await guess(request.headers, () => readInvite(code)));
});

/** Come in with a code: choose digits, or a sign-in name and a password, or both. */
export const POST = openHandler(async (request) => {
  const body = toRequest(AcceptRequest, await readJson(request));
  if ((body.username === null) !== (body.password === null))
    throw Refusal.at(400, 'password', 'expected a sign-in name and a password, or neither');
  if (body.pin === null && body.password === null) throw Refusal.at(400, 'pin', 'expected digits or a password, got neither');
  return answerSignedIn(request, await guess(request.headers, () => acceptInvite(body)), await findDevice(request.headers));
});
