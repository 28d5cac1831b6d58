import { createHash } from 'node:crypto';
import { asc, eq, isNotNull } from 'drizzle-orm';
import sharp from 'sharp';
import { expectSame, toContentHash } from './contentHash';
import { database } from './database';
import { findPhotoStore, removeStored } from './photoStore';
import { Refusal } from './refusal';
import { jobs, photos, type PhotoRow } from './schema';
import { tell } from './tell';

export const MOST_PHOTO_BYTES = 20 * 1024 * 1024;
const MOST_PIXELS = 80_000_000;
const LONGEST_PX = 2000;

/** What a photo shows, without its bytes. */
export type PhotoLine = Omit<PhotoRow, 'bytes' | 'jobId' | 'receivedAt' | 'hash'>;

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

/** Does the file begin as a JPEG, PNG or WebP does? Nothing else is handed to a decoder: drawings and documents can be made to take minutes. */
function isRaster(file: Buffer): boolean {
  const starts = (bytes: readonly number[], at = 0) => bytes.every((byte, index) => file[at + index] === byte);
  const isWebp = file.subarray(0, 4).toString('latin1') === 'RIFF' && file.subarray(8, 12).toString('latin1') === 'WEBP';
  return starts([0xff, 0xd8, 0xff]) || starts([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]) || isWebp;
}

/**
 * Store a photo of a job. It is turned upright, brought to at most 2000 px and written anew, so that place, camera and
 * everything else that came in the file stays out. The same id and content again is the same photo.
 */
export async function writePhoto(
  jobId: string,
  about: { id: string; loom: string; node: string; caption: string; author: string; takenAt: string },
  file: Buffer,
): Promise<{ id: string }> {
  const [job] = await database().select({ id: jobs.id }).from(jobs).where(eq(jobs.id, jobId));
  if (!job) throw Refusal.at(404, '', 'There is no such job.');
  const refuse = () =>
    Refusal.at(422, 'photo', 'expected a photograph (JPEG, PNG, WebP), got a file that is none or is cut short: nothing was stored');
  if (!isRaster(file)) throw refuse();
  const hash = toContentHash({ jobId, ...about, file: createHash('sha256').update(file).digest('hex') });
  if (await isStored(about.id, hash)) return { id: about.id };
  const picture = await sharp(file, { limitInputPixels: MOST_PIXELS, failOn: 'truncated', pages: 1 })
    .rotate()
    .resize(LONGEST_PX, LONGEST_PX, { fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: 82 })
    .toBuffer({ resolveWithObject: true })
    .catch(() => {
      throw refuse();
    });
  const store = findPhotoStore();
  await store?.put(about.id, picture.data);
  const [made] = await database()
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
      bytes: store ? null : picture.data,
      hash,
    })
    .onConflictDoNothing()
    .returning({ id: photos.id });
  // sent twice at the same moment
  if (!made) await isStored(about.id, hash);
  await tell(database(), { topic: 'photos', id: jobId });
  return { id: about.id };
}

async function isStored(id: string, hash: string): Promise<boolean> {
  const [known] = await database().select({ hash: photos.hash }).from(photos).where(eq(photos.id, id));
  if (known) expectSame(known.hash, hash, 'photo');
  return known !== undefined;
}

export async function listPhotos(jobId: string): Promise<PhotoLine[]> {
  return database().select(LINE).from(photos).where(eq(photos.jobId, jobId)).orderBy(asc(photos.takenAt));
}

export async function readPhoto(id: string): Promise<{ bytes: Buffer }> {
  const [row] = await database().select({ bytes: photos.bytes }).from(photos).where(eq(photos.id, id));
  if (!row) throw Refusal.at(404, '', 'There is no such photo.');
  const bytes = row.bytes ?? (await findPhotoStore()?.get(id));
  if (!bytes) throw Refusal.at(503, '', 'The store that this photo lies in does not give it. Try again later.');
  return { bytes };
}

export async function removePhoto(id: string): Promise<void> {
  const [gone] = await database().delete(photos).where(eq(photos.id, id)).returning({ jobId: photos.jobId });
  if (!gone) return;
  await tell(database(), { topic: 'photos', id: gone.jobId });
  await removeStored(id);
}

const MOVED_AT_ONCE = 20;

/** Bring photos that are still in the database to the object store, where there is one. */
export async function movePhotos(): Promise<void> {
  const store = findPhotoStore();
  if (!store) return;
  for (;;) {
    const rows = await database()
      .select({ id: photos.id, bytes: photos.bytes })
      .from(photos)
      .where(isNotNull(photos.bytes))
      .limit(MOVED_AT_ONCE);
    if (rows.length === 0) return;
    for (const { id, bytes } of rows) {
      await store.put(id, bytes!);
      await database().update(photos).set({ bytes: null }).where(eq(photos.id, id));
    }
  }
}
