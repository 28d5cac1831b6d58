'use client';

import { Splitter, type SplitterProps } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import type { ReactNode } from 'react';
import styles from './Split.module.css';

/** Two panes with a bar between them that can be dragged or moved with the arrow keys; where it stands is remembered on this device. */
export function Split({
  name,
  orientation,
  share,
  least,
  children: [first, second],
}: {
  /** what it is remembered by */
  name: string;
  orientation: 'horizontal' | 'vertical';
  /** of the first pane until it is moved, % */
  share: number;
  /** of each pane, % */
  least: readonly [number, number];
  children: [ReactNode, ReactNode];
}) {
  const [sizes, setSizes] = useLocalStorage<NonNullable<SplitterProps['sizes']>>({
    key: `wattograph.split.${name}`,
    defaultValue: [share, 100 - share],
  });
  return (
    <Splitter
      className={styles.split}
      orientation={orientation}
      sizes={sizes}
      onSizeChange={setSizes}
      withHandle={false}
      step={2}
      lineSize={12}
      handleColor="transparent"
      classNames={{ pane: styles.pane, handle: styles.handle }}
    >
      <Splitter.Pane defaultSize={share} min={least[0]}>
        {first}
      </Splitter.Pane>
      <Splitter.Pane defaultSize={100 - share} min={least[1]}>
        {second}
      </Splitter.Pane>
    </Splitter>
  );
}
