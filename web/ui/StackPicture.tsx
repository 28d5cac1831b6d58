import { useMemo } from 'react';
import { toSvg, type Drawing } from 'wattograph-core';
import styles from './StackPicture.module.css';

/** A drawing as it prints, on paper in either theme. */
export function StackPicture({ drawing, words }: { drawing: Drawing; words: string }) {
  const svg = useMemo(() => toSvg(drawing), [drawing]);
  return <div className={styles.paper} role="img" aria-label={words} dangerouslySetInnerHTML={{ __html: svg }} />;
}
