import { isSecure } from '../../../../server/accounts/answers';
import { record } from '../../../../server/accounts/record';
import { DeviceRequest } from '../../../../server/accounts/requests';
import { addDevice } from '../../../../server/accounts/session';
import { database } from '../../../../server/database';
import { toRequest } from '../../../../server/requests';
import { readJson, routeHandler } from '../../../../server/routeHandler';

/** Make the device that asks one of the shop: people sign in on it with their digits. */
export const POST = routeHandler('plan', async (request, _parameters, person) => {
  const { name } = toRequest(DeviceRequest, await readJson(request));
  const device = await addDevice(name, person.name, isSecure(request));
  await record(database(), person.name, 'made a device one of the shop', name);
  return Response.json({ id: device.id }, { status: 201, headers: { 'set-cookie': device.cookie } });
});
