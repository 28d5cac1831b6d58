'use client';

import { Button, Group } from '@mantine/core';
import { Link } from '../ui/Link';

export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  return (
    <main style={{ padding: 48 }}>
      <h2>This page stopped</h2>
      <p>What you had done is kept.</p>
      <Group>
        <Button onClick={reset}>Open it again</Button>
        <Button variant="default" component={Link} href="/">
          Back to the jobs
        </Button>
      </Group>
    </main>
  );
}
