import { toShopVersion } from '../../../../../server/requests';
import { routeHandler } from '../../../../../server/routeHandler';
import { readShopVersion } from '../../../../../server/shop';

export const GET = routeHandler<{ version: string }>('look', async (_request, { version }) =>
  Response.json(await readShopVersion(toShopVersion(version))),
);
