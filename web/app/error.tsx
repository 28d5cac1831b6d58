'use client';

import Link from 'next/link';

export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  return (
    <main style={{ padding: 48 }}>
      <h2>This page stopped</h2>
      <p>
        What you had done is kept. <button onClick={reset}>Open it again</button> or go <Link href="/">back to the jobs</Link>.
      </p>
    </main>
  );
}
