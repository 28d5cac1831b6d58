'use client';

import { Button } from '@mantine/core';
import { Link } from '../ui/Link';

export default function NotFound() {
  return (
    <main style={{ padding: 48 }}>
      <h2>There is nothing here</h2>
      <p>The job may have been on another machine, or its address was cut short.</p>
      <Button component={Link} href="/">
        Back to the jobs
      </Button>
    </main>
  );
}
