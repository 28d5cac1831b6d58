'use client';

import { Button } from '@mantine/core';
import { Link } from './Link';
import type { ReactNode } from 'react';
import controls from './controls.module.css';

/** What a place will show when there is something, and what to do for that. at: an address beside that of the station, "brief?tab=mates". */
export function NextAction({ words, at, action }: { words: ReactNode; at: string; action: string }) {
  return (
    <div className={controls.wait}>
      <p>{words}</p>
      <Button component={Link} href={at} size="compact-md" variant="default">
        {action}
      </Button>
    </div>
  );
}
