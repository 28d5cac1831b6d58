'use client';

import { Button } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useEffect } from 'react';
import { request } from '../client/request';

const ASK_MS = 20_000;

/** Says when the shop that this page plans with is not the present one any more, and offers to open the job with that. */
export function useShopNotice(version: number): void {
  useEffect(() => {
    const ask = async () => {
      if (document.hidden) return;
      const present = await request<{ version: number }>('/api/shop/version').catch(() => null);
      if (!present || present.version === version) return;
      clearInterval(timer);
      notifications.show({
        id: 'shop-version',
        color: 'brass',
        title: `The shop is at version ${present.version} now`,
        message: (
          <>
            This page plans with version {version}.{' '}
            <Button size="compact-sm" variant="default" onClick={() => location.reload()}>
              Plan with version {present.version}
            </Button>
          </>
        ),
        autoClose: false,
      });
    };
    const timer = setInterval(() => void ask(), ASK_MS);
    return () => clearInterval(timer);
  }, [version]);
}
