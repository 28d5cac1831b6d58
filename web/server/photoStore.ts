import { AwsClient } from 'aws4fetch';
import { log } from './log';
import { Refusal } from './refusal';

/** Where the bytes of photos lie, where that is not the database. */
export interface PhotoStore {
  /** Keep it; the same id again is the same photo. Throws 503 where that is not done. */
  put(id: string, bytes: Buffer): Promise<void>;
  /** null: it does not give it */
  get(id: string): Promise<Buffer | null>;
  remove(id: string): Promise<void>;
}

const TIMEOUT_MS = 10_000;
const MISSING = 404;

/** A bucket of an object store that speaks the S3 protocol, by its address (path style). */
export function createBucket(address: string, keys: { accessKeyId: string; secretAccessKey: string; region: string }): PhotoStore {
  const client = new AwsClient({ ...keys, service: 's3', retries: 2 });
  const base = address.replace(/\/+$/, '');
  const ask = (id: string, init: RequestInit = {}) =>
    client.fetch(`${base}/photos/${id}.jpg`, { ...init, signal: AbortSignal.timeout(TIMEOUT_MS) });
  return {
    async put(id, bytes) {
      const answer = await ask(id, { method: 'PUT', body: new Uint8Array(bytes), headers: { 'content-type': 'image/jpeg' } }).catch(
        (error: unknown) => ({ ok: false, status: String(error) }),
      );
      if (answer.ok) return;
      log.error({ photo: id, status: answer.status }, 'object store did not keep a photo');
      throw Refusal.at(503, '', 'The store of the photos does not answer. Nothing was stored; try again.');
    },
    async get(id) {
      const answer = await ask(id).catch(() => null);
      return answer?.ok ? Buffer.from(await answer.arrayBuffer()) : null;
    },
    async remove(id) {
      const answer = await ask(id, { method: 'DELETE' }).catch(() => null);
      if (!answer?.ok && answer?.status !== MISSING) log.warn({ photo: id }, 'object store did not remove a photo');
    },
  };
}

const holder = globalThis as typeof globalThis & { wattographPhotos?: PhotoStore | null };

/** The object store of this installation; null: photos lie in the database. */
export function findPhotoStore(): PhotoStore | null {
  if (holder.wattographPhotos !== undefined) return holder.wattographPhotos;
  const address = process.env.WATTOGRAPH_PHOTOS;
  if (!address) return (holder.wattographPhotos = null);
  const { AWS_ACCESS_KEY_ID: accessKeyId, AWS_SECRET_ACCESS_KEY: secretAccessKey, AWS_REGION: region = 'us-east-1' } = process.env;
  if (!accessKeyId || !secretAccessKey)
    throw new Error('WATTOGRAPH_PHOTOS: expected AWS_ACCESS_KEY_ID and AWS_SECRET_ACCESS_KEY beside it, got none');
  return (holder.wattographPhotos = createBucket(address, { accessKeyId, secretAccessKey, region }));
}

/** Take a photo out of the object store, where there is one. */
export const removeStored = async (id: string): Promise<void> => findPhotoStore()?.remove(id);
