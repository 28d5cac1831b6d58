'use client';

import { HoverCard, UnstyledButton } from '@mantine/core';
import type { ReactNode } from 'react';

/** A computed figure that says why: on hover, focus or tap, with its formula, inputs and rule. */
export function Why({ children, because }: { children: ReactNode; because: ReactNode }) {
  return (
    <HoverCard
      openDelay={120}
      closeDelay={60}
      events={{ touch: true }}
      shadow="none"
      withinPortal
      position="bottom-start"
      width="max-content"
    >
      <HoverCard.Target>
        <UnstyledButton
          component="span"
          role="button"
          tabIndex={0}
          style={{ borderBottom: '1px dotted var(--ink-2)', cursor: 'help', fontSize: 'inherit' }}
        >
          {children}
        </UnstyledButton>
      </HoverCard.Target>
      <HoverCard.Dropdown style={{ border: '1.5px solid var(--ink)', background: 'var(--paper)', maxWidth: 520 }}>
        {because}
      </HoverCard.Dropdown>
    </HoverCard>
  );
}
