import { useState } from 'react';
import { readCodeIn } from '../../client/readCodeIn';
import { CameraInput } from '../../ui/fields/CameraInput';
import styles from './StepList.module.css';

/** Where the code of a card leads, as a scanner types it or a camera sees it. */
export interface CardCode {
  jobId: string;
  query: URLSearchParams;
}

/** null: something else was typed. */
export function readCode(words: string): CardCode | null {
  const found = /\/jobs\/([0-9a-f-]{36})\/floor\?(\S+)/i.exec(words);
  const query = new URLSearchParams(found?.[2] ?? '');
  return found && query.has('card') ? { jobId: found[1]!, query } : null;
}

/** Take a picture of the code on a card, at the bench or on the board: it opens where that leads (craft D1). Works without a network. */
export function ScanCode({ onScan }: { onScan: (code: CardCode) => void }) {
  const [told, setTold] = useState<string | null>(null);
  const look = async (picture: Blob) => {
    setTold('Looking for the code …');
    const words = await readCodeIn(picture).catch(() => undefined);
    const code = words ? readCode(words) : null;
    setTold(code ? null : toTold(words));
    if (code) onScan(code);
  };
  return (
    <>
      <label className={styles.scan}>
        Scan
        <CameraInput label="Scan a code" isAny onPicture={(picture) => void look(picture)} />
      </label>
      {told && (
        <p className={styles.scanned} role="status">
          {told}
        </p>
      )}
    </>
  );
}

/** words: of a code that is none of a card; null: none was seen; undefined: the file is no picture. */
function toTold(words: string | null | undefined): string {
  if (words === undefined) return 'That was no picture: expected a photo of the code of a card.';
  if (words === null) return 'No code is seen in it. Go nearer, hold it flat, and let nothing shine on it.';
  return `That is the code of no card: it says “${words.slice(0, 60)}”.`;
}
