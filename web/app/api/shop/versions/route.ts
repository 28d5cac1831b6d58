import { respond } from '../../../../server/respond';
import { listShopVersions } from '../../../../server/shop';

export const GET = respond(async () => Response.json(await listShopVersions()));
