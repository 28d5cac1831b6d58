import { ShopRequest, toRequest } from '../../../server/requests';
import { readJson, routeHandler } from '../../../server/routeHandler';
import { readShop, takeShop } from '../../../server/shop';

/** The shop as it stands; with ?as=file to keep. */
export const GET = routeHandler(
  'look',
  async (request) => {
    const { version, shop } = await readShop();
    if (new URL(request.url).searchParams.get('as') !== 'file') return Response.json({ version, shop });
    return new Response(`${JSON.stringify(shop, null, 2)}\n`, {
      headers: {
        'content-type': 'application/json; charset=utf-8',
        'content-disposition': `attachment; filename="shop-version-${version}.json"`,
      },
    });
  },
  { query: ['as'] },
);

/** Take a new version of the shop. */
export const POST = routeHandler('plan', async (request, _parameters, { name }) =>
  Response.json(await takeShop({ ...toRequest(ShopRequest, await readJson(request)), author: name }), { status: 201 }),
);
