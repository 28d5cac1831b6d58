import { routeHandler } from '../../../../server/routeHandler';
import { listShopVersions } from '../../../../server/shop';

export const GET = routeHandler(async () => Response.json(await listShopVersions()));
