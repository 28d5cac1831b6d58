import { respond } from '../../../../server/respond';
import { readShop } from '../../../../server/shop';

/** Which version of the shop is the present one. */
export const GET = respond(async () => Response.json({ version: (await readShop()).version }));
