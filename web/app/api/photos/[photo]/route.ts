import { readPhoto, removePhoto } from '../../../../server/photos';
import { toJobId } from '../../../../server/requests';
import { routeHandler } from '../../../../server/routeHandler';

export const GET = routeHandler<{ photo: string }>('look', async (_request, { photo }) => {
  const { bytes } = await readPhoto(toJobId(photo));
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable' },
  });
});

export const DELETE = routeHandler<{ photo: string }>('report', async (_request, { photo }) => {
  await removePhoto(toJobId(photo));
  return Response.json({});
});
