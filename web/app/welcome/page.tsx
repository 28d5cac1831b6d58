import { WelcomeStation } from '../../stations/accounts/WelcomeStation';

export const dynamic = 'force-dynamic';

export default async function WelcomePage({ searchParams }: { searchParams: Promise<{ code?: string }> }) {
  return <WelcomeStation code={(await searchParams).code ?? ''} />;
}
