import { listPhotos, MOST_PHOTO_BYTES, writePhoto } from '../../../../../server/photos';
import { PhotoRequest, toJobId, toRequest } from '../../../../../server/requests';
import { readBytes, routeHandler } from '../../../../../server/routeHandler';

/** Photos of a job, without their bytes. */
export const GET = routeHandler<{ id: string }>('look', async (_request, { id }) => Response.json(await listPhotos(toJobId(id))));

/** Store a photo: the picture is the body, ?id= ?loom= ?node= ?caption= ?author= ?takenAt= say what it shows. The same id again is the same photo. */
export const POST = routeHandler<{ id: string }>(
  'report',
  async (request, { id }, { name }) => {
    const jobId = toJobId(id);
    const about = toRequest(PhotoRequest, Object.fromEntries(new URL(request.url).searchParams));
    return Response.json(await writePhoto(jobId, { ...about, author: name }, await readBytes(request, MOST_PHOTO_BYTES)), { status: 201 });
  },
  { query: Object.keys(PhotoRequest.properties) },
);
