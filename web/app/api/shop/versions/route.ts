import { routeHandler } from '../../../../server/routeHandler';
import { listShopVersions } from '../../../../server/shop';

export const GET = routeHandler('look', async () => Response.json(await listShopVersions()));
