import { routeHandler } from '../../../../server/routeHandler';
import { readShop } from '../../../../server/shop';

/** Which version of the shop is the present one. */
export const GET = routeHandler('look', async () => Response.json({ version: (await readShop()).version }));
