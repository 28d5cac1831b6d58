import { redirect } from 'next/navigation';
import { readDemoPins } from '../../server/accounts/demo';
import { hasPeople } from '../../server/accounts/people';
import { SignInStation } from '../../stations/accounts/SignInStation';

export const dynamic = 'force-dynamic';

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ next?: string }> }) {
  if (!(await hasPeople())) redirect('/set-up');
  const { next = '/' } = await searchParams;
  // a place of this installation only: two slashes, or a backslash, would lead elsewhere
  return <SignInStation next={/^\/(?![/\\])/.test(next) ? next : '/'} pins={await readDemoPins()} />;
}
