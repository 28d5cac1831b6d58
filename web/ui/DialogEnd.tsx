import { Button, Group } from '@mantine/core';
import type { ReactNode } from 'react';

/** Leave a dialog or do what it is for; children: what else it can do. */
export const DialogEnd = ({
  onClose,
  words,
  isReady,
  children,
}: {
  onClose: () => void;
  words: string;
  isReady: boolean;
  children?: ReactNode;
}) => (
  <Group justify="flex-end" mt="md">
    <Button variant="default" onClick={onClose}>
      Leave it
    </Button>
    {children}
    <Button type="submit" disabled={!isReady}>
      {words}
    </Button>
  </Group>
);
