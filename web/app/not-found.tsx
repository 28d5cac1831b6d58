import Link from 'next/link';

export default function NotFound() {
  return (
    <main style={{ padding: 48 }}>
      <h2>There is nothing here</h2>
      <p>
        The job may have been on another machine. <Link href="/">Back to the jobs</Link>
      </p>
    </main>
  );
}
