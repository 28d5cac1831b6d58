import { toShopVersion } from '../../../../../server/requests';
import { respond } from '../../../../../server/respond';
import { readShopVersion } from '../../../../../server/shop';

export const GET = respond<{ version: string }>(async (_request, { version }) =>
  Response.json(await readShopVersion(toShopVersion(version))),
);
