import { answerSignedIn, isSecure } from '../../../../server/accounts/answers';
import { readDemoPins } from '../../../../server/accounts/demo';
import { checkPin } from '../../../../server/accounts/people';
import { PinRequest } from '../../../../server/accounts/requests';
import { addDevice, findDevice } from '../../../../server/accounts/session';
import { guess } from '../../../../server/limits';
import { Refusal } from '../../../../server/refusal';
import { toRequest } from '../../../../server/requests';
import { openHandler, readJson } from '../../../../server/routeHandler';

/** Sign in with digits, on a device of the shop. */
export const POST = openHandler(async (request) => {
  const { personId, pin } = toRequest(PinRequest, await readJson(request));
  const deviceId = await findDevice(request.headers);
  const isDemo = deviceId === null && (await readDemoPins()) !== null;
  if (!deviceId && !isDemo) throw Refusal.at(403, '', 'Digits open only a device of the shop. Sign in with your name and password.');
  await guess(request.headers, () => checkPin(personId, pin));
  if (!isDemo) return answerSignedIn(request, personId, deviceId);
  const device = await addDevice('a browser of the demo', 'the demo', isSecure(request));
  return answerSignedIn(request, personId, device.id, [device.cookie]);
});
