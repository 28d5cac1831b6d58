import { asc, eq } from 'drizzle-orm';
import sharp from 'sharp';
import { database } from './database';
import { Refusal } from './refusal';
import { jobs, photos, type PhotoRow } from './schema';
import { tell } from './tell';

export const MOST_PHOTO_BYTES = 20 * 1024 * 1024;
const MOST_PIXELS = 80_000_000;
const LONGEST_PX = 2000;

/** What a photo shows, without its bytes. */
export type PhotoLine = Omit<PhotoRow, 'bytes' | 'jobId' | 'receivedAt'>;

const LINE = {
  id: photos.id,
  loomId: photos.loomId,
  nodeId: photos.nodeId,
  caption: photos.caption,
  author: photos.author,
  widthPx: photos.widthPx,
  heightPx: photos.heightPx,
  takenAt: photos.takenAt,
};

/**
 * Store a photo of a job. It is turned upright, brought to at most 2000 px and written anew, so that place, camera and
 * everything else that came in the file stays out. The same id again is the same photo.
 */
export async function writePhoto(
  jobId: string,
  about: { id: string; loom: string; node: string; caption: string; author: string; takenAt: string },
  file: Buffer,
): Promise<{ id: string }> {
  const [job] = await database().select({ id: jobs.id }).from(jobs).where(eq(jobs.id, jobId));
  if (!job) throw Refusal.at(404, '', 'There is no such job.');
  const picture = await sharp(file, { limitInputPixels: MOST_PIXELS, failOn: 'truncated' })
    .rotate()
    .resize(LONGEST_PX, LONGEST_PX, { fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: 82 })
    .toBuffer({ resolveWithObject: true })
    .catch(() => {
      throw Refusal.at(
        422,
        'photo',
        'expected a photograph (JPEG, PNG, WebP), got a file that is none or is cut short: nothing was stored',
      );
    });
  await database()
    .insert(photos)
    .values({
      id: about.id,
      jobId,
      loomId: about.loom,
      nodeId: about.node,
      caption: about.caption,
      author: about.author,
      takenAt: new Date(about.takenAt),
      widthPx: picture.info.width,
      heightPx: picture.info.height,
      bytes: picture.data,
    })
    .onConflictDoNothing();
  await tell(database(), { topic: 'photos', id: jobId });
  return { id: about.id };
}

export async function listPhotos(jobId: string): Promise<PhotoLine[]> {
  return database().select(LINE).from(photos).where(eq(photos.jobId, jobId)).orderBy(asc(photos.takenAt));
}

export async function readPhoto(id: string): Promise<{ bytes: Buffer }> {
  const [row] = await database().select({ bytes: photos.bytes }).from(photos).where(eq(photos.id, id));
  if (!row) throw Refusal.at(404, '', 'There is no such photo.');
  return row;
}

export async function removePhoto(id: string): Promise<void> {
  const [gone] = await database().delete(photos).where(eq(photos.id, id)).returning({ jobId: photos.jobId });
  if (gone) await tell(database(), { topic: 'photos', id: gone.jobId });
}
