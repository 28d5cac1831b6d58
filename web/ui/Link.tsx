'use client';

import NextLink from 'next/link';
import type { ComponentProps } from 'react';

/**
 * A link to a page of Wattograph. Nothing is asked for before it is followed: every page is made anew for the person who asks, so what came ahead of a
 * click would be asked for again at the click (decision 0044).
 */
export function Link(props: Omit<ComponentProps<typeof NextLink>, 'prefetch'>) {
  return <NextLink {...props} prefetch={false} />;
}
