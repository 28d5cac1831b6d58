import { answerSignedIn } from '../../../../server/accounts/answers';
import { checkPassword } from '../../../../server/accounts/people';
import { SignInRequest } from '../../../../server/accounts/requests';
import { findDevice } from '../../../../server/accounts/session';
import { guess } from '../../../../server/limits';
import { toRequest } from '../../../../server/requests';
import { openHandler, readJson } from '../../../../server/routeHandler';

/** Sign in with a name and a password, anywhere. */
export const POST = openHandler(async (request) => {
  const { username, password } = toRequest(SignInRequest, await readJson(request));
  return answerSignedIn(request, await guess(request.headers, () => checkPassword(username, password)), await findDevice(request.headers));
});
