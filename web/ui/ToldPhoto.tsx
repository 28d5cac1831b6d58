import { toUrl } from '../client/base';
import { BlobPicture } from './BlobPicture';
import styles from './ToldPhoto.module.css';

/** A picture with the id of what it is of. A press shows it whole. alt: what it is of. */
export function ToldPhoto({ id, alt }: { id: string; alt: string }) {
  const path = toUrl(`/api/photos/${id}`);
  return (
    <a className={styles.photo} href={path} target="_blank" rel="noreferrer">
      {/* eslint-disable-next-line @next/next/no-img-element -- the server has made it of a fitting size */}
      <img src={path} alt={alt} />
    </a>
  );
}

/** The same where only the device that took it has it yet. */
export function KeptPhoto({ blob, alt }: { blob: Blob; alt: string }) {
  return (
    <span className={styles.photo}>
      <BlobPicture blob={blob} alt={alt} />
      <small>kept here, not sent yet</small>
    </span>
  );
}
