import { ShopPreviewRequest, toRequest } from '../../../../server/requests';
import { readJson, respond } from '../../../../server/respond';
import { previewShop } from '../../../../server/shop';

/** What a shop would change, in its tables and in every job. */
export const POST = respond(async (request) =>
  Response.json(await previewShop(toRequest(ShopPreviewRequest, await readJson(request)).document)),
);
