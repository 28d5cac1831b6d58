import { redirect } from 'next/navigation';

export default async function JobPage({ params }: { params: Promise<{ id: string }> }) {
  redirect(`/jobs/${(await params).id}/bundle`);
}
