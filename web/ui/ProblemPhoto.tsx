import { toUrl } from '../client/base';
import { BlobPicture } from './BlobPicture';
import styles from './ProblemPhoto.module.css';

/** The picture of a problem, whose id it has. A press shows it whole. */
export function ProblemPhoto({ id }: { id: string }) {
  const path = toUrl(`/api/photos/${id}`);
  return (
    <a className={styles.photo} href={path} target="_blank" rel="noreferrer">
      {/* eslint-disable-next-line @next/next/no-img-element -- the server has made it of a fitting size */}
      <img src={path} alt="photo of the problem" />
    </a>
  );
}

/** The same where only the device that took it has it yet. */
export function KeptPhoto({ blob }: { blob: Blob }) {
  return (
    <span className={styles.photo}>
      <BlobPicture blob={blob} alt="photo of the problem" />
      <small>kept here, not sent yet</small>
    </span>
  );
}
